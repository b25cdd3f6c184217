import { useState } from 'react';
import { Link } from 'react-router';
import type { BatchLooks } from '@wunsch/core/api/temper';
import { send } from '../parts/api';
import { KIND_NAMES, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';

/** Bars that are here go back to be melted, all of them in one press: grams and money go with them. */
export function Remelt({ here, why }: { here: BatchLooks['here']; why: string }) {
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  const [left, setLeft] = useState<readonly string[]>([]);
  const [done, setDone] = useState<string | null>(null);
  const chosen = here.filter(({ holdingId }) => !left.includes(holdingId));
  const pieces = chosen.reduce((sum, row) => sum + row.pieces, 0);
  const massMg = chosen.reduce((sum, row) => sum + row.massMg, 0);
  const go = (): void => {
    if (personId === null) return fail(NOBODY);
    const sources = chosen.map((row) => ({ holdingId: row.holdingId, pieces: row.pieces }));
    void run(async () => {
      const command = { kind: 'remelt', sources, why, note: '' };
      const { data } = await send('POST', '/api/ledger/steps', { personId, command });
      setDone(data.step.id);
    });
  };
  return (
    <div className="mt-3" role="group" aria-label="Melt them again">
      {here.length > 1 && (
        <ul className="mb-1 text-sm">
          {here.map((row) => (
            <li key={row.holdingId}>
              <label className="inline-flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-5"
                  checked={!left.includes(row.holdingId)}
                  onChange={(event) =>
                    setLeft((now) =>
                      event.target.checked ? now.filter((id) => id !== row.holdingId) : [...now, row.holdingId],
                    )
                  }
                />
                <span className="code">{row.code}</span> {count(row.pieces)} {KIND_NAMES[row.kind]},{' '}
                {show.mass(row.massMg)}
              </label>
            </li>
          ))}
        </ul>
      )}
      {chosen.length > 0 && (
        <button type="button" className="button" disabled={busy} onClick={go}>
          Melt {count(pieces)} bars again: {show.mass(massMg)} back to Temper
        </button>
      )}
      {done !== null && (
        <p role="status" className="mt-1 text-sm">
          It stands at Temper now.{' '}
          <Link className="link" to={`/step/${done}`}>
            See or take it back
          </Link>
        </p>
      )}
      <Refusal error={error} />
    </div>
  );
}
