import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import { useApi } from '../parts/api';
import { Loading } from '../parts/pieces';
import { ImportPanel } from './ImportPanel';
import { ReceivePanel } from './ReceivePanel';
import { RoomLine } from './RoomLine';
import { SamplesPanel } from './SamplesPanel';
import { StoreTable } from './StoreTable';
import { TrapsPanel } from './TrapsPanel';

const VIEWS = [
  ['store', 'In the store'],
  ['receive', 'Receive a lot'],
  ['samples', 'Samples'],
  ['traps', 'Moth traps'],
  ['import', 'From a table'],
] as const;

/** The bean store: what stands there, what comes in, samples, traps. */
export function BeansBench({ view }: { view: BenchView }) {
  const [query, setQuery] = useSearchParams();
  const store = useApi('/api/beans/store');
  const asked = query.get('show');
  // An empty house opens at the door, and stays there when the first lot has come in: what to do next is told there.
  const [first] = useState(view.waiting.length === 0 ? 'receive' : 'store');
  const shown = VIEWS.find(([name]) => name === asked)?.[0] ?? first;
  return (
    <div>
      <div className="mb-5 flex flex-wrap gap-2" role="group" aria-label="What to see">
        {VIEWS.map(([name, label]) => (
          <button
            key={name}
            type="button"
            className="chip"
            aria-pressed={shown === name}
            onClick={() => setQuery({ show: name }, { replace: true })}
          >
            {label}
          </button>
        ))}
      </div>
      {shown === 'receive' && <ReceivePanel sampleCode={query.get('sample')} />}
      {shown === 'import' && <ImportPanel />}
      {shown === 'samples' && <SamplesPanel />}
      {shown === 'store' && (store.data ? <StoreTable store={store.data} /> : <Loading error={store.error} />)}
      {shown === 'traps' && (store.data ? <TrapsPanel store={store.data} /> : <Loading error={store.error} />)}
      {shown === 'store' && <RoomLine />}
    </div>
  );
}
