import { useState } from 'react';
import type { GrindView } from '@wunsch/core/api/types';
import { concheHistory, judgeAroma, type ConcheTaste } from '@wunsch/core/grind/conche';
import type { GrindStudy } from '@wunsch/core/grind/tonight';
import { SelectBox } from '../parts/choice';
import { Caution } from '../parts/pieces';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import type { Told } from './Foretold';
import { stones } from './compute';

/** A sourness, an astringency that most makers call gone. */
const USUAL = { tastes: 3, astringency: 3 };
const LEVELS = [1, 2, 3, 4, 5].map((level) => [String(level), `${level} of 10`] as const);
type Of = keyof typeof USUAL;

const tastedWords = (tastes: readonly ConcheTaste[]): string =>
  `From ${tastes.length === 1 ? 'one tasting' : `${tastes.length} tastings`}: ${tastes.map(({ atH, score }) => `${score} at ${atH.toFixed(0)} h`).join(', ')}.`;

/** How long it has still to be conched, from what was tasted, and what earlier batches of the bean took. */
export function Conching({ grind, study }: { grind: GrindView; study: Told['study'] | null }) {
  const show = useShow();
  if (!study) return null;
  const { tastes, astringency, aroma, past, heat, nowH } = study.conche;
  const history = concheHistory(past, USUAL.tastes);
  const aromaSays = judgeAroma(aroma);
  if (tastes.length + astringency.length + aroma.length === 0 && history.length === 0) return null;
  return (
    <section aria-label="Conching" className="mt-6">
      <h2 className="mb-2 text-xl">Conching</h2>
      {(['tastes', 'astringency'] as const).map(
        (of) => study.conche[of].length > 0 && <Falls key={of} of={of} study={study} entries={grind.readings.length} />,
      )}
      {aromaSays && (
        <p className={`mt-2 ${aromaSays.tone === 'watch' ? 'rounded-md bg-ripe-wash px-4 py-2 font-semibold' : ''}`}>
          {aromaSays.sentence}
        </p>
      )}
      {history.map((sentence) => (
        <p key={sentence} className="mt-2">
          {sentence}
        </p>
      ))}
      <p className="mt-1 text-sm text-soft">
        Moved for {nowH.toFixed(0)} h so far
        {heat.length === 0 ? `; no temperature is logged, ${show.temp(50)} is assumed` : ''}. Ten degrees Celsius more
        make it 1.8 times as fast.
      </p>
      <div className="mt-2">
        <Caution>
          Too long takes the aroma with the sourness. No water and no steam near the bowl; hot mass burns skin. Stop by
          taste.
        </Caution>
      </div>
    </section>
  );
}

/** One taste that is meant to go: how long that takes. */
function Falls({ of, study, entries }: { of: Of; study: GrindStudy; entries: number }) {
  const [wanted, setWanted] = useState(USUAL[of]);
  const { temperatureUnit } = useHere().view.settings;
  const tastes = study.conche[of];
  const found = useWorked(
    JSON.stringify([study.code, study.conche, wanted, Math.round(4 * study.conche.nowH), entries, temperatureUnit]),
    () => stones().conche(study, of, wanted, temperatureUnit),
    'conche-forecast',
  );
  const name = of === 'tastes' ? 'Sourness' : 'Astringency';
  if (!found) return null;
  return (
    <div className="mb-3">
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <p className="figure text-xl" aria-live="polite">
          {of === 'astringency' && 'Astringency: '}
          {found.sentence}
        </p>
        <SelectBox
          className="w-44"
          label={`${name} that is meant`}
          value={String(wanted)}
          options={LEVELS}
          onChange={(value) => setWanted(Number(value))}
        />
      </div>
      <p className="mt-1 text-sm text-soft">
        {tastedWords(tastes)} Eight in ten
        {of === 'tastes' && study.conche.prior ? ', with what earlier batches taught' : ''}.
      </p>
    </div>
  );
}
