/** Values that were asked for lately: what was asked for last is let go of last. */
export class Lately<K, V> {
  private readonly values = new Map<K, V>();
  /**
   * Goes on from what it let go of last: what is deleted stays in the way of whoever begins at the front. It is made anew
   * after a while without use, as it keeps every table that the map has grown out of since.
   */
  private oldest: Iterator<[K, V]> | null = null;
  private askedSince = 0;

  /** @param most how many are kept */
  constructor(private readonly most: number) {}

  get size(): number {
    return this.values.size;
  }

  get(key: K): V | undefined {
    const value = this.values.get(key);
    if (value === undefined) return undefined;
    this.values.delete(key);
    this.values.set(key, value);
    this.askedSince += 1;
    if (this.askedSince > this.most) this.oldest = null;
    return value;
  }

  set(key: K, value: V): void {
    this.makeRoom();
    this.values.set(key, value);
  }

  /** Where no more fit, lets go of what was asked for longest ago. @returns it */
  makeRoom(): V | undefined {
    if (this.values.size < this.most) return undefined;
    this.oldest ??= this.values.entries();
    this.askedSince = 0;
    const gone = this.oldest.next();
    if (gone.done === true) return undefined;
    const [key, value] = gone.value;
    this.values.delete(key);
    return value;
  }
}
