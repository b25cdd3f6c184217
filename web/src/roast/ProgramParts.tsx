import { ArrowsSplitIcon, TrashIcon } from '@phosphor-icons/react';
import type { PlanBand } from '@wunsch/core/roast/band';
import type { ProgramStep } from '@wunsch/core/roast/records';
import { SIGNS } from '@wunsch/core/roast/words';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Figure } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { minutesWords, rangeWords } from './words';
import { SelectBox } from '../parts/choice';

/** What a program comes to, in figures with their range. */
export function Figures({ band, massG, moisture }: { band: PlanBand | null; massG: number; moisture: number }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  if (!band) return <p className="min-h-24 text-soft">Working it out …</p>;
  const degree = `°${temperatureUnit}`;
  const temp = (value: number): string => `${Math.round(show.tempOut(value))}°`;
  const loss = (left: number): string => `${(100 * (1 - left)).toFixed(1)} %`;
  const { weightLeft } = band;
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
      <Figure
        small
        label="Beans come out at"
        value={`${Math.round(show.tempOut(band.endC.mid))}\u00a0${degree}`}
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
        value={`${(100 * band.moistureOut.mid).toFixed(1)} %`}
        note={`of ${moisture} % going in`}
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

/** What stands in a field while it is typed: `7.` is read as 7 and must stay `7.`. */
export interface Typed {
  text: string;
  bad: boolean;
}
export type Texts = Record<string, Typed>;

interface CellProps {
  label: string;
  unit: string;
  name: string;
  value: number | null;
  texts: Texts;
  /** Takes what stands typed and, where it can be read, its value. */
  typed: (name: string, typed: Typed, value: number | null) => void;
  optional?: boolean;
  least?: number;
  most?: number;
}

/** What is wrong with a figure as it is typed. */
export function problemOf(text: string, least: number, most: number, optional: boolean): string | undefined {
  if (text.trim() === '') return optional ? undefined : 'is missing';
  const value = readNumber(text);
  if (value === null) return 'is not a number';
  return value < least ? `is under ${least}` : value > most ? `is over ${most}` : undefined;
}

/** A figure that is also drawn elsewhere: typed here, it moves there; what cannot be read stays as it was typed. */
export function NumberCell({
  label,
  unit,
  name,
  value,
  texts,
  typed,
  optional = false,
  least = 0,
  most = 100_000,
}: CellProps) {
  const text = texts[name]?.text ?? (value === null ? '' : String(value));
  return (
    <NumberBox
      label={label}
      unit={unit}
      value={text}
      problem={texts[name] === undefined ? undefined : problemOf(text, least, most, optional)}
      onChange={(now) => {
        const bad = problemOf(now, least, most, optional) !== undefined;
        typed(name, { text: now, bad }, bad ? null : readNumber(now));
      }}
    />
  );
}

/** Steps in figures: the same as the line. */
export function StepsTable({
  steps,
  texts,
  change,
  split,
  remove,
}: {
  steps: readonly ProgramStep[];
  texts: Texts;
  change: (steps: ProgramStep[], texts: Texts) => void;
  split: (index: number) => void;
  remove: (index: number) => void;
}) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const put = (index: number, part: Partial<ProgramStep>, typed = texts): void =>
    change(
      steps.map((step, i) => (i === index ? { ...step, ...part } : step)),
      typed,
    );
  const type = (
    index: number,
    field: string,
    text: string,
    least: number,
    most: number,
    read: (value: number) => Partial<ProgramStep>,
  ): void => {
    const bad = problemOf(text, least, most, false) !== undefined;
    const typed = { ...texts, [`step.${index}.${field}`]: { text, bad } };
    put(index, bad ? {} : read(readNumber(text) ?? 0), typed);
  };
  const cell = (
    index: number,
    field: string,
    value: number,
    least: number,
    most: number,
    read: (value: number) => Partial<ProgramStep>,
    label: string,
    unit: string,
  ) => {
    const text = texts[`step.${index}.${field}`]?.text;
    return (
      <NumberBox
        label={label}
        unit={unit}
        value={text ?? String(value)}
        problem={text === undefined ? undefined : problemOf(text, least, most, false)}
        onChange={(typed) => type(index, field, typed, least, most, read)}
      />
    );
  };
  const degree = `°${temperatureUnit}`;
  const limits = [show.tempOut(20), show.tempOut(300)] as const;
  return (
    <ol className="rows mt-4">
      {steps.map((step, index) => (
        <li
          key={index}
          className="grid grid-cols-[2rem_1fr_1fr] items-end gap-x-4 gap-y-2 py-3 md:grid-cols-[2rem_6.5rem_6.5rem_minmax(0,1fr)_minmax(0,1fr)_auto]"
        >
          <span className="figure pb-3 text-2xl text-soft">{index + 1}</span>
          {cell(
            index,
            'set',
            Math.round(10 * show.tempOut(step.setC)) / 10,
            ...limits,
            (value) => ({ setC: show.tempIn(value) }),
            'Set to',
            degree,
          )}
          {cell(
            index,
            'minutes',
            step.minutes,
            0.05,
            600,
            (value) => ({ minutes: value }),
            step.until ? 'At most' : 'For',
            'min',
          )}
          <SelectBox
            className="col-span-3 md:col-span-1"
            label="Until"
            value={step.until === null ? '' : step.until.what === 'bean' ? 'bean' : step.until.sign}
            options={[
              ['', 'the minutes are over'],
              ['bean', 'the beans have …'],
              ...[...new Set([...SIGNS, ...(step.until?.what === 'sign' ? [step.until.sign] : [])])].map(
                (sign) => [sign, `“${sign}”`] as const,
              ),
            ]}
            onChange={(value) =>
              put(index, {
                until:
                  value === ''
                    ? null
                    : value === 'bean'
                      ? { what: 'bean', beanC: show.tempIn(Math.round(show.tempOut(118))) }
                      : { what: 'sign', sign: value },
              })
            }
          />
          <div className="col-span-3 flex items-end gap-3 md:col-span-1">
            {step.until?.what === 'bean' &&
              cell(
                index,
                'bean',
                Math.round(10 * show.tempOut(step.until.beanC)) / 10,
                ...limits,
                (value) => ({ until: { what: 'bean', beanC: show.tempIn(value) } }),
                'Beans at',
                degree,
              )}
            <label className="label min-w-0 flex-1">
              Note
              <input
                className="entry text-base! text-ink"
                value={step.note}
                onChange={(event) => put(index, { note: event.target.value })}
              />
            </label>
          </div>
          <span className="col-span-3 flex gap-1 md:col-span-1">
            <button
              type="button"
              className="button button-quiet"
              aria-label={`Split step ${index + 1} in two`}
              onClick={() => split(index)}
            >
              <ArrowsSplitIcon size={20} aria-hidden />
            </button>
            <button
              type="button"
              className="button button-quiet"
              aria-label={`Take step ${index + 1} out`}
              disabled={steps.length === 1}
              onClick={() => remove(index)}
            >
              <TrashIcon size={20} aria-hidden />
            </button>
          </span>
        </li>
      ))}
    </ol>
  );
}
