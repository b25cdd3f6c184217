/** A queue that gives the foremost first (binary heap). Equals come out in no promised order. */
export class Heap<T> {
  private readonly rows: T[] = [];

  /** @param before whether the first comes out before the second */
  constructor(private readonly before: (a: T, b: T) => boolean) {}

  get size(): number {
    return this.rows.length;
  }

  peek(): T | undefined {
    return this.rows[0];
  }

  push(row: T): void {
    this.rows.push(row);
    let child = this.rows.length - 1;
    while (child > 0) {
      const parent = (child - 1) >> 1;
      if (!this.ahead(child, parent)) break;
      this.swap(child, parent);
      child = parent;
    }
  }

  pop(): T | undefined {
    const first = this.rows[0];
    const last = this.rows.pop();
    if (last === undefined || this.rows.length === 0) return first;
    this.rows[0] = last;
    for (let parent = 0; ;) {
      let foremost = parent;
      for (const child of [2 * parent + 1, 2 * parent + 2]) {
        if (child < this.rows.length && this.ahead(child, foremost)) foremost = child;
      }
      if (foremost === parent) return first;
      this.swap(parent, foremost);
      parent = foremost;
    }
  }

  private ahead(a: number, b: number): boolean {
    return this.before(this.rows[a] as T, this.rows[b] as T);
  }

  private swap(a: number, b: number): void {
    const row = this.rows[a] as T;
    this.rows[a] = this.rows[b] as T;
    this.rows[b] = row;
  }
}
