import { useEffect, useRef, useState } from 'react';
import { clock } from '@wunsch/core/roast/words';
import { layWords } from './lane';
import type { Pressing } from './NextAct';

const ROW = 48;

interface Props extends Pressing {
  endMin: number;
  /** Where the time axis of the chart above lies, px from the left; null until it is drawn. */
  plot: { left: number; width: number } | null;
}

/**
 * What is smelled, heard and seen, on a lane under the time axis that the chart below shares: each word where it
 * usually comes, until a press puts it where it came. `Shift` with the digit on it does the same.
 */
/** Pixels that a label of the axis takes. */
const LABEL_PX = 56;

export function SignLane({ live, busy, press, endMin, plot }: Props) {
  const { roast, usualSigns, ownSigns } = live.view;
  const [own, setOwn] = useState('');
  const box = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(800);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(() => setWide(element.clientWidth));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const left = plot?.left ?? 70;
  const width = Math.max(120, Math.min(plot?.width ?? wide - 160, wide - left));
  const endS = endMin * 60;
  const perS = width / endS;
  const wanted = roast.plan?.steps.flatMap(({ until }) => (until?.what === 'sign' ? [until.sign] : [])) ?? [];
  const words = layWords(
    usualSigns,
    roast.signs,
    [...wanted, ...ownSigns],
    endS,
    (what) => (what.length * 8.2 + 50) / perS,
  );
  const keyed = words.slice(0, 9);
  const latest = useRef({ keyed, press });
  useEffect(() => {
    latest.current = { keyed, press };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const digit = /^Digit([1-9])$/.exec(event.code)?.[1];
      if (!event.shiftKey || digit === undefined) return;
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select')) return;
      const word = latest.current.keyed[Number(digit) - 1];
      if (!word) return;
      event.preventDefault();
      latest.current.press('signs', { what: word.what });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const rows = Math.max(1, ...words.map(({ row }) => row + 1));
  const last = roast.signs.at(-1);
  const now = Math.min(live.second, endS) * perS;
  // So far apart that no two labels touch.
  const everyMin = [5, 10, 20, 30, 60].find((minutes) => 60 * minutes * perS >= LABEL_PX) ?? 120;
  return (
    <section aria-label="What do you notice" className="mt-1">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">What do you notice?</h2>
        <p className="label">
          Each word where it usually comes; a press, or Shift and its digit, puts it where it came.
        </p>
      </div>
      <div aria-hidden className="relative mt-1 h-4 text-[0.75rem] text-soft">
        {Array.from({ length: Math.floor(endMin / everyMin) + 1 }, (_, index) => (
          <span
            key={index}
            className="absolute -translate-x-1/2 whitespace-nowrap"
            style={{ left: left + index * 60 * everyMin * perS }}
          >
            {index * everyMin} min
          </span>
        ))}
      </div>
      <div ref={box} className="relative overflow-hidden border-t border-rule" style={{ height: rows * ROW + 4 }}>
        <div aria-hidden className="absolute inset-y-0 w-0.5 bg-crimson" style={{ left: left + now }} />
        {words.map(({ what, second, row, noticed, n }, index) => (
          <button
            key={what}
            type="button"
            className={`absolute flex min-h-11 items-center gap-1.5 rounded-r-md border-l-4 px-2 text-[0.95rem] whitespace-nowrap ${
              noticed ? 'border-ink bg-ink text-on-ink' : 'border-leaf bg-sheet hover:bg-sunk'
            }`}
            style={{ left: left + second * perS, top: row * ROW + 4 }}
            aria-pressed={noticed}
            aria-label={what}
            title={
              noticed
                ? `noticed at ${clock(second)}`
                : n > 0
                  ? `usually about ${clock(second)}, from ${n} loads`
                  : 'its usual place in a roast; no past of your own yet'
            }
            disabled={busy}
            onClick={() => press('signs', { what })}
          >
            {what}
            {noticed ? (
              <span className="figure text-sm opacity-80">{clock(second)}</span>
            ) : (
              index < 9 && <span className="text-xs text-soft">{index + 1}</span>
            )}
          </button>
        ))}
      </div>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (own.trim() === '') return;
          press('signs', { what: own.trim() });
          setOwn('');
        }}
      >
        <input
          className="entry w-52! min-w-0"
          placeholder="in your own words"
          aria-label="In your own words"
          value={own}
          maxLength={40}
          onChange={(event) => setOwn(event.target.value)}
        />
        <button type="submit" className="button" disabled={busy || own.trim() === ''}>
          Note it
        </button>
        {last && (
          <button
            type="button"
            className="button button-quiet"
            disabled={busy}
            onClick={() => press('undo', { what: 'sign' })}
          >
            Take “{last.what}” back
          </button>
        )}
      </form>
    </section>
  );
}
