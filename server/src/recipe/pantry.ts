import type { LotYield, PantryRow, PantryView } from '@wunsch/core/api/recipe';
import { NIB_FAT, nibContents } from '@wunsch/core/composition/usual-contents';
import type { CommandOf } from '@wunsch/core/commands';
import type { Material } from '@wunsch/core/ledger/types';
import { bowlIngredient } from '@wunsch/core/recipe/bowl';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Ingredient, Role } from '@wunsch/core/recipe/ingredient';
import { lotOf, NIBS } from '@wunsch/core/recipe/records';
import { oldestFirst, type StockLine } from '@wunsch/core/recipe/stock';
import { milliFromMajor } from '@wunsch/core/units/money';
import { sacksOf } from '../beans/views';
import type { ExpectedGoods } from '@wunsch/core/ledger/expect';
import { expectedFrom, usualBar } from '../ledger/expected';
import type { Views } from '../ledger/views';

/** Batches whose thickness a recipe is held against. */
const PAST = 40;

const roleOf = ({ cocoa, sugar, allergens }: Material, lecithinPct: number, sweet: boolean): Role => {
  if (cocoa !== 'none') return cocoa;
  if (sugar || sweet) return 'sugar';
  if (lecithinPct > 50) return 'lecithin';
  return allergens.includes('milk') ? 'milk' : 'other';
};

const expectedNibs = new WeakMap<Views, { of: string; rows: Map<string, ExpectedGoods['nibsG']> }>();

/** Grams of nibs that a kilogram of a lot still gives, worked out once for each state of the book. */
function nibsFrom(views: Views, lotId: string): ExpectedGoods['nibsG'] {
  const { book, told } = views.workshop;
  const of = `${book.state} ${told}`;
  let known = expectedNibs.get(views);
  if (known?.of !== of) expectedNibs.set(views, (known = { of, rows: new Map() }));
  const found = known.rows.get(lotId) ?? expectedFrom(views, lotId, 1000).nibsG;
  known.rows.set(lotId, found);
  return found;
}

/** Everything that can go into a bowl, with what it is made of, what it costs and where it stands. */
export class Pantry {
  private readonly stock = new Map<string, StockLine[]>();
  private readonly rows = new Map<string, PantryRow>();
  private readonly reserved: Map<string, number>;

  constructor(
    private readonly views: Views,
    /** A weighing run whose own grams count as free. */
    exceptWeighing?: string,
  ) {
    this.reserved = views.workshop.reserved(exceptWeighing);
    const { book } = views.workshop;
    for (const holding of book.standing) {
      const holdingId = holding.id;
      if (holding.kind === 'ingredient' && holding.materialId !== null) this.keep(holding.materialId, holdingId);
      if (holding.kind === 'nibs' || (holding.kind === 'lot' && this.lotIsNibs(holdingId))) {
        this.keep(NIBS, holdingId);
        const { lotId } = views.dominant(holdingId);
        if (lotId !== null) this.keep(`lot:${lotId}`, holdingId);
      }
    }
  }

  private lotIsNibs(holdingId: string): boolean {
    return this.views.workshop.lots.get(holdingId)?.form === 'nibs';
  }

  private keep(ingredient: string, holdingId: string): void {
    const { book, valuation } = this.views.workshop;
    const { massMg } = book.balance(holdingId);
    const entry = book.firstEntry(holdingId);
    const command = book.steps.get(entry?.stepId ?? '')?.command as Partial<CommandOf<'buy'>> | undefined;
    const line: StockLine = {
      holdingId,
      code: book.holding(holdingId).code,
      freeG: Math.max(0, massMg - (this.reserved.get(holdingId) ?? 0)) / 1000,
      since: entry?.at ?? 0,
      bestBefore: command?.bestBefore ?? null,
      perKgMilli: valuation.perKgMilli(holdingId),
    };
    const list = this.stock.get(ingredient);
    if (list) list.push(line);
    else this.stock.set(ingredient, [line]);
  }

  /** What can be taken of an ingredient, the first to be used first. */
  stockOf(ingredient: string): StockLine[] {
    return oldestFirst((this.stock.get(ingredient) ?? []).filter(({ freeG }) => freeG > 0));
  }

