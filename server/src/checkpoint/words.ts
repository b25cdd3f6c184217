import { Packed } from './packed';

/** Takes number 0: a text that no database takes, and so nobody says. */
const NOTHING = Packed.of(['\0']);

/** Texts by number: what is said many times is kept once. Number 0 is nothing. */
export class Words {
  /** Those that are said for the first time. */
  private readonly fresh: string[] = [];
  private readonly numbers = new Map<string, number>();
  /** What was asked for, by number. */
  private readonly told: (string | null | undefined)[] = [];

  /** @param packed those that were said before; the first is nothing */
  constructor(private readonly packed: Packed = NOTHING) {}

  get length(): number {
    return this.packed.length + this.fresh.length;
  }

  /** The number of a text, with a new one for a new text. */
  number(text: string | null): number {
    if (text === null) return 0;
    const known = this.find(text);
    if (known !== undefined) return known;
    const next = this.length;
    this.fresh.push(text);
    this.numbers.set(text, next);
    return next;
  }

  /** The number of a text; undefined where it was never said. */
  find(text: string): number | undefined {
    return this.numbers.get(text) ?? this.packed.find(text);
  }

  /** The text of a number: the same string each time, as it becomes the key of much that is kept. */
  text(number: number): string | null {
    let text = this.told[number];
    if (text === undefined) this.told[number] = text = this.read(number);
    return text;
  }

  /** The text of a number, which nobody keeps: for looks at a great many. */
  read(number: number): string | null {
    if (number === 0) return null;
    return this.packed.text(number) ?? this.fresh[number - this.packed.length] ?? null;
  }

  /** All of them, packed. */
  pack(): Packed {
    return this.fresh.length === 0 ? this.packed : this.packed.with(this.fresh);
  }

  *[Symbol.iterator](): Generator<string> {
    yield* this.packed;
    yield* this.fresh;
  }
}
