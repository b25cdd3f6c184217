import type { Figures } from '../composition/figures';

/** A class of chocolate in a reference, and what of it these figures lack. Local codes decide what may be called what. */
export interface ReferenceClass {
  name: string;
  source: string;
  /** What is missing for it, in words; none: the figures are those of this class. */
  lacks: string[];
}

interface Rule {
  of: string;
  value: (f: Dry) => number;
  least?: number;
  most?: number;
}
interface Class {
  name: string;
  source: string;
  rules: Rule[];
}

/** Shares of the dry matter, as the standards count. */
interface Dry {
  cocoa: number;
  cocoaButter: number;
  dryCocoa: number;
  milk: number;
  milkFat: number;
  fat: number;
  sugar: number;
}

const cocoa = (least: number): Rule => ({ of: 'cocoa solids', value: (f) => f.cocoa, least });
const butter = (least: number): Rule => ({ of: 'cocoa butter', value: (f) => f.cocoaButter, least });
const dryCocoa = (least: number): Rule => ({ of: 'fat-free cocoa', value: (f) => f.dryCocoa, least });
const milk = (least: number): Rule => ({ of: 'milk solids', value: (f) => f.milk, least });
const milkFat = (least: number): Rule => ({ of: 'milk fat', value: (f) => f.milkFat, least });
/** Ground nibs: fat-free cocoa and the butter that comes with it, as nibs have it. */
const liquor = (least: number): Rule => ({
  of: 'ground nibs (reckoned)',
  value: (f) => Math.min(f.cocoa, f.dryCocoa / 0.46),
  least,
});

const CODEX = 'Codex CXS 87-1981';
const CFR = '21 CFR 163';
const CLASSES: readonly Class[] = [
  {
    name: 'Couverture',
    source: CODEX,
    rules: [cocoa(35), butter(31), dryCocoa(2.5), { of: 'milk solids', value: (f) => f.milk, most: 5 }],
  },
  {
    name: 'Chocolate',
    source: CODEX,
    rules: [cocoa(35), butter(18), dryCocoa(14), { of: 'milk solids', value: (f) => f.milk, most: 5 }],
  },
  {
    name: 'Sweet chocolate',
    source: CODEX,
    rules: [cocoa(30), butter(18), dryCocoa(12), { of: 'milk solids', value: (f) => f.milk, most: 5 }],
  },
  { name: 'Milk chocolate', source: CODEX, rules: [cocoa(25), dryCocoa(2.5), milk(12), milkFat(2.5)] },
  { name: 'Family milk chocolate', source: CODEX, rules: [cocoa(20), dryCocoa(2.5), milk(20), milkFat(5)] },
  {
    name: 'White chocolate',
    source: CODEX,
    rules: [butter(20), milk(14), milkFat(2.5), { of: 'fat-free cocoa', value: (f) => f.dryCocoa, most: 1 }],
  },
  {
    name: 'Semisweet or bittersweet chocolate',
    source: `${CFR}.123`,
    rules: [liquor(35), { of: 'milk solids', value: (f) => f.milk, most: 12 }],
  },
  {
    name: 'Sweet chocolate',
    source: `${CFR}.123`,
    rules: [liquor(15), { of: 'milk solids', value: (f) => f.milk, most: 12 }],
  },
  { name: 'Milk chocolate', source: `${CFR}.130`, rules: [liquor(10), milk(12), milkFat(3.39)] },
  {
    name: 'White chocolate',
    source: `${CFR}.124`,
    rules: [butter(20), milk(14), milkFat(3.5), { of: 'sugar', value: (f) => f.sugar, most: 55 }],
  },
];

/** Rounding of a share is nobody's fault. */
const SLACK = 0.05;

/**
 * Which reference classes these figures are those of, and how far they are from the others.
 *
 * @returns every class, those without a lack first, then by the number of lacks
 */
export function referenceClasses(figures: Figures): ReferenceClass[] {
  const dry = Math.max(1, 100 - figures.waterPct) / 100;
  const of: Dry = {
    cocoa: Math.min(figures.cocoaPct, figures.cocoaButterPct + figures.dryCocoaPct) / dry,
    cocoaButter: figures.cocoaButterPct / dry,
    dryCocoa: figures.dryCocoaPct / dry,
    milk: figures.milkPct / dry,
    milkFat: figures.milkFatPct / dry,
    fat: figures.fatPct / dry,
    sugar: figures.sugarPct / dry,
  };
  return CLASSES.map(({ name, source, rules }) => ({
    name,
    source,
    lacks: rules.flatMap((rule) => {
      const value = rule.value(of);
      if (rule.least !== undefined && value < rule.least - SLACK)
        return [`${rule.of} ${value.toFixed(1)} %, wants ${rule.least} %`];
      if (rule.most !== undefined && value > rule.most + SLACK)
        return [`${rule.of} ${value.toFixed(1)} %, at most ${rule.most} %`];
      return [];
    }),
  })).sort((a, b) => a.lacks.length - b.lacks.length);
}
