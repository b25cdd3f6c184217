import { useEffect, useRef } from 'react';
import { PHASES, type Phase } from '@wunsch/core/taste/records';
import { clockWords, type Impression } from './impression';
import { WordPicker } from './WordPicker';

/** The line is so long at first, s; it grows where somebody takes their time. */
const FIRST_S = 60;
const WORDS: Readonly<Record<Phase, string>> = { opening: 'Opening', middle: 'Middle', finish: 'Finish' };

const lengthOf = (seconds: number): number => Math.max(FIRST_S, 30 * Math.ceil((seconds + 5) / 30));

/** The melt in time: a clock, its line, and notes that drop onto it where they were tasted. */
export function MeltLine({
  value,
  onChange,
  words,
}: {
  value: Impression;
  onChange: (change: (before: Impression) => Impression) => void;
  words: readonly string[];
}) {
  const { meltAt, meltSeconds, notes, phase } = value;
  const runs = meltAt !== null && meltSeconds === null;
  const last = Math.max(meltSeconds ?? 0, ...notes.map(({ second }) => second));
  const line = useRef<HTMLDivElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  // The clock draws by itself, sixty times a second: nothing else of the sheet is drawn for it.
  useEffect(() => {
    if (!runs) return;
    let frame = 0;
    const draw = (): void => {
      const seconds = (Date.now() - meltAt) / 1000;
      line.current?.style.setProperty('transform', `scaleX(${Math.min(1, seconds / lengthOf(seconds))})`);
      const text = clockWords(seconds);
      if (clock.current && clock.current.textContent !== text) clock.current.textContent = text;
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [runs, meltAt]);
  const drop = (word: string): void =>
    onChange((before) => ({
      ...before,
      notes: [
        ...before.notes,
        {
          second:
            before.meltAt === null
              ? 0
              : Math.round(Math.min(3600, before.meltSeconds ?? (Date.now() - before.meltAt) / 1000)),
          phase: before.phase,
          word,
        },
      ].slice(0, 60),
    }));
  const whole = lengthOf(last);
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3">
        <span ref={clock} className="figure w-24 text-4xl" aria-label="Time of the melt">
          {clockWords(meltSeconds ?? 0)}
        </span>
        {meltAt === null ? (
          <button
            type="button"
            className="button button-main"
            onClick={() => onChange((before) => ({ ...before, meltAt: Date.now(), meltSeconds: null }))}
          >
            It is on the tongue
          </button>
        ) : runs ? (
          <button
            type="button"
            className="button"
            onClick={() =>
              onChange((before) => ({
                ...before,
                meltSeconds: Math.min(86_400, Math.round((Date.now() - (before.meltAt ?? Date.now())) / 1000)),
              }))
            }
          >
            It is gone
          </button>
        ) : (
          <button
            type="button"
            className="button button-quiet"
            onClick={() =>
              onChange((before) => ({ ...before, meltAt: null, meltSeconds: null, phase: 'opening', notes: [] }))
            }
          >
            Melt another piece
          </button>
        )}
        <div role="group" aria-label="Where it is" className="flex gap-1.5">
          {PHASES.map((row) => (
            <button
              key={row}
              type="button"
              className="chip px-3!"
              aria-pressed={phase === row}
              onClick={() => onChange((before) => ({ ...before, phase: row }))}
            >
              {WORDS[row]}
            </button>
          ))}
        </div>
      </div>
      <div className="relative mt-3 h-24 rounded-md bg-sunk px-2">
        <div className="absolute inset-x-2 bottom-7 h-1 rounded-full bg-rule" />
        <div
          ref={line}
          className="absolute inset-x-2 bottom-7 h-1 origin-left rounded-full bg-leaf"
          style={{ transform: `scaleX(${runs ? 0 : Math.min(1, (meltSeconds ?? 0) / whole)})` }}
        />
        <ol aria-label="Notes on the line">
          {notes.map(({ second, word, phase: of }, i) => (
            <li
              key={i}
              className="absolute max-w-[45%] text-sm"
              style={{
                // Words that come close stand over each other, never on.
                top: `${4 + (i % 3) * 20}px`,
                ...(second / whole > 0.6
                  ? { right: `${100 - (98 * second) / whole}%` }
                  : { left: `calc(0.5rem + ${(96 * second) / whole}%)` }),
              }}
            >
              <button
                type="button"
                className="block max-w-full truncate rounded bg-sheet px-1.5"
                aria-label={`${word}, ${WORDS[of].toLowerCase()}, at ${clockWords(second)}. Take it off`}
                onClick={() => onChange((before) => ({ ...before, notes: before.notes.filter((_, j) => j !== i) }))}
              >
                {word}
              </button>
              <span
                aria-hidden
                className={`absolute top-full w-px bg-soft ${second / whole > 0.6 ? 'right-0' : 'left-0'}`}
                style={{ height: `${44 - (i % 3) * 20}px` }}
              />
            </li>
          ))}
        </ol>
        <div className="absolute inset-x-2 bottom-1 flex justify-between text-xs text-soft" aria-hidden>
          <span>0:00</span>
          <span>{clockWords(whole / 2)}</span>
          <span>{clockWords(whole)}</span>
        </div>
      </div>
      <div className="mt-2">
        <WordPicker
          label={`What comes up now: it drops onto the line in the ${phase}`}
          words={words}
          chosen={notes.map(({ word }) => word)}
          choose={drop}
          verb="Drop it"
        />
      </div>
    </div>
  );
}
