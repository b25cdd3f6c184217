import type { Command } from '../src/commands';
import type { Step } from '../src/ledger/types';
import { MARKING } from '../src/stations';
import { marksOf } from '../src/trace/marks';
import { Notables } from '../src/trace/notable';
import { chargeCommand, dischargeCommand, mouldCommand } from './commands';
import { Bench, HOUR, made, START } from './fixtures';

let order = 0;
const step = (command: Command, overrides?: Step['overrides']): Step =>
  ({
    id: `s${(order += 1)}`,
    kind: command.kind,
    at: order,
    order,
    command,
    ...(overrides ? { overrides } : {}),
  }) as Step;
const reading = (what: 'micron' | 'sourness', value: number): Step =>
  step({ kind: 'reading', batchId: 'b', what, value, note: '' });
const tasting = (score: number, note: string): Step =>
  step({ kind: 'taste', batchId: 'b', holdingId: null, pieces: 0, score, note });
const labels = (steps: Step[], target: number | null = null): string[] =>
  marksOf(steps, target, MARKING).map(({ label }) => label);

test('what is said of a batch marks it; what is denied does not', () => {
  expect(labels([tasting(5, 'Sour at the end, a little dry')])).toEqual(['sour']);
  expect(labels([tasting(8, 'Round, not sour, no bloom at all')])).toEqual([]);
  expect(labels([tasting(5, 'white bloom on the back')])).toEqual(['bloomed']);
  expect(labels([tasting(8, 'fruit'), tasting(4.5, 'flat')])).toEqual(['disputed']);
});

test('the newest reading of a kind counts: sourness that conched away marks nothing', () => {
  expect(labels([reading('sourness', 7)])).toEqual(['sour']);
  expect(labels([reading('sourness', 7), reading('sourness', 3)])).toEqual([]);
  expect(labels([reading('micron', 19)], 20)).toEqual([]);
  expect(labels([reading('micron', 14)], 20)).toEqual(['over-run']);
  expect(labels([reading('micron', 11)], 12)).toEqual(['over-run']);
});

test('a stop that was gone past stays on the goods with its word', () => {
  const past = step({ kind: 'rest', sources: [], note: '' } as unknown as Command, [
    { gate: 'rest/too-young', sentence: 'K1 has rested 0 of 14 days.', word: 'for the fair', personId: 'ann' },
  ]);
  expect(marksOf([past], null, MARKING)[0]).toMatchObject({
    id: 'override',
    why: 'K1 has rested 0 of 14 days. Gone past: “for the fair”.',
  });
});

test('what is notable goes on with the goods, through corrections and late entries, and no further', () => {
  const bench = new Bench();
  const notables = new Notables(() => bench.book, MARKING);
  const sugar = made(bench.buy('sugar', 9000, 5));
  const begun = bench.do(chargeCommand([{ holdingId: sugar, massG: 4000 }]));
  const tub = made(bench.do(dischargeCommand(begun.batchId ?? '', 4000)));
  const temper = (massG: number, test: 'set' | 'failed', extra = {}): Step =>
    bench.do(
      {
        kind: 'temper',
        sources: [{ holdingId: tub, massG }],
        method: 'slab',
        meltC: 45,
        coolC: 27,
        workC: 31,
        test,
        note: '',
      },
      extra,
    );
  const [good, bad] = [temper(1000, 'set'), temper(1000, 'failed')];
  const bars = bench.do(mouldCommand([{ holdingId: made(good), massG: 1000 }], 20));
  expect([...notables.behind(made(bars))]).toEqual([good.id]);
  const others = bench.do(mouldCommand([{ holdingId: made(bad), massG: 1000 }], 20));
  expect([...notables.behind(made(others))]).toEqual([bad.id]);
  // Corrected: the new version stands behind the bars.
  const better = bench.do(
    { ...(good.command as Extract<Command, { kind: 'temper' }>), workC: 31.8 },
    { supersedes: good.id },
  );
  expect([...notables.behind(made(bars))]).toEqual([better.id]);
  // A late entry before everything changes nothing here, and is taken in.
  bench.do(
    { kind: 'buy', materialId: 'sugar', supplier: 'Shop', supplierBatch: '', note: '', price: 1, massG: 10 },
    { at: START - HOUR },
  );
  expect([...notables.behind(made(others))]).toEqual([bad.id]);
  expect(notables.behind(sugar).size).toBe(0);
});
