import type { Composition } from '../composition/composition';
import { DomainError } from '../errors/domain-error';
import type { LabelWords, Market } from './records';

export { MARKETS, type Market } from './records';

/** The words that stand on a label. */
interface Phrases {
  ingredients: string;
  cocoa: (pct: string) => string;
  cocoaBeans: string;
  may: string;
  net: string;
  best: string;
  batch: string;
  origin: string;
  store: string;
  nutrition: string;
  rows: Readonly<
    Record<'energy' | 'fat' | 'saturates' | 'carbohydrate' | 'sugars' | 'fibre' | 'protein' | 'salt', string>
  >;
}

export const PHRASES: Readonly<Record<Market, Phrases>> = {
  en: {
    ingredients: 'Ingredients',
    cocoa: (pct) => `Cocoa solids: ${pct} % minimum`,
    cocoaBeans: 'cocoa beans',
    may: 'May contain',
    net: 'Net weight',
    best: 'Best before',
    batch: 'Batch',
    origin: 'Cocoa from',
    store: 'Keep dry and dark, at 16 to 18 °C.',
    nutrition: 'Estimated per 100 g',
    rows: {
      energy: 'Energy',
      fat: 'Fat',
      saturates: 'of which saturates',
      carbohydrate: 'Carbohydrate',
      sugars: 'of which sugars',
      fibre: 'Fibre',
      protein: 'Protein',
      salt: 'Salt',
    },
  },
  de: {
    ingredients: 'Zutaten',
    cocoa: (pct) => `Kakao: ${pct} % mindestens`,
    cocoaBeans: 'Kakaobohnen',
    may: 'Kann Spuren enthalten von',
    net: 'Nettofüllmenge',
    best: 'Mindestens haltbar bis',
    batch: 'Los',
    origin: 'Kakao aus',
    store: 'Trocken und dunkel bei 16 bis 18 °C lagern.',
    nutrition: 'Geschätzt je 100 g',
    rows: {
      energy: 'Energie',
      fat: 'Fett',
      saturates: 'davon gesättigte Fettsäuren',
      carbohydrate: 'Kohlenhydrate',
      sugars: 'davon Zucker',
      fibre: 'Ballaststoffe',
      protein: 'Eiweiß',
      salt: 'Salz',
    },
  },
  fr: {
    ingredients: 'Ingrédients',
    cocoa: (pct) => `Cacao : ${pct} % minimum`,
    cocoaBeans: 'fèves de cacao',
    may: 'Peut contenir',
    net: 'Poids net',
    best: 'À consommer de préférence avant le',
    batch: 'Lot',
    origin: 'Cacao de',
    store: 'À conserver au sec et à l’abri de la lumière, entre 16 et 18 °C.',
    nutrition: 'Estimation pour 100 g',
    rows: {
      energy: 'Énergie',
      fat: 'Matières grasses',
      saturates: 'dont acides gras saturés',
      carbohydrate: 'Glucides',
      sugars: 'dont sucres',
      fibre: 'Fibres',
      protein: 'Protéines',
      salt: 'Sel',
    },
  },
  es: {
    ingredients: 'Ingredientes',
    cocoa: (pct) => `Cacao: ${pct} % mínimo`,
    cocoaBeans: 'granos de cacao',
    may: 'Puede contener',
    net: 'Peso neto',
    best: 'Consumir preferentemente antes del',
    batch: 'Lote',
    origin: 'Cacao de',
    store: 'Conservar seco y oscuro, de 16 a 18 °C.',
    nutrition: 'Estimado por 100 g',
    rows: {
      energy: 'Energía',
      fat: 'Grasas',
      saturates: 'de las cuales saturadas',
      carbohydrate: 'Hidratos de carbono',
      sugars: 'de los cuales azúcares',
      fibre: 'Fibra',
      protein: 'Proteínas',
      salt: 'Sal',
    },
  },
};

/** What an ingredient is made of, in falling order, and the allergens that it brings. */
export interface IngredientInside {
  within: readonly { name: string; allergens: readonly string[] }[];
  allergens: readonly string[];
}

/** What a label is made from. */
export interface LabelGoods {
  name: string;
  composition: Composition;
  /** What is known of an ingredient by the id of its root. */
  inside: (rootId: string) => IngredientInside;
  /** Allergens that machines can have carried over, uncleaned since. */
  carriedOver: readonly string[];
  /** Cocoa percent of its chocolate alone, where something else is in or on it. */
  chocolatePct?: number | null;
  /** Grams a piece on the mean, as they were weighed. */
  meanG: number | null;
  /** Origin words that the ledger bears out; null: none. */
  origin: string | null;
  code: string;
  bestBefore: string | null;
  maker: string;
}

export interface LabelWish {
  market: Market;
  /** Cocoa percent on the label; left out, the true one, whole and rounded down. */
  declaredPct?: number | undefined;
  /** Declared net weight, g; left out, the mean, rounded down to five grams. */
  netG?: number | undefined;
  /** Words in place of the usual ones. */
  words?: LabelWords | undefined;
}

