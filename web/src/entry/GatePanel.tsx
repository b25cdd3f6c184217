import type { Gate } from '@wunsch/core/gates/gate';
import { ApiError } from '../parts/api';
import { useIntoView } from './into-view';

/** The stops that a refusal names; none where it is another refusal. */
export const gatesIn = (error: unknown): Gate[] =>
  error instanceof ApiError && error.problem.code === 'gate/closed'
    ? ((error.problem.facts?.['gates'] ?? []) as Gate[])
    : [];

export interface Answer {
  gate: string;
  word: string;
}

/**
 * A stop: why, what to do instead; and the way past it, by name and with a word that is kept.
 *
 * @param word what is typed of it: it stands with the entry, as that may have to be sent again
 */
export function GatePanel({
  word,
  setWord,
  gates,
  person,
  busy,
  goOn,
}: {
  word: string;
  setWord: (word: string) => void;
  gates: readonly Gate[];
  person: string;
  busy: boolean;
  goOn: (answers: Answer[]) => void;
}) {
  const box = useIntoView<HTMLElement>(gates.map(({ id }) => id).join('+'));
  const enough = word.trim().length >= 3;
  return (
    <section
      ref={box}
      role="alert"
      aria-label="Stop"
      className="mt-4 rounded-md border-2 border-crimson bg-crimson-wash px-4 py-3"
    >
      {gates.map((gate) => (
        <div key={gate.id} className="mb-3">
          <p className="figure text-[1.35rem] leading-snug">Stop. {gate.sentence}</p>
          <p className="mt-1">{gate.why}</p>
          <p className="mt-1 font-semibold">{gate.todo}</p>
        </div>
      ))}
      <label className="label block">
        To go on all the same, say why. It is kept under the name of {person} and stays on the goods.
        <input
          className="entry"
          value={word}
          autoComplete="off"
          onChange={(event) => setWord(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            // Inside the entry's own form: Enter answers the stop, it does not send the entry as it was.
            event.preventDefault();
            event.stopPropagation();
            if (enough) goOn(gates.map(({ id }) => ({ gate: id, word })));
          }}
        />
      </label>
      <button
        type="button"
        className="button mt-3"
        disabled={busy || !enough}
        onClick={() => goOn(gates.map(({ id }) => ({ gate: id, word })))}
      >
        Go on, {person} answers for it
      </button>
    </section>
  );
}
