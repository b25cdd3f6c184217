import { fitting, fittingSections, openFitting, type Fitting } from './fitting';
import { bytesOf, numbersIn, type Sections } from './sections';

/** Rows that count from one number: 2 to the power of this. */
const SHIFT = 6;

/**
 * Numbers of which neighbours are alike, such as times and places that count up: for so many rows the least of them, and for
 * each row how much it is above that, in as few bytes as hold the most of it.
 */
export class Near {
  private constructor(
    private readonly least: Float64Array,
    private readonly above: Fitting,
  ) {}

  static of(numbers: ArrayLike<number>): Near {
    const least = new Float64Array(Math.ceil(numbers.length / (1 << SHIFT))).fill(Infinity);
    for (let row = 0; row < numbers.length; row += 1)
      least[row >> SHIFT] = Math.min(least[row >> SHIFT] ?? 0, numbers[row] ?? 0);
    const all = Array.from(numbers);
    const above = all.map((number, row) => number - (least[row >> SHIFT] ?? 0));
    const exact = all.every((number, row) => (least[row >> SHIFT] ?? 0) + (above[row] ?? 0) === number);
    // Others, which are not whole or too far apart, would not come out again as they went in.
    return exact ? new Near(least, fitting(above)) : new Near(least.fill(0), fitting(all));
  }

  get length(): number {
    return this.above.length;
  }

  /** The number of a row; 0 outside of them. */
  at(row: number): number {
    const above = this.above[row];
    return above === undefined ? 0 : (this.least[row >> SHIFT] ?? 0) + above;
  }

  *[Symbol.iterator](): Generator<number> {
    for (let row = 0; row < this.length; row += 1) yield this.at(row);
  }

  /** As sections of a file, by a name before theirs. */
  sections(name: string): Sections {
    return { [`${name}.least`]: bytesOf(this.least), ...fittingSections(`${name}.above`, this.above) };
  }

  /** Where they lie in a file. @throws Error where something is not there */
  static open(name: string, sections: Sections): Near {
    const least = numbersIn(Float64Array, sections, `${name}.least`);
    const above = openFitting(`${name}.above`, sections);
    if (least.length !== Math.ceil(above.length / (1 << SHIFT)))
      throw new Error(`${above.length} numbers of ${name} count from ${least.length}`);
    return new Near(least, above);
  }
}
