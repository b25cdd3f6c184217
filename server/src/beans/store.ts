import type { BeanStoreView, StoreRow } from '@wunsch/core/api/beans';
import type { DueItem } from '@wunsch/core/api/types';
import { judgeCut } from '@wunsch/core/beans/cut-test';
import type { HoldState, Standing } from '@wunsch/core/beans/state';
import { newestOf, ofKind } from '@wunsch/core/beans/records';
import { trapAlarm, trapWeeks, type TrapCount } from '@wunsch/core/beans/traps';
import { meanInterval } from '@wunsch/core/stats/intervals';
import type { Views } from '../ledger/views';
import { factsOf, lastLookAt, receiptOf, sacksOf } from './views';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;

/** What stands in the bean store, what to open next, and what the traps say. */
export function beanStoreView(views: Views): BeanStoreView {
  const { workshop } = views;
  const rows = lotsOnHand(views)
    .map((lotId) => storeRow(views, lotId))
    .sort((a, b) => ASKING.indexOf(a.standing) - ASKING.indexOf(b.standing) || a.receivedAt - b.receivedAt);
  markNext(views, rows);
  const traps = trapCounts(views);
  const weeks = trapWeeks(traps, workshop.settings.timeZone);
  return {
    rows,
    traps: { weeks: weeks.slice(-120), alarm: trapAlarm(weeks), names: [...new Set(traps.map(({ trap }) => trap))] },
    totalG: rows.reduce((sum, { leftG }) => sum + leftG, 0),
    now: workshop.now(),
  };
}

/** What asks for somebody stands first. */
const ASKING: readonly Standing[] = ['on hold', 'wet', 'refused', 'not looked at', 'taken in', 'sample'];

const lotsOnHand = (views: Views): string[] =>
  [...views.workshop.book.live].filter((id) => views.workshop.lots.has(id));

export const trapCounts = (views: Views): TrapCount[] =>
  ofKind(views.workshop.beans.of(null), 'trap').map(({ at, value }) => ({
    at,
    trap: value.trap,
    moths: value.moths,
    days: value.days,
  }));

function storeRow(views: Views, lotId: string): StoreRow {
  const { workshop } = views;
  const { book, settings } = workshop;
  const facts = factsOf(views, lotId);
  const records = workshop.beans.of(lotId);
  const { standing, hold } = workshop.standing(lotId);
  const { code, name } = book.holding(lotId);
  const receivedAt = receiptOf(views, lotId).at;
  const sacks = sacksOf(views, lotId);
  const looked = lastLookAt(records);
  const inspection = newestOf(records, 'inspection');
  const moisture = meanInterval(inspection?.value.moisturePct ?? []);
  const cut = inspection?.value.cut;
  return {
    id: lotId,
    code,
    name,
    family: views.family(lotId),
    standing,
    leftG: book.balance(lotId).massMg / 1000,
    wholeSacks: sacks.filter(({ state }) => state === 'whole').length,
    sacks: sacks.length > 0 ? sacks.filter(({ state }) => state !== 'empty').length : facts.sacks,
    places: [...new Set(sacks.filter(({ state }) => state !== 'empty').map(({ place }) => place))].filter(
      (place) => place !== '',
    ),
    receivedAt,
    lastLookAt: looked,
    lookDueAt: (looked ?? receivedAt) + settings.lookDays * DAY_MS,
    inspectedAt: inspection?.at ?? null,
    reinspectDueAt: inspection ? inspection.at + settings.reinspectDays * DAY_MS : null,
    moisturePct: moisture?.mean ?? facts.moisturePct,
    grade: cut ? judgeCut(cut.tally, cut.planned, cut.trays).short : null,
    ...holdWords(standing, hold),
    landedPerKgMilli: workshop.valuation.perKgMilli(lotId),
    sample: facts.sample ?? false,
    next: null,
  };
}

function holdWords(standing: Standing, hold: HoldState | null): Pick<StoreRow, 'holdShare' | 'holdWords'> {
  if (standing !== 'on hold') return { holdShare: null, holdWords: null };
  if (!hold || hold.released) return { holdShare: 0, holdWords: 'no method chosen yet' };
  const { clock, plan, record } = hold;
  if (!clock)
    return {
      holdShare: null,
      holdWords: record.value.toldBy === null ? 'roast as kill step, roast room not told' : 'roast as kill step',
    };
  return { holdShare: clock.share, holdWords: `${plan.method}, ${clock.hours.toFixed(0)} of ${plan.hours} h` };
}

/** First in, first out: of each family the oldest lot that may be worked, and its first open or whole sack. */
function markNext(views: Views, rows: readonly StoreRow[]): void {
  const served = new Set<string>();
  for (const row of rows) {
    if (served.has(row.family) || row.sample || !['taken in', 'not looked at'].includes(row.standing)) continue;
    served.add(row.family);
    const sack =
      sacksOf(views, row.id).find(({ state }) => state === 'open') ??
      sacksOf(views, row.id).find(({ state }) => state === 'whole');
    row.next = sack ? `sack ${sack.no}${sack.place === '' ? '' : `, ${sack.place}`}` : 'open it next';
  }
}

/** What beans ask for: looks, hold hours reached, diaries, traps. */
export function beansDue(views: Views): DueItem[] {
  const { workshop } = views;
  const due: DueItem[] = [];
  const add = (id: string, text: string, link: string, at: number): void =>
    void due.push({ id, station: 'beans', text, link, at });
  for (const lotId of lotsOnHand(views)) {
    const { code } = workshop.book.holding(lotId);
    const records = workshop.beans.of(lotId);
    const { standing, hold } = workshop.standing(lotId);
    const link = `/lot/${code}`;
    if (standing === 'wet') {
      const last = Math.max(newestOf(records, 'ferment')?.at ?? 0, newestOf(records, 'drying')?.at ?? 0);
      add(`harvest-${lotId}`, `Read the heap, ${code}`, link, (last || receiptOf(views, lotId).at) + 12 * HOUR_MS);
      continue;
    }
    if (standing === 'on hold' && hold?.released === null && hold.clock) {
      const { clock } = hold;
      if (clock.done) add(`hold-${lotId}`, `Hold reached, release ${code}`, link, clock.doneAt ?? workshop.now());
      else if (clock.expectedAt !== null) add(`hold-${lotId}`, `Hold ends, ${code}`, link, clock.expectedAt);
    }
    if (standing === 'not looked at')
      add(`inspect-${lotId}`, `Inspect ${code}`, `${link}/inspect`, receiptOf(views, lotId).at + DAY_MS);
    if (standing === 'on hold' || standing === 'taken in') {
      const looked = lastLookAt(records) ?? newestOf(records, 'decision')?.at ?? receiptOf(views, lotId).at;
      add(`look-${lotId}`, `Look at the sacks, ${code}`, link, looked + workshop.settings.lookDays * DAY_MS);
    }
  }
  const traps = trapCounts(views);
  const newest = traps.reduce((latest, { at }) => Math.max(latest, at), 0);
  if (newest > 0) add('traps', 'Count the moth traps', '/station/beans?show=traps', newest + 7 * DAY_MS);
  return due;
}
