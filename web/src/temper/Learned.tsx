import { lazy, Suspense } from 'react';
import type { LearnedView } from '@wunsch/core/api/temper';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useHere } from '../parts/workshop';

const SettingsChart = lazy(() => import('../charts/SettingsChart'));

/** Pours below which a chart shows nothing. */
const FEWEST = 4;

/** What earlier pours of this bar teach: the best known setting machine by machine, how sure, and settings against tests. */
export function Learned({ code }: { code: string | null }) {
  const { temperatureUnit } = useHere().view.settings;
  const { data } = useApi(code === null ? null : `/api/temper/learned/${encodeURIComponent(code)}`);
  const tested = (data?.pours ?? []).filter(({ test }) => test !== 'none');
  if (!data || tested.length === 0) return null;
  // One bench a picture: the one with most tests whose settings can tell apart.
  const benches = [...new Set(tested.map((row) => row.on))];
  const of = (bench: string) => tested.filter((row) => row.on === bench);
  const [on] = benches.sort((a, b) => Number(isMixed(of(b))) - Number(isMixed(of(a))) || of(b).length - of(a).length);
  const charted = on === undefined ? [] : of(on);
  return (
    <div className="mt-10">
      <Section id="learned" title={`What earlier pours of ${data.name} teach`}>
        {data.settings.length === 0 ? (
          <p className="text-soft">
            {tested.length} tested, and not three of them set on one machine: nothing is known yet. Test each pour, and
            it will be.
          </p>
        ) : (
          <ul className="rows">
            {data.settings.map(({ on, sentence, lowPct, highPct, of }) => (
              <li key={on} className="py-2">
                <p className="text-lg">{sentence}</p>
                <p className="text-sm text-soft">
                  Of {of} such pours; of all to come {Math.round(lowPct)} to {Math.round(highPct)} in a hundred would
                  set, nineteen times in twenty.
                </p>
              </li>
            ))}
          </ul>
        )}
        {charted.length >= FEWEST && (
          <Suspense fallback={<div className="h-56" />}>
            <SettingsChart pours={charted} on={on ?? ''} unit={temperatureUnit} />
          </Suspense>
        )}
      </Section>
    </div>
  );
}

/** Whether some set and some did not. */
const isMixed = (pours: LearnedView['pours']): boolean => new Set(pours.map(({ test }) => test === 'set')).size > 1;
