import fc from 'fast-check';
import { gapsOf } from '../../src/run/gaps';
import { addReading, isSilent, takeReading, thinned, type LogRow } from '../../src/run/log';
import {
  channelOf,
  crossedAt,
  inCommon,
  readingsFrom,
  readingsOf,
  rowsOf,
  sameChannels,
  withPart,
  type Channel,
  type ReadingRow,
} from '../../src/run/readings';

const TWO: Channel[] = [
  { name: 'bean', unit: '°C' },
  { name: 'air', unit: '°C' },
];
const rows = fc
  .array(fc.tuple(fc.double({ min: 0, max: 1e5, noNaN: true }), fc.double(), fc.double()), { maxLength: 40 })
  .map((all): ReadingRow[] => all.sort(([a], [b]) => a - b));

describe('readings of a run', () => {
  test('go into columns and back, silence included', () => {
    fc.assert(
      fc.property(rows, (given) => {
        expect(rowsOf(readingsOf(TWO, given))).toEqual(given);
      }),
    );
    const readings = readingsOf(TWO, [
      [0, 20],
      [1, 21, 140],
    ] as ReadingRow[]);
    expect(Array.from(channelOf(readings, 'air'))).toEqual([NaN, 140]);
    // A run that has no such channel is silent in it.
    expect(Array.from(channelOf(readings, 'bowl'))).toEqual([NaN, NaN]);
  });

  test('that were written in parts are what they would be in one', () => {
    fc.assert(
      fc.property(rows, rows, fc.nat(40), (before, after, cut) => {
        const from = Math.min(cut, before.length);
        const whole = readingsOf(TWO, [...before.slice(0, from), ...after]);
        expect(withPart(readingsOf(TWO, before), from, readingsOf(TWO, after))).toEqual(whole);
        const again = inCommon(readingsOf(TWO, before), whole);
        expect(withPart(readingsOf(TWO, before), again, readingsFrom(whole, again))).toEqual(whole);
      }),
    );
    expect(sameChannels(TWO, TWO.slice(0, 1))).toBe(false);
    expect(sameChannels(TWO, [...TWO])).toBe(true);
  });

  test('cross a line from below or from above, not before they are counted', () => {
    const [seconds, values] = [
      [0, 10, 20, 30, 40],
      [50, 48.8, NaN, 27.2, 31],
    ];
    expect(crossedAt(seconds, values, 'down', 27)).toBeNull();
    expect(crossedAt(seconds, values, 'down', 27, { near: 0.3 })).toBe(30);
    expect(crossedAt(seconds, values, 'up', 30, { since: 20 })).toBe(40);
  });
});

describe('a log that grows', () => {
  const row = (at: number, value = at): LogRow => ({ at, values: [value] });

  test('puts late readings in their place, whatever their order', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(200), { maxLength: 30 }), (times) => {
        const log: LogRow[] = [];
        for (const at of times) takeReading(log, row(at));
        expect(log.map(({ at }) => at)).toEqual([...times].sort((a, b) => a - b));
      }),
    );
    const log = [row(1), row(5), row(9)];
    takeReading(log, row(5, 77));
    expect(log).toEqual([row(1), row(5, 77), row(9)]);
  });

  test('that is only added to keeps what comes at one moment, and refuses what is from before', () => {
    const log: LogRow[] = [];
    expect(addReading(log, row(10_000))).toBe(true);
    expect(addReading(log, row(10_000, 8))).toBe(true);
    expect(log[1]).toEqual({ at: 10_001, values: [8] });
    expect(addReading(log, row(9_000))).toBe(false);
    // At sixty times the clock a second of the run is shorter.
    expect(addReading(log, row(9_980), 60)).toBe(false);
    expect(log).toHaveLength(2);
  });

  test('is thinned as it ages, and never in what is young', () => {
    const log = Array.from({ length: 600 }, (_, i) => row(i * 60_000));
    const now = 600 * 60_000;
    const kept = thinned(log, now, { fineMs: 60 * 60_000, everyMs: 600_000 });
    expect(kept.filter(({ at }) => at >= now - 60 * 60_000)).toHaveLength(60);
    expect(kept).toHaveLength(60 + 54);
    expect(thinned(kept, now, { fineMs: 60 * 60_000, everyMs: 600_000 })).toEqual(kept);
  });

  test('is silent once nothing came for long, from its beginning on', () => {
    expect(isSilent(null, 1000, 5000, 4000)).toBe(false);
    expect(isSilent(null, 1000, 5001, 4000)).toBe(true);
    expect(isSilent(4000, 1000, 8000, 4000)).toBe(false);
  });

  test('has gaps where a channel was silent for ten seconds and five usual steps', () => {
    expect(gapsOf([0, 1, 2, 3, 30, 31], [1, 1, 1, 1, 1, 1])).toEqual([{ fromS: 3, toS: 30 }]);
    expect(gapsOf([0, 1, 2, 3, 8, 9], [1, 1, 1, 1, 1, 1])).toEqual([]);
    expect(gapsOf([0, 10, 20, 30], [1, NaN, NaN, NaN])).toEqual([]);
    expect(gapsOf([0, 10, 20, 30, 90], [1, 2, NaN, NaN, NaN])).toEqual([{ fromS: 10, toS: 90 }]);
  });
});
