import { useState } from 'react';
import type { HoldingView, WorkView } from '@wunsch/core/api/types';
import type { Station } from '@wunsch/core/workshop/stations';
import { send } from '../parts/api';
import { readNumber, unreadable } from '../parts/number';
import { StepForm, type Saved } from './StepForm';

interface Props {
  station: Station;
  candidates: readonly HoldingView[];
  submit: string;
  shownFirst: number;
  onStarted: (workId: string) => void;
}

/** Weigh in and begin: the grams stay where they were in the book until the work is weighed out. */
export function StartForm({ station, candidates, submit, shownFirst, onStarted }: Props) {
  const [minutes, setMinutes] = useState('');
  const planned = readNumber(minutes) ?? 0;
  const wrong = unreadable(minutes) ?? (minutes.trim() !== '' && planned <= 0 ? 'is not more than 0' : undefined);
  return (
    <StepForm
      kind="sort"
      specs={[]}
      station={station}
      draftId={`start.${station}`}
      candidates={candidates}
      initialPicked={candidates.length === 1 && candidates[0] ? [candidates[0].id] : []}
      path="/api/ledger/works"
      submit={submit}
      shownFirst={shownFirst}
      problem={() => (wrong === undefined ? null : `Minutes until somebody is needed: ${wrong}.`)}
      finish={() => ({})}
      send={async (entry) => {
        const dueAt = planned > 0 ? new Date(Date.now() + planned * 60_000).toISOString() : null;
        const { data } = await send<WorkView>(
          'POST',
          '/api/ledger/works',
          {
            station,
            sources: entry.sources,
            machineId: entry.machineId,
            personId: entry.personId,
            dueAt,
            ...(entry.at === undefined ? {} : { at: entry.at }),
            note: '',
          },
          entry.key,
        );
        onStarted(data.id);
        return null as Saved | null;
      }}
      head={
        <label className="label mt-4 flex items-center gap-3">
          Somebody is needed again in
          <input
            className="entry w-24!"
            inputMode="decimal"
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
            placeholder="–"
            aria-invalid={wrong !== undefined}
          />
          minutes
          {wrong !== undefined && <span className="text-sm font-semibold text-crimson">{wrong}</span>}
        </label>
      }
    />
  );
}
