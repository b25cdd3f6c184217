import { useState } from 'react';
import type { Judged } from '@wunsch/core/judgement/records';
import { refresh, send, useApi } from './api';
import { useDraft } from './draft';
import { Box } from './fields';
import { Refusal } from './pieces';
import { NOBODY, useSave } from './save';
import { useHere, useShow } from './workshop';

const WORDS = '/api/judgement/words';

interface Props {
  judged: Judged;
  /** What the verdict is about: the id of a step, batch, product, session or trial. */
  subject: string;
  /** The verdict as it reads now. */
  said: string;
}

/** Words of those who know better, under the verdict that they are about; and a line to add one. */
export function Overrule({ judged, subject, said }: Props) {
  const { personId } = useHere();
  const show = useShow();
  const own = (useApi(WORDS).data?.words ?? []).filter((row) => row.judged === judged && row.subject === subject);
  const draft = useDraft(`word.${judged}.${subject}`, () => '');
  const [open, setOpen] = useState(draft.touched);
  const [pressed, setPressed] = useState(false);
  const { busy, error, run, fail } = useSave();
  const keep = (): void => {
    if (personId === null) return fail(NOBODY);
    const body = { personId, judged, subject, said: said.slice(0, 1000), word: draft.value };
    void run(() => send('POST', WORDS, body, draft.key)).then((done) => {
      if (!done) return;
      draft.clear();
      setOpen(false);
      void refresh();
    });
  };
  const takeBack = (id: string): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `${WORDS}/${id}/taken-back`, { personId })).then((done) => done && refresh());
  };
  return (
    <div className="mt-1 text-sm">
      {own.map((row) => (
        <p key={row.id} className="border-l-2 border-ink pl-3">
          “{row.word}”{' '}
          <span className="text-soft">
            {row.person}, {show.day(row.at)}
            {row.said !== said && row.said !== '' && <>, of: {row.said}</>}
          </span>{' '}
          <button type="button" className="link min-h-6" disabled={busy} onClick={() => takeBack(row.id)}>
            take it back
          </button>
        </p>
      ))}
      {open ? (
        <div className="flex flex-wrap items-end gap-3">
          <Box
            className="min-w-52 flex-1"
            label="What you know better"
            value={draft.value}
            onChange={(text) => draft.set(() => text)}
            onEnter={keep}
            autoFocus={pressed}
          />
          <button type="button" className="button" disabled={busy || draft.value.trim().length < 2} onClick={keep}>
            Keep it
          </button>
          <button
            type="button"
            className="button button-quiet"
            onClick={() => {
              draft.clear();
              setOpen(false);
            }}
          >
            Leave it
          </button>
        </div>
      ) : (
        <button
          type="button"
          className="link min-h-8"
          onClick={() => {
            setPressed(true);
            setOpen(true);
          }}
        >
          You know better?
        </button>
      )}
      <Refusal error={error} />
    </div>
  );
}
