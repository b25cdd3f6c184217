import fc from 'fast-check';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Command } from '@wunsch/core/commands';
import { Workshop } from '../src/journal/workshop';
import { exportWorkshop } from '../src/journal/export';
import { lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(() => server.reset());

/** Everything that a workshop has in memory and answers from. */
function stand({ book, seq, beans, works, lots, batches, valuation, reserved }: Inside): unknown {
  const ids = [...book.holdings.ids()].sort();
  return {
    seq,
    timeline: [...book.timeline].map(({ id }) => id),
    holdings: ids.map((id) => ({ ...book.holding(id) })),
    balances: ids.map((id) => [id, book.balance(id), book.entriesOf(id), book.byCode(book.holding(id).code)?.id]),
    live: [...book.live].sort(),
    counts: ids.map((id) => book.countsAfter(id, { at: 0, order: 0 }).map((step) => step.id)),
    current: [...book.steps.values()].map((step) => [step.id, book.isCurrent(step)]),
    records: [...beans.everything()].map(({ id }) => id).sort(),
    files: [...beans.files.keys()].sort(),
    works: [...works.keys()].sort(),
    lots: [...lots].sort(([a], [b]) => (a < b ? -1 : 1)),
    batches: [...batches.keys()].sort(),
    worth: ids.map((id) => valuation.worth(id)),
    reserved: [...reserved],
  };
}
interface Inside {
  book: Workshop['book'];
  seq: number;
  beans: Workshop['beans'];
  works: Workshop['works'];
  lots: Workshop['lots'];
  batches: Workshop['batches'];
  valuation: Workshop['valuation'];
  reserved: Map<string, number>;
}
const inside = (workshop: Workshop): Inside => ({
  book: workshop.book,
  seq: (workshop as unknown as { seq: number }).seq,
  beans: workshop.beans,
  works: workshop.works,
  lots: workshop.lots,
  batches: workshop.batches,
  valuation: workshop.valuation,
  reserved: workshop.reserved(),
});

test('what is dropped half-way is as if it had never been: memory, and what is read from the disk', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.nat(7), { minLength: 2, maxLength: 7 }), fc.nat(1000), async (acts, grams) => {
      await server.reset();
      const { workshop } = server;
      const lot = madeBy(await server.step(lotCommand()));
      const good = madeBy(await server.step(sortCommand(lot, 2000, 1900)));
      const step = [...workshop.book.steps.values()].at(-1);
      const before = stand(inside(workshop));
      const text = await exportWorkshop(workshop);
      const head = { personId: 'ann', machineId: null, minutes: 0, energyKwh: 0 };
      const doAct = (act: number): void => {
        switch (act) {
          case 0:
            workshop.record({ ...lotCommand(), name: `Late ${grams}` } as Command, head);
            return;
          case 1:
            workshop.record(sortCommand(lot, 100 + grams, 90), head);
            return;
          case 2:
            workshop.record(sortCommand(lot, 1000 + grams, 900), head, { supersedes: step?.id ?? '', reason: 'wrong' });
            return;
          case 3:
            workshop.withdraw(step?.id ?? '', 'bo', 'was not so');
            return;
          case 4:
            workshop.startWork({
              station: 'sort',
              sources: [{ holdingId: lot, massG: 50 }],
              machineId: null,
              personId: 'ann',
              dueAt: null,
              note: '',
            } as never);
            return;
          case 5:
            workshop.addBeanRecord(lot, { kind: 'taken-back', recordId: 'x', why: 'y' } as never, { personId: 'ann' });
            return;
          case 6:
            workshop.addFile(
              {
                lotId: lot,
                subject: null,
                name: 'a',
                caption: '',
                type: 'image/png',
                width: 1,
                height: 1,
                personId: 'bo',
              },
              Buffer.from('x'),
            );
            workshop.putSettings({ ...workshop.settings, name: `Other ${grams}` });
            return;
          default:
            workshop.record({ kind: 'adjust', holdingId: good, countedG: 1900, cause: 'unaccounted', note: '' }, head);
        }
      };
      for (const act of acts) {
        try {
          doAct(act);
        } catch (error) {
          if (!(error instanceof DomainError)) throw error;
        }
      }
      workshop.discard();
      expect(stand(inside(workshop))).toEqual(before);
      expect(await exportWorkshop(workshop)).toBe(text);
      // And the next codes and numbers are those that would have been.
      const next = await server.step(lotCommand());
      expect(next.seq).toBe((step?.seq ?? 0) + 1);
      const read = await Workshop.open(workshop.store);
      expect(stand(inside(read))).toEqual(stand(inside(workshop)));
    }),
    { numRuns: 25 },
  );
});
