import { lazy, Suspense, useState } from 'react';
import type { CurvePreviewView } from '@wunsch/core/api/roast';
import {
  COLUMN_ROLES,
  TIME_FORMS,
  type ColumnRole,
  type CurveWish,
  type TimeForm,
} from '@wunsch/core/roast/curve-file';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { FilePick } from '../parts/FilePick';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { curveLines } from './lines';
import { SelectBox } from '../parts/choice';

const RoastChart = lazy(() => import('../charts/RoastChart'));

const ROLE_NAMES: Record<ColumnRole, string> = {
  time: 'the time',
  bean: 'bean temperature',
  air: 'air temperature',
  none: 'left out',
};
const TIME_NAMES: Record<TimeForm, string> = {
  seconds: 'seconds',
  minutes: 'minutes',
  milliseconds: 'milliseconds',
  clock: 'a clock, 14:05:30',
  elapsed: 'minutes and seconds, 5:30',
  date: 'date and time',
};
const MOST_BYTES = 11_000_000;

/** The curve of a load from any logger's table: recognised, shown, put right, then taken in whole. */
export function CurveImport({ code }: { code: string }) {
  const { personId, view } = useHere();
  const show = useShow();
  const [text, setText] = useState<string | null>(null);
  const [key, setKey] = useState(newKey);
  const [preview, setPreview] = useState<CurvePreviewView | null>(null);
  const { busy, error, run, fail } = useSave();
  const look = (table: string, mapping?: CurveWish): Promise<boolean> =>
    run(async () => {
      const { data } = await send('POST', '/api/roast/curves/preview', {
        text: table,
        ...(mapping ? { mapping } : {}),
      });
      setPreview(data);
    });
  const choose = async (file: File): Promise<void> => {
    setPreview(null);
    if (file.size > MOST_BYTES) return fail(`${file.name} is larger than 11 MB: is it one roast?`);
    const table = await file.text();
    setText(table);
    setKey(newKey());
    await look(table);
  };
  const again = (part: Partial<CurveWish>): void => {
    if (text !== null && preview) void look(text, { ...preview.mapping, ...part });
  };
  const take = (leaveOut: boolean): void => {
    if (personId === null) return fail(NOBODY);
    if (!preview || text === null) return;
    void run(() =>
      send('POST', `/api/roast/loads/${code}/curve`, { text, mapping: preview.mapping, leaveOut, personId }, key),
    );
  };
  return (
    <Section title="No curve of it yet">
      <p className="max-w-2xl text-soft">
        Bring in the table of your logger (CSV; comma, semicolon or tab): one column of time, one or two of temperature.
        Time may be seconds, a clock or a date; °C or °F. Nothing is taken in before you have seen it.
      </p>
      <FilePick
        label="Table of a logger"
        accept=".csv,.tsv,.txt,text/csv"
        disabled={busy}
        main={!preview}
        onPick={(file) => void choose(file)}
      >
        {preview ? 'Another table' : 'Choose a table'}
      </FilePick>
      <Refusal error={error} />
      {preview && (
        <div className="mt-6">
          <p className="figure text-2xl leading-tight">
            {count(preview.rows)} readings over {preview.minutes.toFixed(1)} min
            {preview.startsAt !== null && `, from ${preview.startsAt}`}
            {preview.badCount > 0 && (
              <span className="text-crimson">
                ; {preview.badCount === 1 ? 'one row cannot be read' : `${preview.badCount} rows cannot be read`}
              </span>
            )}
          </p>
          <p className="mt-1 text-soft">
            Taken for °{preview.mapping.unit}: {preview.unitWhy}.
            {preview.gaps.length > 0 &&
              ` ${preview.gaps.length === 1 ? 'One gap stays a gap' : `${preview.gaps.length} gaps stay gaps`}.`}
          </p>
          <div className="mt-4 flex flex-wrap items-end gap-x-5 gap-y-3">
            {preview.columns.map(({ name, samples }, index) => (
              <SelectBox
                key={index}
                className="w-44"
                label={`${name}: ${samples.join(', ')}`}
                value={preview.mapping.roles[index] ?? 'none'}
                options={COLUMN_ROLES.map((role) => [role, ROLE_NAMES[role]] as const)}
                onChange={(role) =>
                  again({
                    roles: preview.mapping.roles.map((old, i) =>
                      i === index ? role : role !== 'none' && old === role ? 'none' : old,
                    ),
                  })
                }
              />
            ))}
            <SelectBox
              className="w-44"
              label="The time is"
              value={preview.mapping.time}
              options={TIME_FORMS.map((form) => [form, TIME_NAMES[form]] as const)}
              onChange={(time) => again({ time })}
            />
            <SelectBox
              className="w-28"
              label="In"
              value={preview.mapping.unit}
              options={[
                ['C', '°C'],
                ['F', '°F'],
              ]}
              onChange={(unit) => again({ unit })}
            />
          </div>
          <div className="mt-4">
            <Suspense fallback={<div className="h-[240px]" />}>
              <RoastChart
                caption="As it would come in"
                endMin={Math.ceil(preview.minutes / 5 + 0.05) * 5}
                unit={`°${view.settings.temperatureUnit}`}
                height={240}
                low={0}
                lines={previewLines(preview, show.fromCelsius)}
                stretches={preview.gaps.map(({ fromS, toS }) => ({ from: fromS / 60, to: toS / 60, word: 'not read' }))}
              />
            </Suspense>
          </div>
          {preview.bad.length > 0 && (
            <ul className="mt-3 text-sm text-crimson">
              {preview.bad.slice(0, 12).map(({ line, what }) => (
                <li key={line}>
                  Line {line}: {what}
                </li>
              ))}
              {preview.badCount > 12 && <li>and {preview.badCount - 12} more</li>}
            </ul>
          )}
          <div className="mt-4 flex flex-wrap gap-3">
            <button
              type="button"
              className="button button-main"
              disabled={busy || preview.badCount > 0}
              onClick={() => take(false)}
            >
              Take it in for {code}
            </button>
            {preview.badCount > 0 && (
              <button type="button" className="button" disabled={busy} onClick={() => take(true)}>
                Leave {preview.badCount === 1 ? 'that row' : `those ${preview.badCount} rows`} out and take the rest in
              </button>
            )}
          </div>
        </div>
      )}
    </Section>
  );
}

function previewLines({ curve }: CurvePreviewView, out: (c: number) => number) {
  const { bean, air } = curveLines(curve, out);
  return [
    ...(air.length > 0 ? [{ name: 'air', look: 'air' as const, points: air }] : []),
    { name: 'beans', look: 'bean' as const, points: bean },
  ];
}
