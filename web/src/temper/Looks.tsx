import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { SEEN, type Bloom, type Seen } from '@wunsch/core/ledger/types';
import { bloomBy, SEEN_WORDS } from '@wunsch/core/temper/bloom';
import { send, useApi } from '../parts/api';
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
  const { data } = useApi(`/api/temper/batches/${code}/looks`);
  const [veil, setVeil] = useState(false);
  const [finger, setFinger] = useState<Answer>(null);
  const [noted, setNoted] = useState<{ stepId: string; words: string } | null>(null);
  const { busy, error, run, fail } = useSave();
  const { hash } = useLocation();
  const here = data !== undefined && hash === '#looks';
  useEffect(() => {
    if (here) document.getElementById('looks')?.scrollIntoView();
  }, [here]);
  if (!data || data.pours.length === 0) return null;
  const { cause, sights, pours, photos } = data;
  const note = (seen: Seen, bloom: Bloom | null = null): void => {
    if (personId === null) return fail(NOBODY);
    const command = { kind: 'reading', batchId, what: 'seen', value: null, seen: [seen], bloom, note: '' };
    const words = `${SEEN_WORDS[seen]}${bloom === null ? '' : `, ${bloom} bloom`}`;
    void run(async () => {
      const { data: kept } = await send('POST', '/api/ledger/steps', { personId, command });
      setNoted({ stepId: kept.step.id, words });
    }).then((done) => {
      if (!done) return;
      setVeil(false);
      setFinger(null);
    });
  };
  const unnote = (): void => {
    if (personId === null || noted === null) return fail(NOBODY);
    const path = `/api/ledger/steps/${noted.stepId}/withdraw` as const;
    void run(() => send('POST', path, { personId, reason: 'Pressed by mistake' })).then(
      (done) => done && setNoted(null),
    );
  };
  const tone = { good: 'bg-leaf-wash', watch: 'bg-ripe-wash', quiet: 'bg-sunk' }[cause.tone];
  return (
    <Section id="looks" title="How it looks, and why">
      <div className={`rounded-md px-4 py-3 ${tone}`}>
        <p className="text-lg">{cause.sentence}</p>
        {cause.todo !== null && <p className="mt-1 text-sm">Next time: {cause.todo}</p>}
        {cause.tone === 'watch' && <Remelt key={code} here={data.here} why={cause.sentence.slice(0, 110)} />}
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
          legend="What is seen of the bars now: a press each"
          options={SEEN.map((id) => [id, SEEN_WORDS[id]] as const)}
          chosen={veil ? ['veil'] : []}
          choose={([next]) => {
            setVeil(next === 'veil');
            setFinger(null);
            if (next !== undefined && next !== 'veil') note(next);
          }}
        />
        {noted && (
          <p role="status" className="flex flex-wrap items-center gap-x-3">
            <span>
              Noted: <strong>{noted.words}</strong>.
            </span>
            <button type="button" className="button button-quiet" disabled={busy} onClick={unnote}>
              Take it back
            </button>
          </p>
        )}
        {veil && (
          <>
            <Chips
              legend="A warm finger on the veil: does it take it away?"
              options={YES_NO}
              chosen={finger === null ? [] : [finger]}
              choose={([next]) => {
                setFinger(next ?? null);
                if (next === 'yes') note('veil', bloomBy(false, true));
              }}
            />
            <Chips
              legend="A drop of water, dried off again: does it take it away?"
              options={YES_NO}
              chosen={[]}
              choose={([next]) => {
                if (next !== undefined) note('veil', bloomBy(next === 'yes', false));
              }}
            />
          </>
        )}
        <Photos subject={`batch:${batchId}`} photos={photos} caption={noted?.words ?? ''} />
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
