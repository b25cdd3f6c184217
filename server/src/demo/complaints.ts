import type { Workshop } from '../journal/workshop';
import { DAY, Doors, HOUR } from './schedule';

/** Two buyers write within a week, of bars from different batches; a recall was practised in spring. */
export function complain(workshop: Workshop, now: number): void {
  const { book } = workshop;
  const packs = [...book.holdings.values()].filter(({ kind }) => kind === 'packed');
  const lotsOf = (id: string): string[] =>
    [...workshop.valuation.makeUp(id).keys()].filter((root) => workshop.lots.has(root));
  const sold = packs.filter(({ id }) => book.entriesOf(id).some(({ kind }) => kind === 'sell'));
  const first = sold.at(-6);
  if (!first) return;
  const lots = lotsOf(first.id);
  const second = sold.findLast(({ id }) => id !== first.id && lotsOf(id).some((lot) => lots.includes(lot))) ?? first;
  const doors = new Doors(workshop.settings);
  const write = (holdingId: string, from: string, note: string, daysAgo: number): void =>
    void workshop.addRecord(
      'trace',
      { kind: 'complaint', complaintId: `demo-${daysAgo}`, holdingId, what: 'foreign', from, pieces: 1, note },
      { personId: 'ilse', at: new Date(doors.beforeClosing(now - daysAgo * DAY)).toISOString() },
    );
  write(first.id, 'Lighthouse Kiosk', 'A hard bit of shell, nearly broke a tooth.', 6);
  write(second.id, 'a visitor', 'Something gritty and hard in it.', 3);
  const practised = packs[Math.floor(packs.length / 2)];
  if (!practised) return;
  const began = doors.beforeClosing(now - 150 * DAY);
  const at = new Date(began).toISOString();
  workshop.addRecord(
    'trace',
    {
      kind: 'recall',
      recallId: 'demo-practice',
      subjects: [practised.id],
      why: 'To see how long it takes',
      mock: true,
    },
    { personId: 'perpetua', at },
  );
  workshop.addRecord(
    'trace',
    { kind: 'recall-ended', recallId: 'demo-practice', word: 'Everybody called back within the hour' },
    { personId: 'perpetua', at: new Date(began + 0.8 * HOUR).toISOString() },
  );
}
