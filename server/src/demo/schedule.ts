import { Heap } from '@wunsch/core/stats/heap';
import { seeded } from '@wunsch/core/stats/chance';
import { localIn } from '@wunsch/core/units/zone';
import type { LocalTime } from '@wunsch/core/run/attended';
import type { Settings } from '@wunsch/core/workshop/schemas';

export const MINUTE = 60_000;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;

export interface Act {
  at: number;
  run: () => void;
}

/** Seeded chance for the generator: the same seed gives the same workshop. */
export class Chance {
  private readonly next: () => number;

  constructor(seed: number) {
    this.next = seeded(seed);
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  /** Normal by Box and Muller. */
  around(mean: number, deviation: number): number {
    const u = Math.max(1e-12, this.next());
    return mean + deviation * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * this.next());
  }

  pick<T>(list: readonly T[]): T {
    const found = list[Math.floor(this.next() * list.length)];
    if (found === undefined) throw new RangeError('nothing to pick from');
    return found;
  }

  yes(share: number): boolean {
    return this.next() < share;
  }
}

/** Acts in the order of their time, earlier-scheduled first among equals. */
export class Schedule {
  private readonly heap = new Heap<Act & { turn: number }>((a, b) => a.at < b.at || (a.at === b.at && a.turn < b.turn));
  private turn = 0;

  add(at: number, run: () => void): void {
    this.turn += 1;
    this.heap.push({ at, run, turn: this.turn });
  }

  /** The next act at or before `until`. */
  take(until: number): Act | undefined {
    const first = this.heap.peek();
    return first && first.at <= until ? this.heap.pop() : undefined;
  }
}

/** What falls on a night or a Sunday is done within so many minutes of the door opening, or before it closes. */
const AROUND_MIN = 25;

/** When somebody is in the workshop, by its own clock. */
export class Doors {
  private readonly clockAt: LocalTime;

  constructor(private readonly settings: Pick<Settings, 'timeZone' | 'attended'>) {
    this.clockAt = localIn(settings.timeZone);
  }

  /** When the day began on which a moment falls. */
  midnight(at: number): number {
    return at - this.clockAt(at).minute * MINUTE - (at % MINUTE);
  }

  /** When the door was last opened or will be next, and when it was last closed. */
  private around(at: number): { open: boolean; closedAt: number; opensAt: number } {
    const { fromMin, toMin, days } = this.settings.attended;
    const { minute, weekday } = this.clockAt(at);
    const midnight = this.midnight(at);
    if (days.includes(weekday) && minute >= fromMin && minute <= toMin)
      return { open: true, closedAt: at, opensAt: at };
    let closes = midnight + toMin * MINUTE;
    for (let day = weekday; closes > at || !days.includes(day); day = day === 1 ? 7 : day - 1) closes -= DAY;
    let opens = midnight + fromMin * MINUTE;
    for (let day = weekday; opens < at || !days.includes(day); day = (day % 7) + 1) opens += DAY;
    return { open: false, closedAt: closes, opensAt: opens };
  }

  /** A moment when somebody is there: that one, or before the door was last closed; the order of things stays. */
  beforeClosing(at: number): number {
    const { open, closedAt, opensAt } = this.around(at);
    return open ? at : closedAt + ((at - closedAt) / (opensAt - closedAt)) * AROUND_MIN * MINUTE;
  }

  /** A moment when somebody is there: that one, or after the door is opened next; the order of things stays. */
  afterOpening(at: number): number {
    const { open, closedAt, opensAt } = this.around(at);
    return open ? at : opensAt + ((at - closedAt) / (opensAt - closedAt)) * AROUND_MIN * MINUTE;
  }

  /** The same, in the first half of a day: what is begun then is ended on it. */
  inMorning(at: number): number {
    const { fromMin, toMin } = this.settings.attended;
    const first = this.afterOpening(at);
    const { minute } = this.clockAt(first);
    return minute <= (fromMin + toMin) / 2 - 60 ? first : this.afterOpening(first + (1440 + fromMin - minute) * MINUTE);
  }
}
