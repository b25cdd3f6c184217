import { useState } from 'react';
import type { GrindView } from '@wunsch/core/api/types';
import { untilWords, useNow } from '../app/DueLine';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

/** Acts that are often planned when a bowl begins. */
const OFTEN = ['Lid on', 'Sugar in', 'Rest of the butter', 'Milk powder in', 'Lecithin in', 'Stones up', 'Look again'];

/** What is meant to be done with a batch, ahead of time: each stands on the due line and is done by one press. */
export function PlannedActs({ grind: { batch } }: { grind: GrindView }) {
  const { personId } = useHere();
  const show = useShow();
  const now = useNow();
  const { busy, error, run, fail } = useSave();
  const [what, setWhat] = useState('');
  const [when, setWhen] = useState('');
  const acts = batch.acts ?? [];
  const press = (path: string, body: object): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return Promise.resolve(false);
    }
    return run(() => send('POST', `/api/grind/batches/${batch.id}/acts${path}`, { personId, ...body }, newKey()));
  };
  const at = show.instant(when);
  const add = (): void => {
    if (what.trim() === '' || at === undefined) return fail('Say what is to be done, and when.');
    void press('', { what, at }).then((done) => {
      if (!done) return;
      setWhat('');
      setWhen('');
    });
  };
  return (
    <Section title="Planned for it" aside={acts.length === 0 ? 'nothing yet' : undefined}>
      <ul className="rows">
        {acts.map((act) => (
          <li key={act.id} className="flex flex-wrap items-center gap-x-4 py-1.5">
            <span className={`min-w-0 flex-1 ${act.doneAt === null ? '' : 'text-soft line-through'}`}>{act.what}</span>
            <span className="text-sm text-soft">{show.moment(act.at)}</span>
            {act.doneAt === null ? (
              <>
                <strong className={act.at < now ? 'text-crimson' : 'text-leaf'}>{untilWords(act.at, now)}</strong>
                <button
                  type="button"
                  className="button"
                  disabled={busy}
                  onClick={() => void press(`/${act.id}`, { done: true })}
                >
                  Done
                </button>
                <button
                  type="button"
                  className="button button-quiet"
                  disabled={busy}
                  onClick={() =>
                    void press(`/${act.id}`, { at: new Date(Math.max(act.at, now) + 3_600_000).toISOString() })
                  }
                >
                  An hour later
                </button>
                <button
                  type="button"
                  className="button button-quiet"
                  disabled={busy}
                  onClick={() => void press(`/${act.id}`, { dropped: true })}
                >
                  Drop it
                </button>
              </>
            ) : (
              <span className="text-sm text-soft">done {show.moment(act.doneAt)}</span>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Box label="What is to be done" value={what} onChange={setWhat} className="min-w-48 flex-1" onEnter={add} />
        <Box label="When" type="datetime-local" value={when} onChange={setWhen} onEnter={add} />
        <button type="button" className="button" disabled={busy} onClick={add}>
          Plan it
        </button>
      </div>
      {batch.recipe && acts.length === 0 && (
        <button
          type="button"
          className="button mt-3"
          disabled={busy}
          onClick={() => {
            if (personId === null) return fail(NOBODY);
            void run(() => send('POST', `/api/grind/batches/${batch.code}/feed`, { personId }, newKey()));
          }}
        >
          Plan the feed by its recipe
        </button>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {OFTEN.map((text) => (
          <button key={text} type="button" className="chip" aria-pressed={what === text} onClick={() => setWhat(text)}>
            {text}
          </button>
        ))}
      </div>
      <Refusal error={error} />
    </Section>
  );
}
