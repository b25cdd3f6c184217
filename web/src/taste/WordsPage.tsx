import { useState } from 'react';
import { send, useApi } from '../parts/api';
import { Box, Chips } from '../parts/fields';
import { Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { capital } from '../parts/words';
import { useHere } from '../parts/workshop';
import { TasteHead } from './TasteNav';

/** The workshop's own words: which come up where, and near words joined. */
export function WordsPage() {
  const { personId } = useHere();
  const answer = useApi('/api/taste/words');
  const { busy, error, run, fail } = useSave();
  const [find, setFind] = useState('');
  const [picked, setPicked] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const groups = answer.data?.groups ?? [];
  const group = chosen ?? groups[0]?.group ?? null;
  const up = useApi(group === null ? null : `/api/taste/words/of?group=${encodeURIComponent(group)}`).data;
  if (!answer.data) return <Loading error={answer.error} />;
  const { words } = answer.data;
  const act = (body: object): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      await send('POST', '/api/taste/words', { personId, act: body });
      await answer.mutate();
      setPicked(null);
    });
  };
  const typed = find.trim().toLowerCase();
  const shown = words.filter(({ word, near }) => [word, ...near].some((row) => row.includes(typed)));
  return (
    <>
      <TasteHead title="Words">
        Your own: they begin small and plain and grow as you taste. Near words are joined; what was said stays as said.
      </TasteHead>
      {groups.length > 0 && group !== null && (
        <Section title="What comes up" id="up">
          <Chips
            legend="For this bean, this roast, this age"
            options={groups.map((row) => [row.group, `${capital(row.group)} (${row.impressions})`] as const)}
            chosen={[group]}
            choose={([next]) => setChosen(next ?? null)}
          />
          <ul className="mt-3 grid gap-x-8 md:grid-cols-2">
            {(up?.words ?? []).slice(0, 16).map(({ word, here, of, elsewhere, own }) => (
              <li key={word} className="grid grid-cols-[8rem_minmax(0,1fr)_auto] items-center gap-3 py-1">
                <span className={own ? 'font-semibold' : ''}>{word}</span>
                <span className="h-2 rounded-full bg-sunk" aria-hidden>
                  <span
                    className={`block h-full rounded-full ${own ? 'bg-leaf' : 'bg-rule'}`}
                    style={{ width: `${(100 * here) / of}%` }}
                  />
                </span>
                <span className="text-sm text-soft">
                  {here} of {of}
                  {elsewhere !== null && `, elsewhere ${Math.round(100 * elsewhere)}\u00a0%`}
                </span>
              </li>
            ))}
          </ul>
          {up?.words.length === 0 && <p className="mt-2 text-soft">No words yet for these.</p>}
          {(up?.words.length ?? 0) > 0 && (
            <p className="mt-1 text-sm text-soft">
              Green: comes up here more than elsewhere, beyond chance (one time in twenty).
            </p>
          )}
        </Section>
      )}
      <Section title="All words" id="all" aside={`${words.length}`}>
        <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_auto] sm:items-end">
          <Box label="Find a word, or type a new one" value={find} onChange={setFind} />
          <button
            type="button"
            className="button"
            disabled={busy || typed === '' || words.some(({ word, near }) => word === typed || near.includes(typed))}
            onClick={() => act({ kind: 'word', word: typed })}
          >
            Add it
          </button>
        </div>
        <p className="mt-2 min-h-6 text-soft" role="status">
          {picked === null
            ? 'Press a word, then the one that says the same better.'
            : `“${picked}” means the same as … press the other word.`}
        </p>
        <ul className="mt-1 flex flex-wrap gap-2">
          {shown.map(({ word, near, uses }) => (
            <li key={word}>
              <button
                type="button"
                className="chip"
                aria-pressed={picked === word}
                disabled={busy}
                onClick={() =>
                  picked === null || picked === word
                    ? setPicked(picked === word ? null : word)
                    : act({ kind: 'join', word: picked, into: word })
                }
              >
                {word}
                {near.length > 0 && <span className="text-sm opacity-75">and {near.join(', ')}</span>}
                {uses > 0 && <span className="figure text-sm">{uses}</span>}
              </button>
              {near.map((other) => (
                <button
                  key={other}
                  type="button"
                  className="button button-quiet"
                  disabled={busy}
                  onClick={() => act({ kind: 'part', word: other })}
                >
                  part {other}
                </button>
              ))}
            </li>
          ))}
        </ul>
        <Refusal error={error} />
      </Section>
    </>
  );
}