/** The words of a language, with those that somebody put in their place. */
export function phrasesOf(market: Market, own: LabelWords = {}): Phrases {
  const usual = PHRASES[market];
  const said = Object.fromEntries(Object.entries(own).filter(([, words]) => words !== ''));
  const { cocoa, ...rest } = said as LabelWords;
  return {
    ...usual,
    ...(rest as Partial<Phrases>),
    ...(cocoa === undefined ? {} : { cocoa: (pct: string) => cocoa.replace('{pct}', pct) }),
  };
}

/** A piece of text, set off or not. */
export interface Run {
  text: string;
  strong: boolean;
}

export interface Label {
  name: string;
  cocoa: string | null;
  ingredients: Run[];
  mayContain: string[];
  net: string | null;
  origin: string | null;
  batch: string;
  bestBefore: string | null;
  maker: string;
  store: string;
  /** Names and values, an estimate from usual compositions. */
  nutrition: (readonly [string, string])[];
  market: Market;
  /** The words that stand before its figures. */
  words: Pick<Phrases, 'may' | 'origin' | 'net' | 'best' | 'batch' | 'nutrition'>;
  /** What somebody has to look at before it is printed. */
  checks: string[];
}

/** Energy, kJ and kcal a gram (Regulation (EU) 1169/2011, annex XIV). */
const ENERGY = { fat: [37, 9], carbohydrate: [17, 4], polyols: [10, 2.4], protein: [17, 4], fibre: [8, 2] } as const;
/** Share of each fat that is saturated, from food composition tables; nuts 0.07 to 0.15, coconut 0.85. */
const SATURATED = { cocoaButter: 0.6, milkFat: 0.65, otherFat: 0.15 } as const;
/** Ash of cocoa and milk, about, % of their dry matter: not food energy. */
const ASH = 0.04;
const TRACE = 0.0005;
/** What the scale's step and rounding to a tenth take from a percent. */
const ROUNDING = 0.05;

/**
 * Everything that stands on a label, from what the goods really are.
 *
 * @throws DomainError `pack/percent-too-high` where more cocoa is declared than is in it; `pack/net-too-high` where more
 *   weight is declared than the pieces weigh on the mean
 */
export function labelOf(goods: LabelGoods, { market, declaredPct, netG, words: own }: LabelWish): Label {
  const words = phrasesOf(market, own);
  const { composition, meanG, chocolatePct = null } = goods;
  const checks: string[] = [];
  const truePct = chocolatePct ?? composition.cocoaPct;
  if (chocolatePct !== null)
    checks.push(
      `Cocoa is counted in its chocolate alone, ${chocolatePct.toFixed(1)} %; of the whole piece it is ${composition.cocoaPct.toFixed(1)} %.`,
    );
  if (composition.figures.otherFatPct > 2)
    checks.push('Saturates of nuts, seeds and coconut are very unlike: the figure is a rough one.');
  if (declaredPct !== undefined && declaredPct > truePct + ROUNDING)
    throw new DomainError(
      'pack/percent-too-high',
      `${goods.code} has ${truePct.toFixed(1)} % cocoa: ${declaredPct} % cannot be declared. A lower number may be.`,
      [{ path: 'declaredPct', message: `is more than the ${truePct.toFixed(1)} % that is in it` }],
    );
  if (netG !== undefined && meanG !== null && netG > meanG + 1e-9)
    throw new DomainError(
      'pack/net-too-high',
      `${goods.code} weighs ${meanG.toFixed(1)} g on the mean: ${netG} g cannot be declared.`,
      [{ path: 'netG', message: `is more than the mean of ${meanG.toFixed(1)} g` }],
    );
  const shown = declaredPct ?? Math.floor(truePct + ROUNDING);
  const declaredG = netG ?? (meanG === null ? null : meanG < 5 ? meanG : 5 * Math.floor(meanG / 5 + 1e-9));
  if (composition.unknownShare > TRACE)
    checks.push(`Nobody said what ${(100 * composition.unknownShare).toFixed(1)} % of it is made of.`);
  if (composition.figures.unknownPct > 1) checks.push('The estimate of its energy leaves out what nobody knows.');
  if (goods.bestBefore === null) checks.push('No best-before date is known.');
  if (goods.origin === null) checks.push('No origin is named: its cacao is a blend, or nobody said where it is from.');
  if (goods.carriedOver.length > 0)
    checks.push(`Machines saw ${goods.carriedOver.join(', ')} before it, uncleaned since: named under “${words.may}”.`);
  return {
    name: goods.name,
    cocoa: truePct < 1 ? null : words.cocoa(String(shown)),
    ingredients: ingredientRuns(goods, words, market),
    mayContain: [...goods.carriedOver].sort(),
    net: declaredG === null ? null : `${declaredG} g`,
    origin: goods.origin,
    batch: goods.code,
    bestBefore: goods.bestBefore,
    maker: goods.maker,
    store: words.store,
    nutrition: nutritionOf(composition, words),
    market,
    words: {
      may: words.may,
      origin: words.origin,
      net: words.net,
      best: words.best,
      batch: words.batch,
      nutrition: words.nutrition,
    },
    checks,
  };
}

