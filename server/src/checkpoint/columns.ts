import { Narrow } from './narrow';
import { bytesOf, numbersIn, type Numbers, type Sections } from './sections';

/** What stands in each place of a column. */
const TYPES = { f64: Float64Array, u32: Uint32Array, u8: Uint8Array } as const;
type Wide = keyof typeof TYPES;
export type Shape = Readonly<Record<string, Wide | 'narrow'>>;
type Column<T> = T extends Wide ? InstanceType<(typeof TYPES)[T]> : Narrow;
export type Columns<S extends Shape> = { readonly [K in keyof S]: Column<S[K]> };

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
        const all = new TYPES[type === 'narrow' ? 'f64' : type]((before?.length ?? 0) + added.length);
        if (before) all.set(before instanceof Narrow ? [...before] : before);
        all.set(added, before?.length ?? 0);
        return [name, type === 'narrow' ? Narrow.of(all) : all];
      }),
    ) as unknown as Columns<S>;
  }
}

/** Columns as sections of a file, by a name before theirs. */
export const columnSections = <S extends Shape>(prefix: string, columns: Columns<S>): Sections =>
  Object.assign(
    {},
    ...Object.entries<Column<Wide | 'narrow'>>(columns as never).map(([name, column]) =>
      column instanceof Narrow ? column.sections(`${prefix}.${name}`) : { [`${prefix}.${name}`]: bytesOf(column) },
    ),
  ) as Sections;

/** Columns where they lie in a file. @throws Error where one is not there */
export const openColumns = <S extends Shape>(prefix: string, shape: S, sections: Sections): Columns<S> =>
  Object.fromEntries(
    Object.entries(shape).map(([name, type]) => {
      const section = `${prefix}.${name}`;
      return [
        name,
        type === 'narrow' ? Narrow.open(section, sections) : numbersIn<Numbers>(TYPES[type], sections, section),
      ];
    }),
  ) as unknown as Columns<S>;

/** Where the rows that belong to one of another table stand, by the column that says where each one's end. */
export const ends = (column: Uint32Array, row: number): [from: number, to: number] => [
  row === 0 ? 0 : (column[row - 1] ?? 0),
  column[row] ?? 0,
];
