import type { DueItem, FloorStation, FloorView } from '@wunsch/core/api/types';
import { isByProduct } from '@wunsch/core/ledger/types';
import { isStation, STATIONS, type Station } from '@wunsch/core/work/stations';
import { AREAS } from '../areas';
import { lossWatch } from '../losses/series';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** What stands at each station now, what passed in a week, and what needs a person next. */
export function floorView(views: Views): FloorView {
  const { workshop } = views;
  const { book } = workshop;
  const now = workshop.now();
  const stations = new Map<Station, FloorStation>(
    STATIONS.map((station) => [station, { station, standingMg: 0, workingMg: 0, passedMg: 0, holdings: 0 }]),
  );
  const store = { pieces: 0, massMg: 0, valueMilli: 0 };
  for (const { id, kind, place } of book.standing) {
    const row = isStation(place) ? stations.get(place) : undefined;
    if (!row && kind !== 'packed') continue;
    const { massMg, pieces } = book.balance(id);
    if (kind === 'packed') {
      store.pieces += pieces;
      store.massMg += massMg;
      store.valueMilli += workshop.valuation.worth(id).valueMilli;
    }
    if (!row) continue;
    row.standingMg += massMg;
    row.holdings += 1;
  }
  for (const work of workshop.works.values()) {
    const row = stations.get(work.station);
    for (const { holdingId, massMg } of work.sources) {
      const place = book.holding(holdingId).place;
      const from = isStation(place) ? stations.get(place) : undefined;
      if (from) from.standingMg -= massMg;
      if (row) {
        row.standingMg += massMg;
        row.workingMg += massMg;
      }
    }
  }
  for (const step of book.timeline.backwards()) {
    if (step.at < now - 7 * DAY_MS) break;
    const row = isStation(step.station) ? stations.get(step.station) : undefined;
    if (!row || step.kind === 'sell' || step.kind === 'return' || step.kind === 'adjust' || step.kind === 'charge')
      continue;
    for (const p of step.postings) {
      if (p.holdingId !== null && p.massMg > 0 && !isByProduct(book.holding(p.holdingId).kind))
        row.passedMg += p.massMg;
    }
  }
  const grinds = views.grinds();
  for (const [station, row] of stations) row.workingMg += AREAS[station]?.workingMg?.(views) ?? 0;
  const due = dueItems(views);
  return {
    stations: [...stations.values()],
    store,
    due,
    works: [...workshop.works.values()].map((w) => views.work(w)),
    grinds,
    marked: marked(views),
    watch: lossWatch(views),
    now,
  };
}

/** Goods on their way, and lots, of which one has to know something; a batch once for all its tubs. */
function marked(views: Views): FloorView['marked'] {
  const { book, batches, lots } = views.workshop;
  const rows = new Map<string, FloorView['marked'][number]>();
  for (const { id, code, name, place, batchId, kind } of book.standing) {
    if (!isStation(place)) continue;
    const marks = views.marks(id);
    if (marks.length === 0) continue;
    const batch = batchId === null ? undefined : batches.get(batchId);
    const key = batch?.code ?? code;
    const link = batch ? `/batch/${batch.code}` : kind === 'lot' && lots.has(id) ? `/lot/${code}` : `/tub/${code}`;
    const row = rows.get(key) ?? { code: key, name: batch?.name ?? name, link, marks: [] };
    row.marks.push(
      ...marks.filter((mark) => !row.marks.some(({ label, why }) => label === mark.label && why === mark.why)),
    );
    rows.set(key, row);
  }
  return [...rows.values()].sort((a, b) => b.marks.length - a.marks.length).slice(0, MOST_MARKED);
}

const MOST_MARKED = 12;

/** What needs a person, soonest first. */
export function dueItems(views: Views): DueItem[] {
  const { workshop } = views;
  const due = [...workshop.works.values()].flatMap((work): DueItem[] => {
    const area = AREAS[work.station];
    const first = work.sources[0];
    const code = first ? workshop.book.holding(first.holdingId).code : '';
    const link = `/station/${work.station}?work=${work.id}`;
    const asked = area?.workDue?.(views, { work, code, link }) ?? [];
    if (asked.length > 0) return asked;
    const text = `${area?.workWords?.(work) ?? 'Finish'}, ${code}`;
    return [{ id: work.id, station: work.station, text, link, at: work.dueAt ?? work.startedAt + DAY_MS / 4 }];
  });
  for (const area of Object.values(AREAS)) due.push(...(area?.due?.(views) ?? []));
  return due.sort((a, b) => a.at - b.at);
}
