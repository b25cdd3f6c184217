import type { LoadView } from '@wunsch/core/api/roast';
import { isSure } from '../parts/asking';
import { send } from '../parts/api';
import { useDraft } from '../parts/draft';
import { Box, NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

/** What the panel says of the load, or of the bars made of it. */
export function LoadScores({ load }: { load: LoadView }) {
  const { personId } = useHere();
  const show = useShow();
  const draft = useDraft(`roast-score.${load.code}`, () => ({ score: '', note: '' }));
  const { busy, error, run, fail } = useSave();
  const { score, note } = draft.value;
  const value = readNumber(score);
  const wrong = value !== null && (value < 0 || value > 10) ? 'is from 0 to 10' : undefined;
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (value === null || wrong !== undefined) return;
    void run(() =>
      send('POST', `/api/roast/loads/${load.code}/scores`, { personId, score: value, note }, draft.key),
    ).then((done) => done && draft.clear());
  };
  return (
    <Section title="How it tasted" aside={load.score === null ? undefined : `mean ${load.score.toFixed(1)} of 10`}>
      {load.scores.length > 0 && (
        <ul className="rows text-sm">
          {load.scores.map((row, index) => (
            <li key={index} className="flex gap-3 py-1.5">
              <span className="figure w-8 text-lg">{row.score}</span>
              <span className="flex-1">
                {row.note !== '' && `${row.note} `}
                <span className="text-soft">
                  {row.person}, {row.from}, {show.day(row.at)}
                </span>
              </span>
            </li>
          ))}
        </ul>
      )}
      <form
        className="mt-2 grid grid-cols-[5rem_minmax(0,1fr)_auto] items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <NumberBox
          label="Of 10"
          value={score}
          problem={wrong}
          onChange={(text) => draft.set((now) => ({ ...now, score: text }))}
        />
        <Box label="In words" value={note} onChange={(text) => draft.set((now) => ({ ...now, note: text }))} />
        <button type="submit" className="button" disabled={busy || score.trim() === ''}>
          Add
        </button>
      </form>
      <Refusal error={error} />
    </Section>
  );
}

/** A judgement can be overruled with a word, and the word is kept. */
export function LoadWords({ load }: { load: LoadView }) {
  const { personId } = useHere();
  const show = useShow();
  const draft = useDraft(`roast-word.${load.code}`, () => '');
  const { busy, error, run, fail } = useSave();
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() =>
      send('POST', `/api/roast/loads/${load.code}/words`, { personId, word: draft.value }, draft.key),
    ).then((done) => done && draft.clear());
  };
  return (
    <Section title="Your word">
      {load.words.map(({ word, person, at }, index) => (
        <p key={index} className="mb-2">
          “{word}”{' '}
          <span className="text-sm text-soft">
            {person}, {show.day(at)}
          </span>
        </p>
      ))}
      <form
        className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Box
          label="You know better, or more"
          value={draft.value}
          onChange={(text) => draft.set(() => text)}
          placeholder="the probe had slipped"
        />
        <button type="submit" className="button" disabled={busy || draft.value.trim().length < 2}>
          Keep it
        </button>
      </form>
      <Refusal error={error} />
    </Section>
  );
}

/** A curve from a file may have been the wrong file. */
export function RemoveCurve({ code }: { code: string }) {
  const { error, run } = useSave();
  return (
    <>
      <button
        type="button"
        className="button button-quiet"
        onClick={() => {
          const what = 'It came from a file. The load itself stays.';
          void isSure({ title: `Take the curve of ${code} off again?`, what, yes: 'Take it off' }).then(
            (sure) => sure && run(() => send('DELETE', `/api/roast/loads/${code}/curve`)),
          );
        }}
      >
        Take the curve off: it was another file
      </button>
      <Refusal error={error} />
    </>
  );
}
