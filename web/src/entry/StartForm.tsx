import type { HoldingView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import type { Station } from '@wunsch/core/work/stations';
import { send } from '../parts/api';
import { readNumber, unreadable } from '../parts/number';
import type { EnteredStep } from '@wunsch/core/api/types';
import { StepForm } from './StepForm';

interface Props {
  station: Station;
  kind: Command['kind'];
  candidates: readonly HoldingView[];
  submit: string;
  shownFirst: number;
  /** Grams that usually go in. */
  usualInG: number | null;
  onStarted: (workId: string) => void;
}

const wrongMinutes = (text: string): string | undefined =>
  unreadable(text) ?? (text.trim() !== '' && (readNumber(text) ?? 0) <= 0 ? 'is not more than 0' : undefined);

/** Weigh in and begin: the grams stay where they were in the book until the work is weighed out. */
export function StartForm({ station, kind, candidates, submit, shownFirst, usualInG, onStarted }: Props) {
  return (
    <StepForm
      kind={kind}
      specs={[]}
      station={station}
      draftId={`start.${station}`}
      candidates={candidates}
      initialPicked={candidates.length === 1 && candidates[0] ? [candidates[0].id] : []}
      submit={submit}
      shownFirst={shownFirst}
      usualInG={usualInG}
      problem={({ choices = {} }) => {
        const wrong = wrongMinutes(choices['minutes'] ?? '');
        return wrong === undefined ? null : `Minutes until somebody is needed: ${wrong}.`;
      }}
      finish={(_, _sources, { choices = {} }) => ({ minutes: readNumber(choices['minutes'] ?? '') ?? 0 })}
      send={async (entry) => {
        const planned = Number(entry.values['minutes'] ?? 0);
        const dueAt = planned > 0 ? new Date(Date.now() + planned * 60_000).toISOString() : null;
        const { data } = await send(
          'POST',
          '/api/ledger/works',
          {
            station,
            sources: entry.sources,
            machineId: entry.machineId,
            personId: entry.personId,
            dueAt,
            ...(entry.at === undefined ? {} : { at: entry.at }),
            ...(entry.overrides.length > 0 ? { overrides: entry.overrides } : {}),
            note: '',
          },
          entry.key,
        );
        onStarted(data.id);
        return null as EnteredStep | null;
      }}
      head={({ choices, choose }) => {
        const minutes = choices['minutes'] ?? '';
        const wrong = wrongMinutes(minutes);
        return (
          <label className="label mt-4 flex flex-wrap items-center gap-3">
            Somebody is needed again in
            <input
              className="entry w-24!"
              inputMode="decimal"
              value={minutes}
              onChange={(event) => choose('minutes', event.target.value)}
              placeholder="–"
              aria-invalid={wrong !== undefined}
            />
            minutes
            {wrong !== undefined && <span className="text-sm font-semibold text-crimson">{wrong}</span>}
          </label>
        );
      }}
    />
  );
}
