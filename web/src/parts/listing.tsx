import {
  ArrowDownIcon,
  ArrowUpIcon,
  CaretLeftIcon,
  CaretRightIcon,
  ColumnsIcon,
  DownloadSimpleIcon,
  MagnifyingGlassIcon,
} from '@phosphor-icons/react';
import {
  getCoreRowModel,
  getPaginationRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { Popover } from 'radix-ui';
import { useMemo, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { harmlessCell, TABLE_OUT } from '@wunsch/core/units/cells';
import { Choice, fitsSearch } from './choice';
import { Tick } from './fields';

type Value = string | number | null;

/** One column of a list: what it is called, what its rows are sorted, found and exported by, and how that is shown. */
export interface Column<R> {
  id: string;
  head: string;
  /** Plain figures and words; null stands last however it is sorted. */
  value: (row: R) => Value;
  /** Unit of `value`, for the exported heading: `g`, `EUR`. */
  unit?: string;
  show?: (row: R) => ReactNode;
  /** Figures stand at the right. */
  right?: boolean;
  /** Not shown until somebody chooses it. */
  extra?: boolean;
  /** Offers its values to choose one from. @example 'all families' */
  filter?: string;
}

interface ListingProps<R> {
  /** What the list is called; also the name of its exported file. */
  label: string;
  rows: readonly R[];
  columns: readonly Column<R>[];
  rowId: (row: R) => string;
  /** How it is sorted as it comes: the column, with `-` before it the largest first. @example '-began' */
  sort?: string;
  pageSize?: number;
  /** Keeps several lists of one page apart in the address. */
  prefix?: string;
  /** Before each row: something to press. */
  lead?: { head: string; cell: (row: R) => ReactNode };
  /** Behind each row: something to press. */
  tail?: (row: R) => ReactNode;
  /** Rows that stand out. */
  marked?: (row: R) => boolean;
  minWidth?: string;
}

/** A list that is short enough needs no search. */
const SEARCHED_FROM = 9;

const sortingOf = (text: string): SortingState =>
  text === '' ? [] : [{ id: text.replace(/^-/, ''), desc: text.startsWith('-') }];

/** Figures by size, words by the alphabet, nothing last. */
export function compareValues(a: Value, b: Value): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), 'en-GB', { numeric: true, sensitivity: 'base' });
}

/** Rows that hold every word of a search and every chosen value, in their own order. */
export function rowsFound<R>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  find: string,
  chosen: Readonly<Record<string, string>>,
): R[] {
  return rows.filter(
    (row) =>
      columns.every(({ id, value }) => chosen[id] === undefined || String(value(row) ?? '') === chosen[id]) &&
      (find === '' || fitsSearch(columns.map(({ value }) => value(row) ?? '').join(' '), find)),
  );
}

/** The state of a list in the address: so that a link, a reload and the way back show the same. */
function useAddress(prefix: string) {
  const [query, setQuery] = useSearchParams();
  const get = (name: string): string | null => query.get(prefix + name);
  const put = (changes: Record<string, string | null>): void =>
    setQuery(
      (now) => {
        for (const [name, value] of Object.entries(changes)) {
          if (value === null) now.delete(prefix + name);
          else now.set(prefix + name, value);
        }
        return now;
      },
      { replace: true },
    );
  return { get, put };
}

