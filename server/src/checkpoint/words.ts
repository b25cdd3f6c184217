/** Texts by number: what is said many times is kept once. Number 0 is nothing. */
export class Words {
  private readonly numbers = new Map<string, number>();
  readonly texts: string[];

  constructor(texts: readonly string[] = ['']) {
    this.texts = [...texts];
    for (let i = 1; i < this.texts.length; i += 1) this.numbers.set(this.texts[i] ?? '', i);
  }

  /** The number of a text, with a new one for a new text. */
  number(text: string | null): number {
    if (text === null) return 0;
    const known = this.numbers.get(text);
    if (known !== undefined) return known;
    const next = this.texts.length;
    this.texts.push(text);
    this.numbers.set(text, next);
    return next;
  }

  /** The number of a text; undefined where it was never said. */
  find(text: string): number | undefined {
    return this.numbers.get(text);
  }

  text(number: number): string | null {
    return number === 0 ? null : (this.texts[number] ?? null);
  }
}
