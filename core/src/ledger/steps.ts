import type { Past } from './entries';
import type { Step } from './types';

/**
 * Every step of a book, each with a number that counts them in the order of recording. Those of the past are no objects
 * until somebody asks for one, and nobody keeps them: the same step may be another object the next time, so that steps are
 * compared by their ids.
 */
export class Steps {
  private past: Past | null = null;
  /** Those that were recorded since the past; one that was taken back leaves its number empty. */
  private readonly fresh: (Step | undefined)[] = [];
  private readonly numbers = new Map<string, number>();

  /** Takes in steps of the past, before any other. */
  begin(past: Past): void {
    this.past = past;
  }

  get size(): number {
    return this.old + this.numbers.size;
  }

  private get old(): number {
    return this.past?.size ?? 0;
  }

  has(id: string): boolean {
    return this.numberOf(id) !== undefined;
  }

  get(id: string): Step | undefined {
    const number = this.numberOf(id);
    return number === undefined ? undefined : this.at(number);
  }

  /** The number of a step; undefined where there is none of this id. */
  numberOf(id: string): number | undefined {
    return this.numbers.get(id) ?? this.past?.rowOf(id);
  }

  /** The step of a number. */
  at(number: number): Step | undefined {
    return number < this.old ? this.past?.step(number) : this.fresh[number - this.old];
  }

  /** @returns its number */
  add(step: Step): number {
    const number = this.old + this.fresh.length;
    this.fresh.push(step);
    this.numbers.set(step.id, number);
    return number;
  }

  /** Forgets a step that was recorded since the past. */
  delete(id: string): void {
    const number = this.numbers.get(id);
    if (number === undefined) return;
    this.numbers.delete(id);
    this.fresh[number - this.old] = undefined;
  }

  *ids(): Generator<string> {
    for (const { id } of this.values()) yield id;
  }

  /** In the order of recording. @param from the number of the first */
  *values(from = 0): Generator<Step> {
    for (let row = from; row < this.old; row += 1) {
      const step = this.past?.step(row);
      if (step) yield step;
    }
    for (const step of this.fresh.slice(Math.max(0, from - this.old))) if (step) yield step;
  }
}
