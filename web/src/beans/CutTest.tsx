import { useEffect, useMemo, useRef, useState } from 'react';
import {
  TRAY,
  beansIn,
  CUT_CLASSES,
  CUT_NAMES,
  CUT_PLANS,
  cutShares,
  type CutClass,
} from '@wunsch/core/beans/cut-test';
import { Chips } from '../parts/fields';
import { FaceIcon } from '../parts/drawings';
import { classOf, classOfKey, keyName, mark, tallyOf } from './tally';

interface Props {
  planned: number;
  marks: string;
  setPlanned: (planned: number) => void;
  /** Counting goes on past the plan. */
  beyond: boolean;
  goBeyond: () => void;
  change: (change: (marks: string) => string) => void;
}

/** Counting cut beans: one key or one large button a class, a tray of fifty at a time. */
export function CutTest({ planned, marks, setPlanned, beyond, goBeyond, change }: Props) {
  const surface = useRef<HTMLDivElement>(null);
  const [listening, setListening] = useState(false);
  const tally = useMemo(() => tallyOf(marks), [marks]);
  const shares = useMemo(() => cutShares(tally), [tally]);
  const n = marks.length;
  useEffect(() => surface.current?.focus({ preventScroll: true }), []);
  const full = n >= planned;
  // Past the plan a key is a slip, not a bean, until going on has been said.
  const add = (name: CutClass): void =>
    change((before) => (before.length < planned || beyond ? before + mark(name) : before));
  const undo = (): void => change((before) => before.slice(0, -1));
  return (
    <div>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        {n === 0 ? (
          <Chips
            legend="Beans to cut, decided before the first"
            options={CUT_PLANS.map((count) => [String(count), String(count)])}
            chosen={[String(planned)]}
            choose={([count]) => setPlanned(Number(count))}
          />
        ) : (
          // A plan that could follow what was seen would make every sure word a little too sure.
          <p className="label">{planned} beans, decided before the first</p>
        )}
        <p>
          <span className="figure text-4xl" data-testid="cut-count">
            {n}
          </span>{' '}
          of {planned}, tray {Math.floor(Math.max(0, n - 1) / TRAY) + 1}
          {full && !beyond && (
            <>
              <strong className="ml-2 text-leaf">all that were planned.</strong>{' '}
              <button type="button" className="link min-h-11" onClick={goBeyond}>
                Cut more
              </button>
            </>
          )}
        </p>
      </div>
      <div
        ref={surface}
        tabIndex={0}
        role="group"
        aria-label="Cut test tally: keys count beans, Backspace takes the last one back"
        className="mt-3 rounded-lg bg-sheet p-3 focus:outline-3 focus:outline-(--focus)"
        onFocus={() => setListening(true)}
        onBlur={(event) => setListening(event.currentTarget.contains(event.relatedTarget))}
        data-takes-keys
        onKeyDown={(event) => {
          if (event.ctrlKey || event.metaKey || event.altKey) return;
          const name = classOfKey(event.key);
          // A button with the focus takes the space bar for itself.
          if (event.key === ' ' && event.target !== event.currentTarget) return;
          if (name === undefined && event.key !== 'Backspace') return;
          event.preventDefault();
          event.stopPropagation();
          if (event.repeat) return;
          if (name === undefined) undo();
          else add(name);
        }}
      >
        <Tray marks={marks} />
        <div className="mt-3 grid grid-cols-2 gap-2 sm:grid-cols-4">
          {CUT_CLASSES.map((name) => (
            <button
              key={name}
              type="button"
              onClick={() => {
                add(name);
                surface.current?.focus({ preventScroll: true });
              }}
              className="flex min-h-[76px] items-center gap-3 rounded-lg bg-paper px-3 py-2 text-left hover:bg-sunk active:bg-rule"
              aria-label={`${CUT_NAMES[name]}, ${tally[name]}`}
            >
              <FaceIcon name={name} size={34} />
              <span className="min-w-0 flex-1 leading-tight">
                <span className="block">{CUT_NAMES[name]}</span>
                <span className="block text-sm text-soft">
                  {n === 0 ? (
                    <kbd>{keyName(name)}</kbd>
                  ) : (
                    `${(100 * shares[name].share).toFixed(1)}\u00a0% (${(100 * shares[name].low).toFixed(1)}–${(100 * shares[name].high).toFixed(1)})`
                  )}
                </span>
              </span>
              <span className="text-right">
                <span className="figure block text-2xl">{tally[name]}</span>
                {n > 0 && <kbd className="text-xs text-soft">{keyName(name)}</kbd>}
              </span>
            </button>
          ))}
        </div>
        <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
          <button type="button" className="button" disabled={n === 0} onClick={undo}>
            Take the last one back <kbd className="text-sm opacity-70">Backspace</kbd>
          </button>
          <p className="text-sm text-soft" aria-live="polite">
            {listening ? 'Keys are counting beans.' : 'Press into this field to count with keys.'} Shares with 95 %
            Wilson intervals.
          </p>
        </div>
      </div>
      <p className="mt-2 text-sm text-soft">
        Faults count once, under the gravest: mouldy before slaty, slaty before insect-damaged, germinated, flat.{' '}
        {beansIn(tally)} beans so far.
      </p>
    </div>
  );
}

const FILL: Record<CutClass, string> = {
  brown: 'var(--roasted)',
  partly: 'url(#cut-partly)',
  purple: 'var(--ink-soft)',
  slaty: 'var(--hatch)',
  mouldy: 'var(--leaf)',
  insect: 'var(--crimson)',
  germinated: 'var(--ripe)',
  flat: 'var(--bean)',
};

/** The tray in hand: fifty places in five rows, filled as the beans are cut. */
function Tray({ marks }: { marks: string }) {
  const start = marks.length === 0 ? 0 : TRAY * Math.floor((marks.length - 1) / TRAY);
  const here = marks.slice(start, start + TRAY);
  return (
    <svg viewBox="0 0 500 58" className="w-full" role="img" aria-label={`Tray with ${here.length} of ${TRAY} beans`}>
      <defs>
        <pattern id="cut-partly" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--roasted)" />
          <rect width="3" height="6" fill="var(--ink-soft)" />
        </pattern>
      </defs>
      {Array.from({ length: TRAY }, (_, index) => {
        const name = classOf(here[index] ?? '');
        return (
          <ellipse
            key={index}
            cx={10 + 20 * (index % 25)}
            cy={14 + 29 * Math.floor(index / 25)}
            rx={7}
            ry={name === 'flat' ? 4 : 11.5}
            fill={name === undefined ? 'transparent' : FILL[name]}
            stroke={name === undefined ? 'var(--rule)' : 'transparent'}
            strokeWidth={1.5}
          />
        );
      })}
    </svg>
  );
}
