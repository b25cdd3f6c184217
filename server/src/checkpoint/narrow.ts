import { bytesOf, numbersIn, type Sections } from './sections';

/** Bits in a word of them. */
const WORD = 32;

/** How many bits of a word are set. Source: H. S. Warren, Hacker's Delight, 2nd ed. (2013), §5-1. */
function bitsSet(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Stands where a number is far from zero, or not whole. */
const FAR = -(2 ** 31);
const isNear = (number: number): boolean => number === (number | 0) && number !== FAR;
/** A list of those that are far is shorter than eight bytes for each where they are fewer than one in so many. */
const FEW = 16;

/**
 * Numbers of which many are zero and most are whole: those that are not zero stand behind one another, in four bytes each
 * where that holds nearly all of them, and one bit for each row says whether it has one.
 */
export class Narrow {
  /** How many values come before each word of bits. */
  private readonly before: Uint32Array;

  private constructor(
    readonly length: number,
    private readonly bits: Uint32Array,
    private readonly values: Int32Array | Float64Array,
    /** Places among the values of those that four bytes do not hold, each with its number behind it. */
    private readonly far = new Float64Array(),
  ) {
    this.before = new Uint32Array(bits.length);
    let count = 0;
    for (let i = 0; i < bits.length; i += 1) {
      this.before[i] = count;
      count += bitsSet(bits[i] ?? 0);
    }
    if (count !== values.length) throw new Error(`${values.length} numbers stand where there should be ${count}`);
  }

  static of(numbers: ArrayLike<number>): Narrow {
    const bits = new Uint32Array(Math.ceil(numbers.length / WORD));
    const values: number[] = [];
    const far: number[] = [];
    for (let row = 0; row < numbers.length; row += 1) {
      const number = numbers[row] ?? 0;
      if (number === 0) continue;
      const word = Math.floor(row / WORD);
      bits[word] = (bits[word] ?? 0) | (1 << (row % WORD));
      if (!isNear(number)) far.push(values.length, number);
      values.push(number);
    }
    if (far.length * FEW > values.length) return new Narrow(numbers.length, bits, Float64Array.from(values));
    for (let i = 0; i < far.length; i += 2) values[far[i] ?? 0] = FAR;
    return new Narrow(numbers.length, bits, Int32Array.from(values), Float64Array.from(far));
  }

  /** The number of a row; 0 beyond the last. */
  at(row: number): number {
    const word = Math.floor(row / WORD);
    const [bits, mark] = [this.bits[word] ?? 0, 1 << (row % WORD)];
    if ((bits & mark) === 0) return 0;
    return this.valueAt((this.before[word] ?? 0) + bitsSet(bits & (mark - 1)));
  }

  private valueAt(place: number): number {
    const value = this.values[place] ?? 0;
    return value === FAR && this.far.length > 0 ? this.farAt(place) : value;
  }

  private farAt(place: number): number {
    let [low, high] = [0, this.far.length / 2];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if ((this.far[2 * middle] ?? 0) < place) low = middle + 1;
      else high = middle;
    }
    return this.far[2 * low + 1] ?? 0;
  }

  /** The rows that are not zero, with their numbers. */
  *entries(): Generator<readonly [row: number, number: number]> {
    let place = 0;
    for (let word = 0; word < this.bits.length; word += 1)
      for (let rest = this.bits[word] ?? 0; rest !== 0; rest &= rest - 1) {
        yield [WORD * word + 31 - Math.clz32(rest & -rest), this.valueAt(place)];
        place += 1;
      }
  }

  *[Symbol.iterator](): Generator<number> {
    for (let row = 0; row < this.length; row += 1) yield this.at(row);
  }

  /** As sections of a file, by a name before theirs. */
  sections(name: string): Sections {
    const kind = this.values instanceof Int32Array ? 'i32' : 'f64';
    return {
      [`${name}.rows`]: bytesOf(Uint32Array.of(this.length)),
      [`${name}.bits`]: bytesOf(this.bits),
      [`${name}.${kind}`]: bytesOf(this.values),
      ...(this.far.length > 0 ? { [`${name}.far`]: bytesOf(this.far) } : {}),
    };
  }

  /** Where they lie in a file. @throws Error where something is not there */
  static open(name: string, sections: Sections): Narrow {
    const [length = 0] = numbersIn(Uint32Array, sections, `${name}.rows`);
    const bits = numbersIn(Uint32Array, sections, `${name}.bits`);
    const whole = `${name}.i32` in sections;
    return new Narrow(
      length,
      bits,
      whole ? numbersIn(Int32Array, sections, `${name}.i32`) : numbersIn(Float64Array, sections, `${name}.f64`),
      `${name}.far` in sections ? numbersIn(Float64Array, sections, `${name}.far`) : undefined,
    );
  }
}
