import { FAULT_WORDS } from '@wunsch/core/temper/faults';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';

/** How often which fault came first, bench by bench. */
export function Faults() {
  const show = useShow();
  const { data } = useApi('/api/temper/faults');
  if (!data || data.since === null) return null;
  return (
    <div className="mt-10">
      <Section id="faults" title="Where pours go wrong" aside={`since ${show.day(data.since)}`}>
        <ul className="rows">
          {data.benches.map(({ bench, pours, good, faults }) => (
            <li key={bench} className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 py-2">
              <span>
                {bench[0]?.toUpperCase()}
                {bench.slice(1)}
              </span>
              <span className="text-sm">
                {pours - good === 0 ? (
                  <span className="text-soft">nothing in {pours === 1 ? 'one pour' : `${pours} pours`}</span>
                ) : (
                  <>
                    {faults.map(({ id, times }) => `${times} × ${FAULT_WORDS[id]}`).join(', ')}{' '}
                    <span className="text-soft">of {pours}</span>
                  </>
                )}
              </span>
            </li>
          ))}
        </ul>
      </Section>
    </div>
  );
}
