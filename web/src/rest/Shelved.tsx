import { useState } from 'react';
import type { RestShelf } from '@wunsch/core/api/grind';
import type { FieldSpec } from '../entry/entry';
import { StepForm } from '../entry/StepForm';
import { send } from '../parts/api';
import { Chips } from '../parts/fields';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { DayBox } from '../parts/dates';
import { fieldsFor } from '../entry/fields-for';

const WEEK_MS = 7 * 86_400_000;
const WEEKS = [1, 2, 3, 4, 6, 8].map((weeks) => [String(weeks), weeks === 1 ? 'one week' : `${weeks} weeks`] as const);
const SCORES = Array.from({ length: 11 }, (_, score) => [String(score), String(score)] as const);
const FIELDS: FieldSpec[] = [
  ...fieldsFor(
    'reading',
    ['air.tempC', { name: 'airTemp', label: 'Shelf', optional: true }],
    ['air.humidityPct', { name: 'airHumidity', label: 'Its humidity', optional: true }],
    'note',
  ),
];

/** One batch of blocks: how it tastes on its way, and when it is meant to come off. */
export function Shelved({ batch, since }: { batch: RestShelf['batches'][number]; since: number }) {
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  const [day, setDay] = useState('');
  const until = (at: number | null): void => {
    if (personId === null) return fail(NOBODY);
    void run(() =>
      send('POST', `/api/rest/batches/${batch.code}/until`, {
        personId,
        until: at === null ? null : new Date(at).toISOString(),
      }),
    );
  };
  const weeks = batch.restUntil === null ? null : String(Math.round((batch.restUntil - since) / WEEK_MS));
  return (
    <div className="mt-3 grid gap-5 border-l-4 border-rule pl-4">
      <StepForm
        kind="reading"
        station={null}
        specs={FIELDS}
        draftId={`rest-taste.${batch.batchId}`}
        problem={({ choices = {} }) => (choices['score'] === undefined ? 'Say how good it is, 0 to 10.' : null)}
        before={({ choices, choose }) => (
          <div className="mb-3">
            <Chips
              legend="How good is it now, 0 to 10"
              options={SCORES}
              chosen={[choices['score'] ?? '']}
              choose={([next]) => choose('score', next ?? '')}
            />
          </div>
        )}
        submit="Save the tasting"
        finish={({ airTemp, airHumidity, ...values }, _sources, { choices = {} }) => ({
          note: '',
          ...values,
          batchId: batch.batchId,
          what: 'rest-taste',
          value: Number(choices['score']),
          ...(typeof airTemp === 'number'
            ? { air: { tempC: airTemp, humidityPct: typeof airHumidity === 'number' ? airHumidity : null } }
            : {}),
        })}
      />
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <Chips
          legend="Meant to rest for"
          options={WEEKS}
          chosen={weeks === null ? [] : [weeks]}
          choose={([next]) => until(since + Number(next ?? 2) * WEEK_MS)}
        />
        <div className="flex flex-wrap items-end gap-3">
          <DayBox label="Or until" value={day} onChange={setDay} />
          <button
            type="button"
            className="button"
            disabled={busy}
            onClick={() => {
              const at = show.instant(`${day}T09:00`);
              if (at === undefined) return fail('Say until which day.');
              until(Date.parse(at));
            }}
          >
            Plan it
          </button>
          {batch.restUntil !== null && (
            <button type="button" className="button button-quiet" disabled={busy} onClick={() => until(null)}>
              As usual
            </button>
          )}
        </div>
        <Refusal error={error} />
      </div>
      {batch.tastings.length > 0 && (
        <ul className="rows text-sm">
          {batch.tastings.map(({ stepId, at, restedDays, score, air, note, person }) => (
            <li key={stepId} className="flex flex-wrap gap-x-3 py-1">
              <strong className="figure">{score}</strong>
              <span>{restedDays.toFixed(0)} d</span>
              <span className="text-soft">
                {show.day(at)}, {person}
                {air === null
                  ? ''
                  : `, ${show.temp(air.tempC)}${air.humidityPct === null ? '' : ` and ${air.humidityPct}\u00a0%`}`}
                {note === '' ? '' : `: ${note}`}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
