import { bytesOf, type Numbers, type Sections } from './sections';

/** What stands in each place of a column. */
const TYPES = { f64: Float64Array, u32: Uint32Array, u8: Uint8Array } as const;
type Type = keyof typeof TYPES;
export type Shape = Readonly<Record<string, Type>>;
export type Columns<S extends Shape> = { readonly [K in keyof S]: InstanceType<(typeof TYPES)[S[K]]> };

/** Columns that grow: rows are added at their end. */
export class Growing<S extends Shape> {
  private readonly columns: { [K in keyof S]: number[] };

  constructor(
    private readonly shape: S,
    /** Rows that come before. */
    private readonly before: Columns<S> | null,
  ) {
    this.columns = Object.fromEntries(Object.keys(shape).map((name) => [name, []])) as never;
  }

  get length(): number {
    const [name = ''] = Object.keys(this.shape);
    return (this.before?.[name]?.length ?? 0) + (this.columns[name]?.length ?? 0);
  }

  add(row: Readonly<Record<keyof S, number>>): void {
    for (const name of Object.keys(this.shape)) this.columns[name]?.push(row[name] ?? 0);
  }

  /** All rows, those before and those added. */
  whole(): Columns<S> {
    return Object.fromEntries(
      Object.entries(this.shape).map(([name, type]) => {
        const before = this.before?.[name];
        const added = this.columns[name] ?? [];
        const all = new TYPES[type]((before?.length ?? 0) + added.length);
        if (before) all.set(before);
        all.set(added, before?.length ?? 0);
        return [name, all];
      }),
    ) as unknown as Columns<S>;
  }
}

/** Columns as sections of a file, by a name before theirs. */
export const columnSections = <S extends Shape>(prefix: string, columns: Columns<S>): Sections =>
  Object.fromEntries(
    Object.entries<Numbers>(columns as Readonly<Record<string, Numbers>>).map(([name, numbers]) => [
      `${prefix}.${name}`,
      bytesOf(numbers),
    ]),
  );

/** Columns where they lie in a file. @throws Error where one is not there */
export const openColumns = <S extends Shape>(prefix: string, shape: S, sections: Sections): Columns<S> =>
  Object.fromEntries(
    Object.entries(shape).map(([name, type]) => {
      const bytes = sections[`${prefix}.${name}`];
      if (!bytes) throw new Error(`there is no section ${prefix}.${name}`);
      const Kind = TYPES[type];
      return [name, new Kind(bytes.buffer as ArrayBuffer, bytes.byteOffset, bytes.length / Kind.BYTES_PER_ELEMENT)];
    }),
  ) as unknown as Columns<S>;

/** Where the rows that belong to one of another table stand, by the column that says where each one's end. */
export const ends = (column: Uint32Array, row: number): [from: number, to: number] => [
  row === 0 ? 0 : (column[row - 1] ?? 0),
  column[row] ?? 0,
];
