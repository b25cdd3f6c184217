import type { Answer } from '@wunsch/core/recipe/solve';

/** Whether what is wanted can be, why not, and what is nearest: the answer before everything else. */
export function Answering({ answer, by }: { answer: Answer | null; by: 'targets' | 'grams' }) {
  if (by === 'grams' || answer === null) return null;
  const { outcome, conflict, further, giveUp, notes, lines } = answer;
  const good = outcome === 'met';
  if (good && notes.length === 0)
    return (
      <p aria-live="polite" className="figure rounded-md bg-leaf-wash px-4 py-2 text-lg">
        All that is wanted is met.
      </p>
    );
  const sets = [conflict, ...further].filter((set) => set.length > 0);
  const anyOne = giveUp.length === conflict.length && giveUp.every((group) => group.length === 1);
  return (
    <section
      aria-label="Whether it can be"
      aria-live="polite"
      className={`rounded-md px-4 py-3 ${good ? 'bg-leaf-wash' : 'bg-ripe-wash'}`}
    >
      <p className="figure text-[1.35rem] leading-snug">
        {good
          ? 'All that is wanted is met.'
          : sets.length === 0
            ? 'This is as near as it comes.'
            : outcome === 'near'
              ? 'Not all of it at once: this is the nearest.'
              : lines.length === 0
                ? 'That cannot be.'
                : 'That contradicts itself: this is the nearest that can be.'}
      </p>
      {sets.map((set, index) => (
        <div key={index} className="mt-2 text-sm">
          <p>
            {set.length === 1
              ? 'With these ingredients there is no'
              : index === 0
                ? anyOne
                  ? 'These cannot be kept together; give up any one of them:'
                  : 'These cannot be kept together:'
                : 'And so do these:'}
          </p>
          <ul className="mt-1 list-disc pl-5 font-semibold">
            {set.map(({ id, words }) => (
              <li key={id}>{words}</li>
            ))}
          </ul>
        </div>
      ))}
      {!anyOne && giveUp.length > 0 && (
        <p className="mt-2 text-sm">
          {giveUp[0]?.length === 1 ? 'Enough to give up: ' : 'To give up at the least, together: '}
          <strong>
            {giveUp[0]?.length === 1
              ? giveUp.map((group) => group.map(({ words }) => words).join(', ')).join('; or ')
              : giveUp.flatMap((group) => group.map(({ words }) => words)).join(' and ')}
          </strong>
          .
        </p>
      )}
      {notes.map((note) => (
        <p key={note} className="mt-2 text-sm">
          {note}
        </p>
      ))}
    </section>
  );
}
