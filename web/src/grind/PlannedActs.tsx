import { useState } from 'react';
import type { ActView } from '@wunsch/core/api/grind';
import type { GrindView } from '@wunsch/core/api/types';
import { ACTS } from '@wunsch/core/grind/acts';
import { ACT_KINDS, type ActKind } from '@wunsch/core/ledger/types';
import { useNow } from '../app/DueLine';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { SelectBox } from '../parts/choice';
import { Box, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { ActOnLane, DueWords, LaneHead, laneOf } from './ActsLane';
import type { Told } from './Foretold';
import { useRun } from './useRun';
import { MomentBox } from '../parts/dates';

/** What is meant to be done with a batch, ahead of time: each stands on the due line, is moved by dragging and done by one press. */
export function PlannedActs({ grind, told }: { grind: GrindView; told: Told | null }) {
  const { batch } = grind;
  const { personId } = useHere();
  const show = useShow();
  const now = useNow();
  const { busy, error, run, fail } = useSave();
  const found = useRun(grind);
  const acts = found?.acts ?? [];
  const open = acts.filter(({ doneAt }) => doneAt === null);
  const done = acts.filter(({ doneAt }) => doneAt !== null);
  const lane = laneOf(acts, now);
  const press = (
    path: `${string}/acts` | `${string}/acts/${string}` | `${string}/usual` | `${string}/feed`,
    body: object,
  ): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return Promise.resolve(false);
    }
    return run(() => send('POST', `/api/grind/batches/${path}`, { personId, ...body }));
  };
  const change = (act: ActView, body: object): Promise<boolean> => press(`${batch.id}/acts/${act.id}`, body);
  return (
    <Section title="Planned for it" aside={acts.length === 0 ? 'nothing yet' : undefined}>
      {open.length > 0 && (
        <div className="sm:mr-22 sm:ml-[17.5rem]">
          <LaneHead lane={lane} />
        </div>
      )}
      <ul className="rows">
        {open.map((act) => (
          <li key={act.id} className="py-1.5 sm:grid sm:grid-cols-[17rem_minmax(0,1fr)] sm:items-start sm:gap-x-2">
            <div className="flex items-center gap-2">
              <button
                type="button"
                className="button shrink-0 px-3!"
                disabled={busy}
                aria-label={`Done: ${act.what}`}
                onClick={() => void change(act, { done: true })}
              >
                Done
              </button>
              <span className="min-w-0">
                <span className="block">{act.what}</span>
                <DueWords act={act} told={told} now={now} />
              </span>
            </div>
            <div className="flex items-start">
              <div className="min-w-0 flex-1">
                <ActOnLane
                  act={act}
                  lane={lane}
                  told={told}
                  busy={busy}
                  move={(at) => change(act, { at: new Date(at).toISOString() })}
                />
              </div>
              <button
                type="button"
                className="button button-quiet"
                disabled={busy}
                aria-label={`Drop: ${act.what}`}
                onClick={() => void change(act, { dropped: true })}
              >
                Drop it
              </button>
            </div>
          </li>
        ))}
      </ul>
      {done.length > 0 && (
        <p className="mt-2 text-sm text-soft">
          Done:{' '}
          {done.map((act, index) => (
            <span key={act.id}>
              {index > 0 && '; '}
              {act.what} {show.moment(act.doneAt ?? 0)}{' '}
              <button
                type="button"
                className="link min-h-8"
                aria-label={`Not done after all: ${act.what}`}
                disabled={busy}
                onClick={() => void change(act, { done: false })}
              >
                not after all
              </button>
            </span>
          ))}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {grind.machine?.coarse !== true && grind.machine?.conches !== true && (
          <button
            type="button"
            className="button"
            disabled={busy}
            onClick={() => void press(`${batch.code}/usual`, {})}
          >
            Plan the usual acts
          </button>
        )}
        {batch.recipe && !acts.some(({ kind = 'other' }) => ACTS[kind].solid !== null) && (
          <button type="button" className="button" disabled={busy} onClick={() => void press(`${batch.code}/feed`, {})}>
            Plan the feed by its recipe
          </button>
        )}
      </div>
      <OneMore acts={acts} batchId={batch.id} busy={busy} add={(body) => press(`${batch.id}/acts`, body)} fail={fail} />
      <Refusal error={error} />
    </Section>
  );
}

const WAYS = [
  ['clock', 'at a time'],
  ['running', 'after running hours'],
  ['reading', 'once it is as fine as'],
  ['act', 'after another act'],
] as const;
type Way = (typeof WAYS)[number][0];

interface Typed {
  kind: ActKind;
  what: string;
  way: Way;
  when: string;
  figure: string;
  after: string;
}
const NOTHING: Typed = { kind: 'other', what: '', way: 'clock', when: '', figure: '', after: '' };

/** Plans one more act; half typed it survives a reload. */
function OneMore({
  acts,
  batchId,
  busy,
  add,
  fail,
}: {
  acts: readonly ActView[];
  batchId: string;
  busy: boolean;
  add: (body: object) => Promise<boolean>;
  fail: (message: string) => void;
}) {
  const show = useShow();
  const draft = useDraft<Typed>(`act.${batchId}`, () => NOTHING);
  const [wrong, setWrong] = useState<string | undefined>(undefined);
  const { kind, what, way, when, figure, after } = draft.value;
  const set = (next: Partial<Typed>): void => {
    setWrong(undefined);
    draft.set((now) => ({ ...now, ...next }));
  };
  const name = what.trim() === '' ? ACTS[kind].words : what;
  const plan = (): void => {
    if (name === '') return fail('Say what is to be done.');
    const at = show.instant(when);
    const number = readNumber(figure);
    if (way === 'clock' && at === undefined) return fail('Say when it is to be done.');
    if (way !== 'clock' && (number === null || number < 0)) return setWrong('is not a number');
    if (way === 'act' && after === '') return fail('Say after which act.');
    const waits =
      way === 'running'
        ? { by: way, hours: number }
        : way === 'reading'
          ? { by: way, micron: number }
          : way === 'act'
            ? { by: way, actId: after, minutes: number }
            : undefined;
    void add({ what: name, kind, ...(waits ? { waits } : { at }) }).then((done) => done && draft.clear());
  };
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3" role="group" aria-label="Plan one more act">
      <SelectBox
        className="w-48"
        label="Act"
        value={kind}
        options={ACT_KINDS.map((id) => [id, id === 'other' ? 'Something else' : ACTS[id].words] as const)}
        onChange={(id) => set({ kind: id })}
      />
      <Box
        label={kind === 'other' ? 'What is to be done' : 'In other words, if you like'}
        value={what}
        onChange={(text) => set({ what: text })}
        className="min-w-48 flex-1"
        onEnter={plan}
      />
      <SelectBox
        className="w-44"
        label="When"
        value={way}
        options={WAYS.filter(([id]) => id !== 'act' || acts.length > 0)}
        onChange={(id) => set({ way: id })}
      />
      {way === 'clock' && (
        <MomentBox label="Time" value={when} onChange={(text) => set({ when: text })} onEnter={plan} />
      )}
      {way === 'act' && (
        <SelectBox
          className="w-48"
          label="After which"
          value={after}
          options={[['', 'Choose'] as const, ...acts.map((act) => [act.id, act.what] as const)]}
          onChange={(id) => set({ after: id })}
        />
      )}
      {way !== 'clock' && (
        <NumberBox
          className="w-32"
          label={way === 'running' ? 'Hours' : way === 'reading' ? 'Fineness' : 'Minutes after'}
          unit={way === 'running' ? 'h' : way === 'reading' ? 'µm' : 'min'}
          value={figure}
          problem={wrong}
          onChange={(text) => set({ figure: text })}
        />
      )}
      <button type="button" className="button" disabled={busy} onClick={plan}>
        Plan it
      </button>
    </div>
  );
}
