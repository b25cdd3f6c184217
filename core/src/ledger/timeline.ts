import { before, type Position } from './entries';
import type { Steps } from './steps';
import type { Step } from './types';

/** The steps in force of a book, in the order of the work. They are numbers here; a step is read when it is asked for. */
export class Timeline {
  private numbers: Uint32Array = new Uint32Array(64);
  private count = 0;

  constructor(private readonly steps: Steps) {}

  /** Takes over steps of the past by their numbers, before any other. */
  begin(inForce: Uint32Array): void {
    this.numbers = inForce;
    this.count = inForce.length;
  }

  get length(): number {
    return this.count;
  }

  /** The step at a place; from the end where it is below zero. */
  at(index: number): Step | undefined {
    const place = index < 0 ? this.count + index : index;
    return place >= 0 && place < this.count ? this.steps.at(this.numbers[place] ?? 0) : undefined;
  }

  *[Symbol.iterator](): Generator<Step> {
    for (let i = 0; i < this.count; i += 1) {
      const step = this.at(i);
      if (step) yield step;
    }
  }

  /** From the newest to the oldest. */
  *backwards(): Generator<Step> {
    for (let i = this.count - 1; i >= 0; i -= 1) {
      const step = this.at(i);
      if (step) yield step;
    }
  }

  /** Those that pass a test, in the order of the work. */
  filter(passes: (step: Step) => boolean): Step[] {
    const found: Step[] = [];
    for (const step of this) if (passes(step)) found.push(step);
    return found;
  }

  /** Where what comes after a position begins. */
  indexAfter(position: Position): number {
    let [low, high] = [0, this.count];
    while (low < high) {
      const middle = (low + high) >>> 1;
      const step = this.at(middle);
      if (step && before(step, position) <= 0) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Where what was done at a moment or after it begins. */
  indexFrom(at: number): number {
    return this.indexAfter({ at, order: -Infinity });
  }

  /** Puts a step where it belongs. @returns whether that is at the end */
  insert(step: Step, number: number): boolean {
    const last = this.at(-1);
    const index = !last || before(last, step) <= 0 ? this.count : this.indexAfter(step);
    if (this.count === this.numbers.length) {
      const wider = new Uint32Array(2 * this.count + 64);
      wider.set(this.numbers);
      this.numbers = wider;
    }
    this.numbers.copyWithin(index + 1, index, this.count);
    this.numbers[index] = number;
    this.count += 1;
    return index === this.count - 1;
  }

  /** Takes a step out again. */
  remove(number: number): void {
    const index = this.numbers.subarray(0, this.count).lastIndexOf(number);
    if (index < 0) return;
    this.numbers.copyWithin(index, index + 1, this.count);
    this.count -= 1;
  }
}
