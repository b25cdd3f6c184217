/** Numbers behind one another that grow at their end, in half the room of a list. */
export class NumberList<Kind extends Uint32Array | Float64Array> {
  length = 0;

  constructor(private values: Kind) {}

  push(value: number): void {
    if (this.length === this.values.length) {
      const wider = new (this.values.constructor as new (length: number) => Kind)(2 * this.length + 64);
      wider.set(this.values);
      this.values = wider;
    }
    this.values[this.length] = value;
    this.length += 1;
  }

  /** 0 where there is none. */
  at(index: number): number {
    return this.values[index] ?? 0;
  }

  *[Symbol.iterator](): Generator<number> {
    for (let i = 0; i < this.length; i += 1) yield this.at(i);
  }
}
