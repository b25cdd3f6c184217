import { seeded } from '../devices/scale';

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

/** Acts in the order of their time, earlier-scheduled first among equals (a binary heap). */
export class Schedule {
  private readonly heap: (Act & { turn: number })[] = [];
  private turn = 0;

  get size(): number {
    return this.heap.length;
  }

  add(at: number, run: () => void): void {
    this.turn += 1;
    this.heap.push({ at, run, turn: this.turn });
    let child = this.heap.length - 1;
    while (child > 0) {
      const parent = (child - 1) >> 1;
      if (!this.earlier(child, parent)) break;
      this.swap(child, parent);
      child = parent;
    }
  }

  /** The next act at or before `until`. */
  take(until: number): Act | undefined {
    const first = this.heap[0];
    if (!first || first.at > until) return undefined;
    const last = this.heap.pop();
    if (last && this.heap.length > 0) {
      this.heap[0] = last;
      let parent = 0;
      for (;;) {
        const left = 2 * parent + 1;
        let least = parent;
        if (left < this.heap.length && this.earlier(left, least)) least = left;
        if (left + 1 < this.heap.length && this.earlier(left + 1, least)) least = left + 1;
        if (least === parent) break;
        this.swap(parent, least);
        parent = least;
      }
    }
    return first;
  }

  private earlier(a: number, b: number): boolean {
    const x = this.heap[a];
    const y = this.heap[b];
    return x !== undefined && y !== undefined && (x.at < y.at || (x.at === y.at && x.turn < y.turn));
  }

  private swap(a: number, b: number): void {
    const x = this.heap[a];
    const y = this.heap[b];
    if (x && y) [this.heap[a], this.heap[b]] = [y, x];
  }
}