async function download<R>(label: string, columns: readonly Column<R>[], rows: readonly R[]): Promise<void> {
  const { stringify } = await import('csv-stringify/browser/esm/sync');
  const text = stringify(
    [
      columns.map(({ head, unit }) => (unit === undefined ? head : `${head} (${unit})`)),
      ...rows.map((row) => columns.map(({ value }) => harmlessCell(value(row)))),
    ],
    TABLE_OUT,
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob(['\ufeff', text], { type: 'text/csv;charset=utf-8' }));
  link.download = `${label.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.csv`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** A list: sorted by its headings, searched, its columns chosen, in pages, and what is seen as CSV. */
export function Listing<R>({
  label,
  rows,
  columns,
  rowId,
  sort = '',
  pageSize = 50,
  prefix = '',
  lead,
  tail,
  marked,
  minWidth = '34rem',
}: ListingProps<R>) {
  const { get, put } = useAddress(prefix);
  const find = get('find') ?? '';
  const sorted = get('sort') ?? sort;
  const hidden = (get('columns') ?? '').split(',');
  const isShown = ({ id, extra }: Column<R>): boolean => hidden.includes(id) === (extra === true);
  const shown = columns.filter(isShown);
  const filters = columns.filter(({ filter }) => filter !== undefined);
  const chosen = Object.fromEntries(
    filters.flatMap(({ id }) => {
      const value = get(`of-${id}`);
      return value === null ? [] : [[id, value]];
    }),
  );
  const found = rowsFound(rows, columns, find, chosen);
  const definitions = useMemo(
    () =>
      columns.map((column): ColumnDef<R, Value | undefined> => ({
        id: column.id,
        accessorFn: (row) => column.value(row) ?? undefined,
        sortUndefined: 'last',
        sortingFn: (a, b, id) => compareValues(a.getValue(id), b.getValue(id)),
      })),
    [columns],
  );
  // oxlint-disable-next-line react/incompatible-library -- the table is made anew with each drawing
  const table = useReactTable({
    data: found,
    columns: definitions,
    getRowId: rowId,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getPaginationRowModel: getPaginationRowModel(),
    autoResetPageIndex: false,
    state: {
      sorting: sortingOf(sorted),
      pagination: {
        pageIndex: Math.min(Math.max(0, Number(get('page') ?? 1) - 1 || 0), Math.ceil(found.length / pageSize) - 1),
        pageSize,
      },
    },
  });
  const order = table.getState().sorting[0];
  const page = Math.max(0, table.getState().pagination.pageIndex);
  const pages = Math.max(1, table.getPageCount());
  const inOrder = (): R[] => table.getSortedRowModel().rows.map(({ original }) => original);
  const turn = (id: string): void => {
    const next = order?.id === id ? (order.desc ? id : `-${id}`) : id;
    put({ sort: next === sort ? null : next, page: null });
  };
  return (
    <div>
      {rows.length >= SEARCHED_FROM && (
        <div className="mb-2 flex flex-wrap items-center gap-2">
          <label className="relative max-w-xs min-w-40 flex-1">
            <span className="sr-only">Find in {label.toLowerCase()}</span>
            <MagnifyingGlassIcon
              size={18}
              className="pointer-events-none absolute top-1/2 left-2 -translate-y-1/2 text-soft"
              aria-hidden
            />
            <input
              className="entry pl-8!"
              type="search"
              autoComplete="off"
              placeholder={`find in ${rows.length}`}
              value={find}
              onChange={({ target }) => put({ find: target.value === '' ? null : target.value, page: null })}
            />
          </label>
          {filters.map(({ id, head, filter = '', value }) => (
            <Choice
              key={id}
              className="w-auto! max-w-56"
              label={head}
              value={chosen[id] ?? ''}
              options={[
                ['', filter],
                ...[...new Set(rows.map((row) => String(value(row) ?? '')))]
                  .filter((one) => one !== '')
                  .sort(compareValues)
                  .map((one) => [one, one] as const),
              ]}
              onChange={(one) => put({ [`of-${id}`]: one === '' ? null : one, page: null })}
            />
          ))}
          <span className="ml-auto flex items-center gap-2">
            <Popover.Root>
              <Popover.Trigger type="button" className="chip" aria-label={`Columns of ${label.toLowerCase()}`}>
                <ColumnsIcon size={18} aria-hidden /> Columns
              </Popover.Trigger>
              <Popover.Portal>
                <Popover.Content align="end" sideOffset={4} collisionPadding={8} className="choice-list px-3!">
                  <div className="min-h-0 overflow-y-auto">
                    {columns.slice(1).map((column) => (
                      <Tick
                        key={column.id}
                        checked={isShown(column)}
                        onChange={() => {
                          const next = hidden.includes(column.id)
                            ? hidden.filter((id) => id !== column.id)
                            : [...hidden, column.id];
                          const text = next.filter((id) => id !== '').join(',');
                          put({ columns: text === '' ? null : text });
                        }}
                      >
                        {column.head}
                      </Tick>
                    ))}
                  </div>
                </Popover.Content>
              </Popover.Portal>
            </Popover.Root>
            <button type="button" className="chip" onClick={() => void download(label, shown, inOrder())}>
              <DownloadSimpleIcon size={18} aria-hidden /> CSV
            </button>
          </span>
        </div>
      )}
      {found.length === 0 ? (
        <p className="py-3 text-soft">
          {rows.length === 0 ? 'Nothing yet.' : 'None of these is like that.'}{' '}
          {rows.length > 0 && (
            <button
              type="button"
              className="link min-h-9"
              onClick={() =>
                put({ find: null, page: null, ...Object.fromEntries(filters.map(({ id }) => [`of-${id}`, null])) })
              }
            >
              Show all {rows.length}
            </button>
          )}
        </p>
      ) : (
        <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={label}>
          <table className="listing" style={{ minWidth }}>
            <thead>
              <tr>
                {lead && (
                  <th scope="col">
                    <span className="label inline-flex min-h-8 items-center">{lead.head}</span>
                  </th>
                )}
                {shown.map(({ id, head, right }) => {
                  const on = order?.id === id;
                  return (
                    <th
                      key={id}
                      scope="col"
                      className={right === true ? 'text-right' : ''}
                      aria-sort={on ? (order.desc ? 'descending' : 'ascending') : undefined}
                    >
                      <button
                        type="button"
                        className="label inline-flex min-h-8 items-center gap-1"
                        onClick={() => turn(id)}
                      >
                        {head}
                        {on &&
                          (order.desc ? (
                            <ArrowDownIcon size={14} aria-hidden />
                          ) : (
                            <ArrowUpIcon size={14} aria-hidden />
                          ))}
                      </button>
                    </th>
                  );
                })}
                {tail && (
                  <th scope="col">
                    <span className="sr-only">To do</span>
                  </th>
                )}
              </tr>
            </thead>
            <tbody>
              {table.getRowModel().rows.map(({ id, original }) => (
                <tr key={id} data-marked={marked?.(original) ?? false}>
                  {lead && <td className="py-0! align-middle!">{lead.cell(original)}</td>}
                  {shown.map((column) => (
                    <td key={column.id} className={column.right === true ? 'text-right' : ''}>
                      {column.show ? column.show(original) : (column.value(original) ?? '–')}
                    </td>
                  ))}
                  {tail && <td className="py-0! text-right">{tail(original)}</td>}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {pages > 1 && (
        <nav className="mt-3 flex items-center gap-3" aria-label={`Pages of ${label.toLowerCase()}`}>
          <button
            type="button"
            className="chip"
            aria-label="Page before"
            disabled={page === 0}
            onClick={() => put({ page: page <= 1 ? null : String(page) })}
          >
            <CaretLeftIcon size={18} aria-hidden />
          </button>
          <span className="text-soft">
            {page * pageSize + 1} to {Math.min(found.length, (page + 1) * pageSize)} of {found.length}
          </span>
          <button
            type="button"
            className="chip"
            aria-label="Next page"
            disabled={page + 1 >= pages}
            onClick={() => put({ page: String(page + 2) })}
          >
            <CaretRightIcon size={18} aria-hidden />
          </button>
        </nav>
      )}
    </div>
  );
}
