import { useState } from 'react';
import type { GrindView } from '@wunsch/core/api/types';
import { judgeWarming } from '@wunsch/core/grind/warming';
import type { GrindStudy } from '@wunsch/core/grind/tonight';
import { ceilingOf } from '@wunsch/core/workshop/stations';
import { useApi } from '../parts/api';
import { SelectBox } from '../parts/fields';
import { Caution } from '../parts/pieces';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import { stones } from './compute';

/** A sourness that most makers call gone. */
const USUAL_SOURNESS = 3;
const LEVELS = [1, 2, 3, 4, 5].map((level) => [String(level), `${level} of 10`] as const);

/** How long it has still to be conched, from what was tasted. */
export function Conching({ grind: { batch, readings } }: { grind: GrindView }) {
  const [wanted, setWanted] = useState(USUAL_SOURNESS);
  const { data: study } = useApi<GrindStudy>(`/api/grind/batches/${batch.code}/study`);
  const tasted = study?.conche.tastes ?? [];
  const found = useWorked(
    study && tasted.length > 0
      ? JSON.stringify([study.code, study.conche, wanted, Math.round(4 * study.nowH), readings.length])
      : null,
    () => stones().conche(study as GrindStudy, wanted),
    'conche-forecast',
  );
  if (tasted.length === 0 || !found) return null;
  return (
    <section aria-label="Conching" className="mt-6">
      <h2 className="mb-2 text-xl">Conching</h2>
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
        <p className="figure text-xl" aria-live="polite">
          {found.sentence}
        </p>
        <SelectBox
          className="w-40"
          label="Sourness that is meant"
          value={String(wanted)}
          options={LEVELS}
          onChange={(value) => setWanted(Number(value))}
        />
      </div>
      <p className="mt-1 text-sm text-soft">
        From {tasted.length === 1 ? 'one tasting' : `${tasted.length} tastings`}:{' '}
        {tasted.map(({ atH, score }) => `${score} at ${atH.toFixed(0)} h`).join(', ')}. Eight in ten; ten degrees more
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

/** Where a mass with a ceiling is going. */
export function Warming({ grind: { batch, readings } }: { grind: GrindView }) {
  const { view } = useHere();
  const show = useShow();
  const route = view.routes.find(({ id }) => id === batch.routeId);
  const ceilingC = route ? ceilingOf(route) : null;
  if (ceilingC === null) return null;
  const temps = readings.flatMap(({ at, what, value }) =>
    what === 'bowl-temperature' && value !== null ? [{ at, tempC: value }] : [],
  );
  const found = judgeWarming(temps, ceilingC, show.temp);
  if (!found)
    return (
      <p className="mt-3 text-sm">
        This route keeps its mass under {show.temp(ceilingC)}: read the bowl’s temperature once it runs.
      </p>
    );
  const tone = { stop: 'bg-crimson-wash', watch: 'bg-ripe-wash', good: 'bg-leaf-wash' }[found.tone];
  return (
    <section aria-label="Temperature of the mass" className={`mt-3 rounded-md px-4 py-2 ${tone}`}>
      <p className="font-semibold">{found.sentence}</p>
      {found.todo !== null && <p className="text-sm">{found.todo}</p>}
    </section>
  );
}