  /** @throws DomainError `recipe/unknown-ingredient` */
  row(ingredient: string, path = 'lines'): PantryRow {
    const found = this.rows.get(ingredient) ?? this.read(ingredient);
    if (!found)
      throw new DomainError('recipe/unknown-ingredient', 'There is no such ingredient here.', [
        { path, message: 'is not known here' },
      ]);
    this.rows.set(ingredient, found);
    return found;
  }

  /** Whether a holding is what is asked for, and what it is instead. */
  isOf(ingredient: string, holdingId: string): boolean {
    return (this.stock.get(ingredient) ?? []).some((line) => line.holdingId === holdingId);
  }

  private read(ingredient: string): PantryRow | null {
    const lotId = lotOf(ingredient);
    if (ingredient === NIBS || lotId !== null) return this.nibs(ingredient, lotId);
    const { workshop } = this.views;
    const { materials } = workshop;
    const material = materials.get(ingredient);
    if (!material || material.kind !== 'ingredient') return null;
    const facts = workshop.compositions.facts(material, workshop.now());
    const { contents } = facts;
    const stock = this.stockOf(ingredient);
    return {
      id: ingredient,
      name: material.name,
      role: roleOf(material, contents?.lecithinPct ?? 0, (contents?.sugarPct ?? 0) + (contents?.polyolsPct ?? 0) > 60),
      contents,
      source: facts.source,
      assumed: !facts.own,
      cocoaPct: facts.cocoaPct,
      withoutButterPct: facts.withoutButterPct,
      allergens: facts.allergens,
      perKgMilli:
        priceOf(stock) ?? (facts.pricePerKg === null ? this.lastPrice(ingredient) : milliFromMajor(facts.pricePerKg)),
      lots: [],
      madeOf: (material.madeOf ?? []).flatMap(({ materialId, pct }) => {
        const part = materials.get(materialId);
        return part
          ? { name: part.name, pct, allergens: workshop.compositions.facts(part, workshop.now()).allergens }
          : [];
      }),
      stock,
      stockG: sum(stock),
      lot: null,
    };
  }

  private nibs(ingredient: string, lotId: string | null): PantryRow | null {
    const { workshop } = this.views;
    if (lotId !== null && !workshop.lots.has(lotId)) return null;
    const own = lotId === null ? null : workshop.compositions.nibs(lotId);
    const stock = this.stockOf(ingredient);
    const holding = lotId === null ? null : workshop.book.holding(lotId);
    return {
      id: ingredient,
      name: holding ? `Nibs ${holding.code} ${holding.name}` : 'Nibs',
      role: 'nibs',
      contents: own?.contents ?? nibContents(),
      source: own?.source ?? `usual, ${NIB_FAT.low} to ${NIB_FAT.high} % fat`,
      assumed: !(own?.measured ?? false),
      cocoaPct: 100,
      withoutButterPct: 100,
      allergens: [],
      perKgMilli: priceOf(stock) ?? (lotId === null ? priceOf(this.stock.get(NIBS) ?? []) : this.fromBeans(lotId)),
      lots: lotId === null ? [] : [{ lotId, share: 1 }],
      stock,
      stockG: sum(stock),
      lot: lotId === null ? null : this.yieldOf(lotId),
    };
  }

  /** Nibs of a lot that are still to be made: what its beans cost, and what of them is left. */
  private fromBeans(lotId: string): number | null {
    const perKg = this.views.workshop.valuation.perKgMilli(lotId);
    const { nibsPerKg } = this.yieldOf(lotId);
    return perKg > 0 ? (1000 * perKg) / Math.max(nibsPerKg.mean, 1) : null;
  }

