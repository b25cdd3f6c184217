/** Values that were asked for lately: what was asked for last is let go of last. */
export class Lately<K, V> {
  private readonly values = new Map<K, V>();
  /** Goes on where it stood: what is deleted stays in the way of whoever begins anew. */
  private readonly oldest = this.values.entries();

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
    return value;
  }

  set(key: K, value: V): void {
    this.makeRoom();
    this.values.set(key, value);
  }

  /** Where no more fit, lets go of what was asked for longest ago. @returns it */
  makeRoom(): V | undefined {
    if (this.values.size < this.most) return undefined;
    const { value: oldest } = this.oldest.next();
    if (!oldest) return undefined;
    this.values.delete(oldest[0]);
    return oldest[1];
  }
}
