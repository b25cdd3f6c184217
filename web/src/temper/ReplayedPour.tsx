import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { PouredView } from '@wunsch/core/api/temper';
import { BAR_WORDS } from '@wunsch/core/temper/lessons';
import { shifted, type Replay, type Replayed, type WhatIf } from '@wunsch/core/temper/replay';
import { silk } from '@wunsch/core/temper/sums';
import { softLowersC } from '@wunsch/core/temper/windows';
import { degreesTo } from '@wunsch/core/units/temperature';
import { useApi } from '../parts/api';
import { Chips } from '../parts/fields';
import { Loading } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { DrawnBar } from './DrawnBar';
import { bowlWorker } from './useBowl';

const TemperChart = lazy(() => import('../charts/TemperChart'));

interface Answer {
  was: Replay | null;
  others: { what: WhatIf; made: Replay }[];
}

/** Usual share of a bowl that goes in as seed. */
const SEED_SHARE = 0.1;
const MOST_POINTS = 400;

/** What the model for learning says of a pour that was really made, and of the same pour with one thing done otherwise. */
export function ReplayedPour({ stepId }: { stepId: string }) {
  const { data, error } = useApi(`/api/temper/steps/${stepId}`);
  return (
    <div>
      <h1 className="text-3xl">A pour, once more</h1>
      <p className="mt-1 text-soft">
        What a model for learning makes of a pour that was logged. It knows its temperatures and what was marked, and
        nothing else: the moulds and the book decide.{' '}
        <Link className="link" to="/practise">
          Back to practising
        </Link>
      </p>
      {data ? <Replays pour={data} /> : <Loading error={error} />}
    </div>
  );
}

function Replays({ pour }: { pour: PouredView }) {
  const { temperatureUnit: unit } = useHere().view.settings;
  const show = useShow();
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [chosen, setChosen] = useState<WhatIf['id'] | 'was'>('was');
  const { readings, marks, windows, fatShare, softShare, seeded, seedShare, method, byHand, code, at, verdict } = pour;
  const asked = useMemo((): Replayed => {
    const isSeed = method === 'seed' || marks.some(({ what }) => what === 'seed');
    // As it was weighed; where it was not, as is usual.
    const share = seedShare ?? (isSeed ? SEED_SHARE : silk(100, softShare).silkG / 100);
    return {
      readings,
      marks,
      windows,
      fatShare,
      lowerC: softLowersC(softShare),
      seed: seeded ? { kind: isSeed ? 'chocolate' : 'silk', share } : null,
    };
  }, [readings, marks, windows, fatShare, softShare, seeded, seedShare, method]);
  useEffect(() => {
    let here = true;
    void bowlWorker()
      .replay(asked)
      .then((found) => here && setAnswer(found));
    return () => {
      here = false;
    };
  }, [asked]);
  const other = answer?.others.find(({ what }) => what.id === chosen);
  const shown = chosen === 'was' ? answer?.was : other?.made;
  const curve = (rows: Replayed['readings']) => {
    const every = Math.ceil(rows.length / MOST_POINTS) || 1;
    return rows.filter((_, i) => i % every === 0).map(({ second, tempC }) => ({ minute: second / 60, tempC }));
  };
  const points = useMemo(() => curve(readings), [readings]);
  const beside = useMemo(
    () => (other ? { words: other.what.words, points: curve(shifted(asked, other.what).readings) } : null),
    [asked, other],
  );
  const degree = Math.abs(degreesTo(1, unit)).toFixed(unit === 'C' ? 0 : 1);
  const words = (what: WhatIf): string => what.words.replace('one degree', `${degree} °${unit}`);
  return (
    <div className="mt-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div className="min-w-0">
        <p className="text-soft">
          <Link className="link" to={`/step/${pour.stepId}`}>
            <span className="code">{code}</span>
          </Link>{' '}
          {show.moment(at)}, {method}
          {byHand && '. It was read by hand only: three temperatures, a quarter of an hour apart, stand for its curve'}.
        </p>
        <p className="mt-2 text-lg">{verdict.sentence}</p>
        <div className="mt-3">
          <Suspense fallback={<div className="h-60" />}>
            <TemperChart
              caption="Temperature by minutes; bands are where it is melted, cooled and worked"
              points={points}
              windows={windows}
              unit={unit}
              marks={marks}
              other={beside}
            />
          </Suspense>
        </div>
      </div>
      <div className="grid content-start gap-4">
        <Chips
          legend="The model shows"
          options={[
            ['was', 'as it was'] as const,
            ...(answer?.others ?? []).map(({ what }) => [what.id, words(what)] as const),
          ]}
          chosen={[chosen]}
          choose={([next]) => setChosen(next ?? 'was')}
        />
        {shown ? (
          <section
            aria-label="The bar of the model"
            className={`rounded-md px-4 py-3 ${shown.bar.verdict === 'good' ? 'bg-leaf-wash' : 'bg-ripe-wash'}`}
          >
            <p className="figure text-xl">
              {chosen === 'was'
                ? 'As it was'
                : other && `${words(other.what)[0]?.toUpperCase()}${words(other.what).slice(1)}`}
              : {BAR_WORDS[shown.bar.verdict]}
            </p>
            <p className="mt-1 text-sm text-soft">
              {percent(shown.points.at(-1)?.v)} of its fat is form V as it is poured, {percent(shown.points.at(-1)?.iv)}{' '}
              form IV.
            </p>
            <div className="mt-3">
              <DrawnBar bar={shown.bar} />
            </div>
          </section>
        ) : (
          answer !== null && <p className="text-soft">Too few temperatures to run it once more.</p>
        )}
      </div>
    </div>
  );
}

const percent = (share = 0): string => `${(100 * share).toFixed(1)}\u00a0%`;
