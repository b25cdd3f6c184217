import { Heap } from '@wunsch/core/stats/heap';
import { seeded } from '@wunsch/core/stats/chance';

export const HOUR = 3_600_000;
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
