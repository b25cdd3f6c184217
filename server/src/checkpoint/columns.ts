import { Few } from './few';
import { Narrow } from './narrow';
import { Near } from './near';
import { bytesOf, numbersIn, type Numbers, type Sections } from './sections';

/** What stands in each place of a column. */
const TYPES = { f64: Float64Array, u32: Uint32Array, u8: Uint8Array } as const;
type Wide = keyof typeof TYPES;
/** Those that take less room, and a sum for each number that is read. */
const CLOSE = { narrow: Narrow, near: Near, few: Few } as const;
type Close = keyof typeof CLOSE;
export type Shape = Readonly<Record<string, Wide | Close>>;
type Column<T> = T extends Wide
  ? InstanceType<(typeof TYPES)[T]>
  : T extends Close
    ? ReturnType<(typeof CLOSE)[T]['of']>
    : never;
const isWide = (type: Wide | Close): type is Wide => type in TYPES;
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
        const all = new TYPES[isWide(type) ? type : 'f64']((before?.length ?? 0) + added.length);
        if (before) all.set('sections' in before ? [...before] : before);
        all.set(added, before?.length ?? 0);
        return [name, isWide(type) ? all : CLOSE[type].of(all)];
      }),
    ) as unknown as Columns<S>;
  }
}

/** Columns as sections of a file, by a name before theirs. */
export const columnSections = <S extends Shape>(prefix: string, columns: Columns<S>): Sections =>
  Object.assign(
    {},
    ...Object.entries<Column<Wide | Close>>(columns as never).map(([name, column]) =>
      'sections' in column ? column.sections(`${prefix}.${name}`) : { [`${prefix}.${name}`]: bytesOf(column) },
    ),
  ) as Sections;

/** Columns where they lie in a file. @throws Error where one is not there */
export const openColumns = <S extends Shape>(prefix: string, shape: S, sections: Sections): Columns<S> =>
  Object.fromEntries(
    Object.entries(shape).map(([name, type]) => {
      const section = `${prefix}.${name}`;
      return [
        name,
        isWide(type) ? numbersIn<Numbers>(TYPES[type], sections, section) : CLOSE[type].open(section, sections),
      ];
    }),
  ) as unknown as Columns<S>;

/** Where the rows that belong to one of another table stand, by the column that says where each one's end. */
export const ends = (column: { at: (row: number) => number | undefined }, row: number): [from: number, to: number] => [
  row === 0 ? 0 : (column.at(row - 1) ?? 0),
  column.at(row) ?? 0,
];
