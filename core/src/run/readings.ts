import type { Way } from './acts';

/** What one probe or gauge reads in a run: its name within the run, and its unit. */
export interface Channel {
  name: string;
  unit: '°C' | 'µm' | 'g' | '%';
}

/** Readings of a run: seconds since it began, rising, and of each channel a value at each; NaN where it was silent. */
export interface Readings {
  channels: readonly Channel[];
  seconds: Float64Array;
  /** In the order of the channels. */
  values: readonly Float64Array[];
}

/** A reading of all channels at once, in their order; NaN where one is silent. */
export type ReadingRow = readonly [second: number, ...values: number[]];

/** The longest log that is kept: a day and more of readings a second. */
export const MOST_READINGS = 100_000;

/** Readings from rows. */
export const readingsOf = (channels: readonly Channel[], rows: readonly ReadingRow[]): Readings => ({
  channels,
  seconds: Float64Array.from(rows, ([second]) => second),
  values: channels.map((_, index) => Float64Array.from(rows, (row) => row[index + 1] ?? NaN)),
});

/** Rows from readings: the other way. */
export const rowsOf = ({ seconds, values }: Readings): ReadingRow[] =>
  Array.from(seconds, (second, i): ReadingRow => [second, ...values.map((of) => of[i] ?? NaN)]);

/** What a channel says; NaN all along where the run has none of that name. */
export function channelOf({ channels, seconds, values }: Readings, name: string): Float64Array {
  const index = channels.findIndex((channel) => channel.name === name);
  return values[index] ?? new Float64Array(seconds.length).fill(NaN);
}

/** From the `from`th reading on, as views on the same memory. */
export const readingsFrom = ({ channels, seconds, values }: Readings, from: number): Readings => ({
  channels,
  seconds: seconds.subarray(from),
  values: values.map((of) => of.subarray(from)),
});

/** Readings with a part of them that stands for everything from the `from`th on. */
export function withPart(readings: Readings, from: number, part: Readings): Readings {
  const join = (a: Float64Array, b: Float64Array): Float64Array => {
    const whole = new Float64Array(from + b.length);
    whole.set(a.subarray(0, from));
    whole.set(b, from);
    return whole;
  };
  return {
    channels: readings.channels,
    seconds: join(readings.seconds, part.seconds),
    values: readings.values.map((of, index) => join(of, part.values[index] ?? new Float64Array(part.seconds.length))),
  };
}

/** How many readings two logs begin with in common. */
export function inCommon(a: Readings, b: Readings): number {
  const most = Math.min(a.seconds.length, b.seconds.length);
  for (let i = 0; i < most; i += 1)
    if (a.seconds[i] !== b.seconds[i] || a.values.some((of, index) => !Object.is(of[i], b.values[index]?.[i])))
      return i;
  return most;
}

export const sameChannels = (a: readonly Channel[], b: readonly Channel[]): boolean =>
  a.length === b.length && a.every(({ name, unit }, i) => b[i]?.name === name && b[i].unit === unit);

/**
 * The first reading from `since` on that is at a line or beyond it.
 *
 * @param near that close to the line counts as there: a probe is off by so much
 * @returns its second; null where none is
 */
export function crossedAt(
  seconds: ArrayLike<number>,
  values: ArrayLike<number>,
  way: Way,
  line: number,
  { since = -Infinity, near = 0 }: { since?: number; near?: number } = {},
): number | null {
  for (let i = 0; i < seconds.length; i += 1) {
    const [second, value] = [seconds[i] ?? NaN, values[i] ?? NaN];
    if (second >= since && (way === 'up' ? value >= line - near : value <= line + near)) return second;
  }
  return null;
}
