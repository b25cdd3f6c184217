import { useState } from 'react';
import type { Material } from '@wunsch/core/ledger/types';
import { USUAL_MATERIALS } from '@wunsch/core/workshop/usual-materials';
import { send } from './api';
import { Refusal } from './pieces';
import { useSave } from './save';
import { useHere } from './workshop';

/** Usual things that are not here yet, each taken over by a press. @param kind only these; left out, all */
export function UsualMaterials({ kind, first }: { kind?: Material['kind']; first: number }) {
  const { view } = useHere();
  const [more, setMore] = useState(false);
  const { error, run } = useSave();
  const names = new Set(view.materials.map(({ name }) => name.toLowerCase()));
  const usual = USUAL_MATERIALS.filter(
    (row) => (kind === undefined || row.kind === kind) && !names.has(row.name.toLowerCase()),
  );
  if (usual.length === 0) return null;
  return (
    <div className="mt-3">
      <p className="label mb-1">Usual ones, taken over by a press</p>
      <div className="flex flex-wrap gap-2">
        {usual.slice(0, more ? undefined : first).map((row) => (
          <button
            key={row.name}
            type="button"
            className="chip"
            onClick={() => void run(() => send('POST', '/api/workshop/materials', row))}
          >
            + {row.name}
          </button>
        ))}
        {usual.length > first && !more && (
          <button type="button" className="button button-quiet" onClick={() => setMore(true)}>
            {usual.length - first} more
          </button>
        )}
      </div>
      <Refusal error={error} />
    </div>
  );
}
