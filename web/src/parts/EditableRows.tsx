import type { ReactNode } from 'react';

/** Rows of fields, each to be left out, and a press for another one. */
export function EditableRows<T>({
  rows,
  columns,
  fields,
  leaveOut,
  fewest = 0,
  add,
  addWords,
}: {
  rows: readonly T[];
  /** Columns from a tablet on, the last for leaving out; on a phone there are two. */
  columns: string;
  fields: (row: T, index: number) => ReactNode;
  leaveOut: (index: number) => void;
  /** So many stay. */
  fewest?: number;
  add: () => void;
  addWords: string;
}) {
  return (
    <>
      {rows.map((row, index) => (
        <div key={index} className={`mt-1 grid grid-cols-2 items-start gap-3 ${columns}`}>
          {fields(row, index)}
          <button
            type="button"
            className="button button-quiet mt-5"
            disabled={rows.length <= fewest}
            onClick={() => leaveOut(index)}
          >
            Leave out
          </button>
        </div>
      ))}
      <button type="button" className="button button-quiet mt-1" onClick={add}>
        {addWords}
      </button>
    </>
  );
}