/** Ingredients in falling order by weight, compound ones opened, what brings an allergen set off. */
function ingredientRuns({ composition, inside }: LabelGoods, words: Phrases, market: Market): Run[] {
  const rows = new Map<string, { share: number; inside: IngredientInside }>();
  for (const { rootId, name, kind, share } of composition.parts) {
    const shown = kind === 'cacao' ? words.cocoaBeans : inList(name, market);
    const row = rows.get(shown);
    if (row) row.share += share;
    else rows.set(shown, { share, inside: kind === 'cacao' ? { within: [], allergens: [] } : inside(rootId) });
  }
  const runs: Run[] = [{ text: `${words.ingredients}: `, strong: false }];
  const ordered = [...rows].sort(([, a], [, b]) => b.share - a.share);
  ordered.forEach(([name, { inside: own }], index) => {
    const opened = own.within.length > 0;
    runs.push({ text: name, strong: own.allergens.length > 0 && !opened });
    if (opened) {
      runs.push({ text: ' (', strong: false });
      own.within.forEach((part, at) => {
        runs.push({ text: inList(part.name, market), strong: part.allergens.length > 0 });
        if (at < own.within.length - 1) runs.push({ text: ', ', strong: false });
      });
      runs.push({ text: ')', strong: false });
    }
    // An allergen whose word is not in the name is said behind it: “ghee (milk)”.
    const unsaid = own.allergens.filter(
      (word) => ![name, ...own.within.map((part) => part.name)].some((said) => says(said, word)),
    );
    if (unsaid.length > 0) runs.push({ text: ` (${unsaid.join(', ')})`, strong: true });
    runs.push({ text: index < ordered.length - 1 ? ', ' : '.', strong: false });
  });
  return runs;
}

/** A name within a list: nouns keep their capital where the language wants it. */
const inList = (name: string, market: Market): string =>
  market === 'de' || /^\p{Lu}{2}/u.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

const says = (name: string, allergen: string): boolean =>
  name.toLowerCase().includes(allergen.toLowerCase().replace(/s$/, ''));

/** Energy and what it comes from, of 100 g, estimated. */
function nutritionOf({ figures: f }: Composition, { rows }: Phrases): Label['nutrition'] {
  const ash = ASH * (f.dryCocoaPct + f.dryMilkPct);
  const carbohydrate = Math.max(
    f.sugarsPct + f.polyolsPct,
    100 - f.fatPct - f.proteinPct - f.fibrePct - f.waterPct - f.saltPct - f.unknownPct - ash,
  );
  const energy = (unit: 0 | 1): number =>
    ENERGY.fat[unit] * f.fatPct +
    ENERGY.carbohydrate[unit] * (carbohydrate - f.polyolsPct) +
    ENERGY.polyols[unit] * f.polyolsPct +
    ENERGY.protein[unit] * f.proteinPct +
    ENERGY.fibre[unit] * f.fibrePct;
  const g = (value: number): string => `${value < 10 ? value.toFixed(1) : value.toFixed(0)} g`;
  return [
    [rows.energy, `${Math.round(energy(0))} kJ / ${Math.round(energy(1))} kcal`],
    [rows.fat, g(f.fatPct)],
    [
      rows.saturates,
      g(
        SATURATED.cocoaButter * f.cocoaButterPct +
          SATURATED.milkFat * f.milkFatPct +
          SATURATED.otherFat * f.otherFatPct,
      ),
    ],
    [rows.carbohydrate, g(carbohydrate)],
    [rows.sugars, g(f.sugarsPct)],
    [rows.fibre, g(f.fibrePct)],
    [rows.protein, g(f.proteinPct)],
    [rows.salt, `${f.saltPct.toFixed(2)} g`],
  ];
}

/** What the law of a place may ask of a label, to be ticked off by somebody who knows it. */
export const CHECK_LIST: readonly string[] = [
  'Name of the food, as the law names it (dark, milk, white; with what)',
  'Cocoa percent, where it is asked for, and “minimum”',
  'Ingredients in falling order, compound ones opened',
  'Allergens set off, also the possible ones',
  'Net weight, in the height of type that is asked for',
  'Best before, and how to keep it',
  'Name and address of who answers for it',
  'Origin, where it is claimed or asked for',
  'Nutrition, unless the workshop is small enough to be free of it',
  'Batch code',
  'Words for organic, fair, vegan, sugar-free and health: only as far as they are proven',
];
