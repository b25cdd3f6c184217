/**
 * A map in two layers: what is settled stays, and what was set since can be let go of together. Until it is first settled,
 * and after what was loose is let go of, what is set is settled at once.
 *
 * @example
 * const sums = new Layered<string, number>();
 * sums.set('a', 1);
 * sums.settle();
 * sums.set('a', 2);
 * sums.back();
 * sums.get('a'); // 1
 */
export class Layered<K, V> {
  private settled = new Map<K, V>();
  private loose: Map<K, V> | null = null;

  get(key: K): V | undefined {
    return this.loose?.get(key) ?? this.settled.get(key);
  }

  /** @param value is not changed in place afterwards: for that there is `own` */
  set(key: K, value: V): void {
    (this.loose ?? this.settled).set(key, value);
  }

  /**
   * The value of a key to be changed in place.
   *
   * @param first one for a key that has none
   * @param copy of one that is settled: that stays as it is
   */
  own(key: K, first: () => V, copy: (settled: V) => V): V {
    const layer = this.loose ?? this.settled;
    const known = layer.get(key);
    if (known !== undefined) return known;
    const before = this.settled.get(key);
    const own = before === undefined ? first() : copy(before);
    layer.set(key, own);
    return own;
  }

  /** From now on what is set can be let go of. */
  settle(): void {
    this.loose = new Map();
  }

  /** Lets go of what was set since it was settled. */
  back(): void {
    this.loose = null;
  }

  /** @param past what was settled once, and is its own from now on; left out, nothing */
  begin(past = new Map<K, V>()): void {
    this.settled = past;
    this.loose = null;
  }

  /** What is settled: to be kept somewhere. */
  get past(): ReadonlyMap<K, V> {
    return this.settled;
  }

  *[Symbol.iterator](): Generator<[K, V]> {
    for (const row of this.settled) if (this.loose?.has(row[0]) !== true) yield row;
    if (this.loose) yield* this.loose;
  }
}
