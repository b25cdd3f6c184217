import type { CommandOf } from '@wunsch/core/commands';
import { expectGoods, type ExpectedGoods, type StationYields } from '@wunsch/core/ledger/expect';
import type { Step } from '@wunsch/core/ledger/types';
import { YIELDS } from '@wunsch/core/stations';
import type { Views } from './views';

const FAMILY_MOST = 60;

/** What grams of a lot will still give, from its own yields, its family's, or the trade's. */
export function expectedFrom(views: Views, lotId: string, leftG: number): ExpectedGoods {
  const { workshop } = views;
  const family = views.family(lotId);
  const route = workshop.routes.get(workshop.book.holding(lotId).routeId ?? '');
  const chain = YIELDS.filter(({ station }) => route?.stations.includes(station) ?? true).map(
    ({ station, step, usual, gives }): StationYields => {
      const own = views.yields.ofLot(step, lotId);
      const others = lastOf(views.yields.ofFamily(step, family), (row) => row.lotId !== lotId, FAMILY_MOST);
      const known = [...others, ...own];
      return {
        station,
        own: own.map(({ value }) => value),
        family: others.map(({ value }) => value),
        usual,
        gives,
        loadG: known.length > 0 ? known.reduce((sum, { inMg }) => sum + inMg, 0) / known.length / 1000 : 20_000,
      };
    },
  );
  return expectGoods(leftG, chain, usualBar(views, family));
}

/** The last of some rows that are meant, in their order; not all of ten years are looked at. */
function lastOf<Row>(rows: readonly Row[], isMeant: (row: Row) => boolean, most: number): Row[] {
  const found: Row[] = [];
  for (let i = rows.length - 1; i >= 0 && found.length < most; i -= 1) {
    const row = rows[i];
    if (row !== undefined && isMeant(row)) found.push(row);
  }
  return found.reverse();
}

/** Moulds that say what is usual. */
const LATELY = 20;

/** Weight and cacao share of the bar that most of the family was made into lately: a few pralines are no bar. */
export function usualBar(views: Views, family: string): { barG: number; cacao: number } {
  const own = views.yields.ofFamily('mould', family).slice(-LATELY);
  const rows = own.length > 0 ? own : views.yields.of('mould').slice(-LATELY);
  const massG = new Map<number, number>();
  let step: Step | undefined;
  for (const { step: row } of rows) {
    const { barG, goodPieces } = (row?.command ?? {}) as Partial<CommandOf<'mould'>>;
    if (barG !== undefined && goodPieces) massG.set(barG, (massG.get(barG) ?? 0) + barG * goodPieces);
  }
  const most = [...massG].reduce((best, row) => (row[1] > best[1] ? row : best), [0, 0])[0];
  for (const { step: found } of rows) {
    if ((found?.command as Partial<CommandOf<'mould'>> | undefined)?.barG === most) step = found;
  }
  const bars = step?.slots['good'];
  if (!step || bars === undefined) return { barG: 70, cacao: 0.7 };
  return {
    barG: (step.command as CommandOf<'mould'>).barG,
    cacao: Math.max(0.05, views.cocoa(bars).withoutButterPct / 100),
  };
}
