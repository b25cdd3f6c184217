import { useState } from 'react';
import type { BatchLooks } from '@wunsch/core/api/temper';
import { SEEN, type Bloom, type Seen } from '@wunsch/core/ledger/types';
import { bloomBy, SEEN_WORDS } from '@wunsch/core/temper/bloom';
import { send, useApi } from '../parts/api';
import { newKey } from '../parts/draft';
import { Chips } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { Photos } from '../parts/Photos';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { LastPours } from './LastPours';
import { Remelt } from './Remelt';

const YES_NO = [
  ['yes', 'It does'],
  ['no', 'It does not'],
] as const;
type Answer = (typeof YES_NO)[number][0] | null;

/** How the bars of a batch look, from turning out on, and why: by its pours, or by what else it can be. */
export function Looks({ code, batchId }: { code: string; batchId: string }) {
  const { personId } = useHere();
  const show = useShow();
  const { data } = useApi<BatchLooks>(`/api/temper/batches/${code}/looks`);
  const [seen, setSeen] = useState<Seen[]>([]);
  const [water, setWater] = useState<Answer>(null);
  const [finger, setFinger] = useState<Answer>(null);
  const { busy, error, run, fail } = useSave();
  if (!data || data.pours.length === 0) return null;
  const { cause, sights, pours, photos, here } = data;
  const bloom: Bloom | null = seen.includes('veil') ? bloomBy(water === 'yes', finger === 'yes') : null;
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (seen.length === 0) return fail('Choose what is seen.');
    const command = { kind: 'reading', batchId, what: 'seen', value: null, seen, bloom, note: '' };
    void run(() => send('POST', '/api/ledger/steps', { personId, command }, newKey())).then((done) => {
      if (!done) return;
      setSeen([]);
      setWater(null);
      setFinger(null);
    });
  };
  const tone = { good: 'bg-leaf-wash', watch: 'bg-ripe-wash', quiet: 'bg-sunk' }[cause.tone];
  return (
    <Section title="How it looks, and why">
      <div className={`rounded-md px-4 py-3 ${tone}`}>
        <p className="text-lg">{cause.sentence}</p>
        {cause.todo !== null && <p className="mt-1 text-sm">Next time: {cause.todo}</p>}
        {cause.tone === 'watch' && <Remelt key={code} here={here} why={cause.sentence.slice(0, 110)} />}
      </div>
      {sights.length > 0 && (
        <ul className="rows mt-2 text-sm">
          {sights.map((row) => (
            <li key={row.stepId} className="py-1">
              {row.days < 1 ? 'At turning out' : `After ${row.days.toFixed(0)} days`}:{' '}
              <strong>{row.seen.map((one) => SEEN_WORDS[one]).join(', ')}</strong>
              {row.bloom !== null && `, ${row.bloom} bloom`}{' '}
              <span className="text-soft">
                {show.day(row.at)}, {row.person}
              </span>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 grid gap-3">
        <Chips
          legend="What is seen of the bars now"
          options={SEEN.map((id) => [id, SEEN_WORDS[id]] as const)}
          chosen={seen}
          choose={setSeen}
          several
        />
        {seen.includes('veil') && (
          <>
            <Chips
              legend="A warm finger on the veil: does it take it away?"
              options={YES_NO}
              chosen={finger === null ? [] : [finger]}
              choose={([next]) => setFinger(next ?? null)}
            />
            <Chips
              legend="A drop of water, dried off again: does it take it away?"
              options={YES_NO}
              chosen={water === null ? [] : [water]}
              choose={([next]) => setWater(next ?? null)}
            />
            {bloom !== null && <p className="font-semibold">That is {bloom} bloom.</p>}
          </>
        )}
        <div className="flex flex-wrap items-center gap-3">
          <button type="button" className="button" disabled={busy} onClick={save}>
            Save what is seen
          </button>
          <Photos subject={`batch:${batchId}`} photos={photos} caption={seen.map((id) => SEEN_WORDS[id]).join(', ')} />
        </div>
      </div>
      <Refusal error={error} />
      <details className="mt-2">
        <summary className="inline-flex min-h-11 cursor-pointer items-center underline">
          Its {pours.length === 1 ? 'pour' : `${pours.length} pours`}, judged
        </summary>
        <LastPours steps={pours.map(({ stepId }) => ({ id: stepId }))} />
      </details>
    </Section>
  );
}
