import { lazy, Suspense, useState } from 'react';
import {
  giveawayMilli,
  studyWeights,
  WEIGHT_SYSTEMS,
  WEIGHT_WORDS,
  type WeightSystem,
} from '@wunsch/core/mould/weights';
import { SelectBox } from '../parts/choice';
import { hasDraft } from '../parts/draft';
import { ReadingLine } from '../parts/ReadingLine';
import { useScale } from '../parts/scale';
import { count, useHere, useShow } from '../parts/workshop';

const WeightsChart = lazy(() => import('../charts/WeightsChart'));

const KEY = 'wunsch.weights.system';
const TONES = { good: 'bg-leaf-wash', watch: 'bg-ripe-wash', quiet: '' } as const;

/** Single pieces on the scale: mean, spread, how many would be short, and what the grams given away cost. */
export function Weights({
  of,
  weightsG,
  declaredG,
  perKgMilli,
  piecesAYear,
  busy,
  add,
  back,
}: {
  /** The run of moulding. */
  of: string;
  weightsG: readonly number[];
  declaredG: number;
  perKgMilli: number;
  piecesAYear: number;
  busy: boolean;
  add: (grams: number) => Promise<boolean>;
  back: () => void;
}) {
  const { settings } = useHere().view;
  const show = useShow();
  const [open, setOpen] = useState(weightsG.length > 0 || hasDraft(`reading.${of}.weight`));
  const [system, setSystem] = useState<WeightSystem>(
    () =>
      WEIGHT_SYSTEMS.find((own) => own === localStorage.getItem(KEY)) ??
      (settings.massSystem === 'metric' ? 'eu' : 'us'),
  );
  const scale = useScale(open);
  const study = studyWeights(weightsG, declaredG, system);
  const onScale =
    scale !== null && !scale.unplugged && scale.stable && scale.massG > 0 ? Math.round(10 * scale.massG) / 10 : null;
  const over = study.meanG - declaredG;
  const given = giveawayMilli(over, piecesAYear, perKgMilli);
  return (
    <div className="mt-3">
      <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        Weigh single bars{weightsG.length > 0 && `: ${weightsG.length}`}
      </button>
      {open && (
        <div
          className={`mt-2 rounded-md ${TONES[study.tone]} ${study.tone === 'quiet' ? '' : 'px-3 py-2'}`}
          role="group"
          aria-label="Weights of bars"
        >
          <p className="figure text-xl">{study.sentence}</p>
          <p className="text-sm">
            {study.todo}
            {over > 0.05 && given > 0 && study.n >= 5 && (
              <>
                {' '}
                {over.toFixed(1)} g given away is {show.money(given)} a year, at {count(piecesAYear)} bars.
              </>
            )}
          </p>
          {weightsG.length > 1 && (
            <Suspense fallback={<div className="h-40" />}>
              <WeightsChart weightsG={weightsG} declaredG={declaredG} study={study} />
            </Suspense>
          )}
          <div className="mt-2 flex flex-wrap items-end gap-3">
            <ReadingLine
              id={`${of}.weight`}
              className="w-28"
              label="A bar weighs"
              unit="g"
              button="Keep it"
              busy={busy}
              take={add}
            />
            <button
              type="button"
              className="button"
              disabled={busy || onScale === null}
              onClick={() => onScale !== null && void add(onScale)}
            >
              {onScale === null ? 'Nothing at rest on the scale' : `Take ${onScale} g from the scale`}
            </button>
            {weightsG.length > 0 && (
              <button type="button" className="button button-quiet" disabled={busy} onClick={back}>
                Take the last back
              </button>
            )}
          </div>
          <div className="mt-2 flex flex-wrap items-end gap-3">
            <SelectBox
              className="w-72"
              label="Weight control"
              value={system}
              options={WEIGHT_SYSTEMS.map(
                (own) => [own, `${WEIGHT_WORDS[own].name}, ${WEIGHT_WORDS[own].source}`] as const,
              )}
              onChange={(own) => {
                localStorage.setItem(KEY, own);
                setSystem(own);
              }}
            />
            <p className="min-w-0 flex-1 basis-60 text-sm text-soft">
              {study.errorG === null
                ? 'The table has no row for that weight.'
                : `One bar may be short by ${study.errorG} g.`}{' '}
              A reference: the local authority decides. {scale?.simulated && 'Simulated scale.'}
            </p>
          </div>
        </div>
      )}
    </div>
  );
}