  private yieldOf(lotId: string): LotYield {
    const { workshop, yields } = this.views;
    const facts = workshop.lots.get(lotId);
    const expected = nibsFrom(this.views, lotId);
    const asNibs = facts?.form === 'nibs';
    const roasts = [...yields.ofLot('roast', lotId), ...yields.of('roast').slice(-20)];
    const received = workshop.book.firstEntry(lotId)?.massMg ?? 0;
    return {
      nibsPerKg: asNibs || expected.mean <= 0 ? { mean: 1000, low: 1000, high: 1000 } : expected,
      loadG: roasts.length > 0 ? roasts.reduce((total, { inMg }) => total + inMg, 0) / roasts.length / 1000 : 20_000,
      sackG: facts && facts.sacks > 0 ? received / 1000 / facts.sacks : null,
      sacks: sacksOf(this.views, lotId).flatMap(({ no, leftG, place, state }) =>
        state === 'empty' ? [] : [{ no, leftG, place, open: state === 'open' }],
      ),
      greenG: workshop.book.balance(lotId).massMg / 1000,
    };
  }

  private lastPrice(materialId: string): number | null {
    for (const step of this.views.workshop.book.timeline.backwards()) {
      if (step.kind !== 'buy') continue;
      const command = step.command as CommandOf<'buy'>;
      if (command.materialId !== materialId || command.massG === undefined) continue;
      return (1000 * step.money.purchaseMilli) / command.massG;
    }
    return null;
  }

  /** Ingredients in use, and nibs of every lot of which something is left. */
  view(): PantryView {
    const { workshop } = this.views;
    const { book } = workshop;
    const withCacao = new Set<string>();
    for (const { id: holdingId, kind } of book.standing) {
      if (kind !== 'lot' && kind !== 'beans' && kind !== 'roasted' && kind !== 'nibs') continue;
      const { lotId } = this.views.dominant(holdingId);
      if (lotId !== null && workshop.lots.get(lotId)?.sample !== true) withCacao.add(lotId);
    }
    const ids = [
      NIBS,
      ...[...withCacao].map((lotId) => `lot:${lotId}`),
      ...[...workshop.materials.values()]
        .filter(({ id, kind, retired }) => kind === 'ingredient' && (retired !== true || this.stock.has(id)))
        .map(({ id }) => id),
    ];
    return {
      rows: ids.map((id) => this.row(id)),
      barG: usualBar(this.views, '').barG,
      pastFlow: pastFlow(this.views),
    };
  }
}

const sum = (stock: readonly StockLine[]): number => stock.reduce((total, { freeG }) => total + freeG, 0);

/** What a kilogram of the stock costs on average; null without any. */
function priceOf(stock: readonly StockLine[]): number | null {
  const priced = stock.filter(({ perKgMilli, freeG }) => perKgMilli !== null && freeG > 0);
  const grams = sum(priced);
  return grams > 0
    ? priced.reduce((total, { perKgMilli, freeG }) => total + (perKgMilli ?? 0) * freeG, 0) / grams
    : null;
}

/** Thickness of batches as they came off the stones, by what they really were. */
function pastFlow(views: Views): PantryView['pastFlow'] {
  const { workshop } = views;
  const newestFirst = [...workshop.batches.values()]
    .flatMap((batch) => {
      const first = workshop.book.firstEntry(batch.id);
      return first ? [{ batch, at: first.at }] : [];
    })
    .sort((a, b) => b.at - a.at);
  const rows: PantryView['pastFlow'] = [];
  for (const { batch } of newestFirst) {
    if (rows.length === PAST) break;
    const { figures, cocoaPct } = views.cocoa(batch.id);
    if (figures.flow === null || figures.unknownPct > 1) continue;
    const kind = figures.milkPct > 5 ? 'milk' : 'dark';
    rows.push({ code: batch.code, name: batch.name, flow: figures.flow, cocoaPct, kind });
  }
  return rows.reverse();
}

/** What is in a bowl that grinds, as one ingredient. */
export function bowlOf(views: Views, batchId: string): { ingredient: Ingredient; grams: number } {
  const { book, valuation, batches } = views.workshop;
  const batch = batches.get(batchId);
  if (!batch) throw new DomainError('http/not-found', 'There is no such batch.');
  const grams = book.balance(batchId).massMg / 1000;
  if (grams <= 0)
    throw new DomainError('grind/empty', `${batch.code} has nothing in the bowl any more.`, [
      { path: 'batchId', message: 'is empty' },
    ]);
  return { ingredient: bowlIngredient(`in ${batch.code}`, views.cocoa(batchId), valuation.perKgMilli(batchId)), grams };
}
