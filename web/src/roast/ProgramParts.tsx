import { ArrowsSplitIcon, TrashIcon } from '@phosphor-icons/react';
import type { PlanBand } from '@wunsch/core/roast/band';
import { programStep } from '@wunsch/core/roast/records';
import { SIGNS } from '@wunsch/core/roast/words';
import { Figure } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { minutesWords, rangeWords } from './words';
import { SelectBox } from '../parts/choice';
import { Field, useTyped } from '../record/Field';
import { useRecordFields } from '../record/form';
import { typedOf } from '../record/typed';

/** What a program comes to, in figures with their range. */
export function Figures({ band, massG, moisture }: { band: PlanBand | null; massG: number; moisture: number }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  if (!band) return <p className="min-h-24 text-soft">Working it out …</p>;
  const degree = `°${temperatureUnit}`;
  const temp = (value: number): string => `${Math.round(show.fromCelsius(value))}°`;
  const loss = (left: number): string => `${(100 * (1 - left)).toFixed(1)}\u00a0%`;
  const { weightLeft } = band;
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
      <Figure
        small
        label="Beans come out at"
        value={`${Math.round(show.fromCelsius(band.endC.mid))}\u00a0${degree}`}
        note={`${temp(band.endC.low)} to ${temp(band.endC.high)}`}
      />
      <Figure
        small
        label="After"
        value={minutesWords(band.totalMin.mid)}
        note={
          band.totalMin.high - band.totalMin.low < 0.5
            ? 'by the clock'
            : `${minutesWords(band.totalMin.low)} to ${minutesWords(band.totalMin.high)}`
        }
      />
      <Figure
        small
        label="Weighed out"
        value={show.mass(massG * 1000 * weightLeft.mid)}
        note={`${loss(weightLeft.high)} to ${loss(weightLeft.low)} lighter`}
      />
      <Figure
        small
        label="Water left"
        value={`${(100 * band.moistureOut.mid).toFixed(1)}\u00a0%`}
        note={`of ${moisture}\u00a0% going in`}
      />
      {band.above.length > 0 && (
        <p className="col-span-2 text-sm text-soft sm:col-span-4">
          {band.above
            .map(
              ({ baseC, minutes }) =>
                `${rangeWords(minutes, (value) => value.toFixed(1))} min above ${show.temp(baseC)}`,
            )
            .join(' · ')}
        </p>
      )}
    </div>
  );
}

/** What ends a step: its minutes, the beans, or something that is noticed. */
function Until({ at }: { at: string }) {
  const show = useShow();
  const { form, units } = useRecordFields();
  const until = useTyped<{ what: string; sign: string; beanC: string }>(`${at}.until`);
  const sure = typedOf(
    programStep.shape.until,
    { what: 'bean', beanC: show.toCelsius(Math.round(show.fromCelsius(118))) },
    units,
  );
  const set = (value: object): void => form.setValue(`${at}.until`, value, { shouldDirty: true, shouldValidate: true });
  return (
    <SelectBox
      className="col-span-3 md:col-span-1"
      label="Until"
      value={until.what === 'sign' ? until.sign : until.what}
      options={[
        ['', 'the minutes are over'],
        ['bean', 'the beans have …'],
        ...[...new Set([...SIGNS, ...(until.what === 'sign' ? [until.sign] : [])])].map(
          (sign) => [sign, `“${sign}”`] as const,
        ),
      ]}
      onChange={(value) =>
        set(
          value === ''
            ? { ...until, what: '' }
            : value === 'bean'
              ? { ...(sure as object), ...(until.beanC === '' ? {} : { beanC: until.beanC }) }
              : { ...until, what: 'sign', sign: value },
        )
      }
    />
  );
}

/** Steps in figures: the same as the line. */
export function StepsTable({
  count,
  split,
  remove,
}: {
  count: number;
  split: (index: number) => void;
  remove: (index: number) => void;
}) {
  return (
    <ol className="rows mt-4">
      {Array.from({ length: count }, (_, index) => (
        <Step key={index} index={index} only={count === 1} split={() => split(index)} remove={() => remove(index)} />
      ))}
    </ol>
  );
}

function Step({ index, only, split, remove }: { index: number; only: boolean; split: () => void; remove: () => void }) {
  const at = `steps.${index}`;
  const what = useTyped(`${at}.until.what`);
  return (
    <li className="grid grid-cols-[2rem_1fr_1fr] items-start gap-x-4 gap-y-2 py-3 md:grid-cols-[2rem_6.5rem_6.5rem_minmax(0,1fr)_minmax(0,1fr)_auto]">
      <span className="figure pt-6 text-2xl text-soft">{index + 1}</span>
      <Field at={`${at}.setC`} />
      <Field at={`${at}.minutes`} label={what === '' ? 'For' : 'At most'} />
      <Until at={at} />
      <div className="col-span-3 flex items-start gap-3 md:col-span-1">
        {what === 'bean' && <Field at={`${at}.until.beanC`} className="w-24" />}
        <Field at={`${at}.note`} className="min-w-0 flex-1" />
      </div>
      <span className="col-span-3 flex gap-1 md:col-span-1 md:pt-5">
        <button
          type="button"
          className="button button-quiet"
          aria-label={`Split step ${index + 1} in two`}
          onClick={split}
        >
          <ArrowsSplitIcon size={20} aria-hidden />
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-label={`Take step ${index + 1} out`}
          disabled={only}
          onClick={remove}
        >
          <TrashIcon size={20} aria-hidden />
        </button>
      </span>
    </li>
  );
}
