import { useId, useState } from 'react';

const SHOWN = 14;

/** Own words: the usual ones by a press, any other by typing; a new one joins the list. */
export function WordPicker({
  words,
  chosen,
  choose,
  label,
  verb = 'Add it',
}: {
  /** The vocabulary, the most used first. */
  words: readonly string[];
  chosen: readonly string[];
  choose: (word: string) => void;
  label: string;
  verb?: string;
}) {
  const [text, setText] = useState('');
  const id = useId();
  const typed = text.trim().toLowerCase();
  const fitting = words.filter((word) => word.includes(typed)).slice(0, SHOWN);
  const take = (word: string): void => {
    choose(word);
    setText('');
  };
  return (
    <div>
      <label htmlFor={id} className="label">
        {label}
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          className="entry"
          autoComplete="off"
          maxLength={40}
          placeholder="type a word of your own"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || typed === '') return;
            event.preventDefault();
            take(typed);
          }}
        />
        <button type="button" className="button whitespace-nowrap" disabled={typed === ''} onClick={() => take(typed)}>
          {verb}
        </button>
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {fitting.map((word) => (
          <button
            key={word}
            type="button"
            className="chip px-3!"
            aria-pressed={chosen.includes(word)}
            onClick={() => take(word)}
          >
            {word}
          </button>
        ))}
      </div>
    </div>
  );
}
