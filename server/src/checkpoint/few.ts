import { fitting, fittingSections, openFitting, type Fitting } from './fitting';
import { bytesOf, numbersIn, type Sections } from './sections';

/** Numbers of which there are few different ones: a list of these, and for each row its place in it. */
export class Few {
  private constructor(
    private readonly list: Float64Array,
    private readonly places: Fitting,
  ) {}

  static of(numbers: ArrayLike<number>): Few {
    const known = new Map<number, number>();
    const places = Array.from(numbers, (number) => {
      const place = known.get(number) ?? known.size;
      known.set(number, place);
      return place;
    });
    return new Few(Float64Array.from(known.keys()), fitting(places));
  }

  get length(): number {
    return this.places.length;
  }

  /** The number of a row; 0 outside of them. */
  at(row: number): number {
    return this.list[this.places[row] ?? -1] ?? 0;
  }

  *[Symbol.iterator](): Generator<number> {
    for (let row = 0; row < this.length; row += 1) yield this.at(row);
  }

  /** As sections of a file, by a name before theirs. */
  sections(name: string): Sections {
    return { [`${name}.list`]: bytesOf(this.list), ...fittingSections(`${name}.places`, this.places) };
  }

  /** Where they lie in a file. @throws Error where something is not there */
  static open(name: string, sections: Sections): Few {
    return new Few(numbersIn(Float64Array, sections, `${name}.list`), openFitting(`${name}.places`, sections));
  }
}
