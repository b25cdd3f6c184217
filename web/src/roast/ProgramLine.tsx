import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlanBand } from '@wunsch/core/roast/band';
import { programMinutes, withEnd, withSetting } from '@wunsch/core/roast/program';
import type { ProgramStep } from '@wunsch/core/roast/records';
import { celsiusFrom, celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { useHere, useShow } from '../parts/workshop';

const HEIGHT = 330;
const PAD = { left: 52, right: 18, top: 16, bottom: 30 };

interface Props {
  steps: readonly ProgramStep[];
  change: (steps: ProgramStep[]) => void;
  band: PlanBand | null;
}

interface Drag {
  kind: 'set' | 'end';
  index: number;
}

/** How wide an element is, as it changes. */
function useWidth(): [(element: HTMLElement | null) => void, number] {
  const [element, setElement] = useState<HTMLElement | null>(null);
  const [width, setWidth] = useState(800);
  useEffect(() => {
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 800));
    observer.observe(element);
    return () => observer.disconnect();
  }, [element]);
  return [setElement, width];
}

/**
 * A program as a line to take hold of: a level up or down is its temperature, the end of a level left or right its
 * minutes. Under it what the beans would do.
 */
export function ProgramLine({ steps, change, band }: Props) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const [measure, width] = useWidth();
  const [drag, setDrag] = useState<Drag | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const scale = useScale(steps, band, drag !== null, temperatureUnit);
  const inner = Math.max(120, width - PAD.left - PAD.right);
  const x = (minutes: number): number => PAD.left + (inner * minutes) / scale.minutes;
  const y = (tempC: number): number =>
    PAD.top + ((HEIGHT - PAD.top - PAD.bottom) * (scale.high - tempC)) / (scale.high - scale.low);
  const minuteAt = (px: number): number => ((px - PAD.left) / inner) * scale.minutes;
  const tempAt = (py: number): number =>
    scale.high - ((py - PAD.top) / (HEIGHT - PAD.top - PAD.bottom)) * (scale.high - scale.low);

  const move = (event: PointerEvent): void => {
    if (!drag || !svg.current) return;
    const box = svg.current.getBoundingClientRect();
    if (drag.kind === 'set') change(withSetting(steps, drag.index, tempAt(event.clientY - box.top), temperatureUnit));
    else change(withEnd(steps, drag.index, minuteAt(event.clientX - box.left)));
  };
  const hold = (kind: Drag['kind'], index: number) => (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ kind, index });
  };
  const nudge = (kind: Drag['kind'], index: number) => (event: KeyboardEvent) => {
    const step = steps[index];
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (!step || by === undefined) return;
    event.preventDefault();
    if (kind === 'set')
      change(withSetting(steps, index, show.toCelsius(show.fromCelsius(step.setC) + by), temperatureUnit));
    else change(withEnd(steps, index, programMinutes(steps.slice(0, index + 1)) + by / 4));
  };

  const levels = steps.map(({ setC, minutes }, i) => {
    const from = programMinutes(steps.slice(0, i));
    return { setC, from, to: from + minutes };
  });
  const stairs = levels.map(
    ({ setC, from, to }, i) => `${i === 0 ? 'M' : 'L'}${x(from)},${y(setC)}L${x(to)},${y(setC)}`,
  );
  const path = (minutes: ArrayLike<number>, tempC: ArrayLike<number>): string =>
    Array.from(
      minutes,
      (minute, i) => `${i === 0 ? 'M' : 'L'}${x(minute).toFixed(1)},${y(tempC[i] ?? 0).toFixed(1)}`,
    ).join('');
  const shade = band
    ? `${path(band.minutes, band.high)}L${[...band.minutes.keys()]
        .reverse()
        .map((i) => `${x(band.minutes[i] ?? 0).toFixed(1)},${y(band.low[i] ?? 0).toFixed(1)}`)
        .join('L')}Z`
    : '';
  const every = scale.minutes > 90 ? 20 : scale.minutes > 40 ? 10 : 5;
  const grid = GRID[temperatureUnit];
  const [lowest, highest] = [show.fromCelsius(scale.low), show.fromCelsius(scale.high)];
  const degrees = Array.from(
    { length: Math.round((highest - lowest) / grid.step) + 1 },
    (_, i) => lowest + grid.step * i,
  );
  const end = band?.middle;
  return (
    <div ref={measure} className="select-none">
      <svg
        ref={svg}
        width={width}
        height={HEIGHT}
        role="group"
        aria-label="The program as a line"
        onPointerMove={move}
        onPointerUp={() => setDrag(null)}
        onPointerCancel={() => setDrag(null)}
        className={drag ? 'cursor-grabbing' : undefined}
      >
        {degrees.map((shown) => {
          const at = y(show.toCelsius(shown));
          return (
            <g key={shown}>
              <line x1={PAD.left} x2={width - PAD.right} y1={at} y2={at} stroke="var(--rule)" />
              <text x={PAD.left - 8} y={at + 4} textAnchor="end" fontSize="12" fill="var(--ink-soft)">
                {Math.round(shown)} °{temperatureUnit}
              </text>
            </g>
          );
        })}
        {Array.from({ length: Math.floor(scale.minutes / every) + 1 }, (_, i) => i * every).map((minute) => (
          <text key={minute} x={x(minute)} y={HEIGHT - 10} textAnchor="middle" fontSize="12" fill="var(--ink-soft)">
            {minute} min
          </text>
        ))}
        {band && <path d={shade} fill="var(--leaf)" opacity="0.16" />}
        {end && <path d={path(end.minutes, end.airC)} fill="none" stroke="var(--ink-soft)" strokeDasharray="2 3" />}
        {end && <path d={path(end.minutes, end.beanC)} fill="none" stroke="var(--ink)" strokeWidth="3" />}
        <path d={stairs.join('')} fill="none" stroke="var(--leaf)" strokeWidth="2.5" />
        {end && (
          <text
            x={Math.min(x(end.totalMin) + 6, width - PAD.right)}
            y={y(end.beanC.at(-1) ?? 0) + 18}
            textAnchor="end"
            fontSize="13"
            fill="var(--ink)"
          >
            beans {Math.round(show.fromCelsius(end.beanC.at(-1) ?? 0))} °{temperatureUnit}
          </text>
        )}
        {levels.map(({ setC, from, to }, i) => (
          <g key={i}>
            <Handle
              label={`Step ${i + 1}, temperature`}
              words={show.temp(setC)}
              value={Math.round(10 * show.fromCelsius(setC)) / 10}
              orientation="vertical"
              at={[x((from + to) / 2), y(setC)]}
              onPointerDown={hold('set', i)}
              onKeyDown={nudge('set', i)}
            >
              <circle r="9" fill="var(--leaf)" />
              <text y={-16} textAnchor="middle" fontSize="14" fontWeight="600" fill="var(--ink)">
                {show.temp(setC)}
              </text>
            </Handle>
            <Handle
              label={`Step ${i + 1}, end`}
              words={`${to} minutes`}
              value={to}
              orientation="horizontal"
              at={[x(to), y(setC)]}
              onPointerDown={hold('end', i)}
              onKeyDown={nudge('end', i)}
            >
              <rect
                x="-6"
                y="-11"
                width="12"
                height="22"
                rx="4"
                fill="var(--sheet)"
                stroke="var(--leaf)"
                strokeWidth="2.5"
              />
            </Handle>
          </g>
        ))}
      </svg>
    </div>
  );
}

interface HandleProps {
  label: string;
  words: string;
  value: number;
  orientation: 'vertical' | 'horizontal';
  at: [number, number];
  onPointerDown: (event: PointerEvent<SVGGElement>) => void;
  onKeyDown: (event: KeyboardEvent) => void;
  children: React.ReactNode;
}

function Handle({ label, words, value, orientation, at: [px, py], onPointerDown, onKeyDown, children }: HandleProps) {
  return (
    <g
      transform={`translate(${px},${py})`}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={words}
      aria-orientation={orientation}
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
      style={{ cursor: orientation === 'vertical' ? 'ns-resize' : 'ew-resize', touchAction: 'none' }}
    >
      <rect x="-22" y="-22" width="44" height="44" fill="transparent" />
      {children}
    </g>
  );
}

interface Scale {
  minutes: number;
  low: number;
  high: number;
}

/** Where the axis begins and how its lines are apart, in the unit that is shown. */
const GRID = { C: { low: 0, step: 20 }, F: { low: 50, step: 50 } } as const;

/** Axes that hold everything; they stand still while something is dragged. */
function useScale(steps: readonly ProgramStep[], band: PlanBand | null, held: boolean, unit: TemperatureUnit): Scale {
  const [kept, setKept] = useState<Scale | null>(null);
  const total = Math.max(programMinutes(steps), band?.middle.totalMin ?? 0);
  const hottest = Math.max(...steps.map(({ setC }) => setC), ...(band?.middle.airC ?? [0]));
  const { low, step } = GRID[unit];
  const fresh: Scale = {
    minutes: Math.ceil((total * 1.15) / 5) * 5,
    low: celsiusFrom(low, unit),
    high: celsiusFrom(Math.ceil(celsiusTo(hottest + 24, unit) / step) * step, unit),
  };
  if (held && kept === null) setKept(fresh);
  if (!held && kept !== null) setKept(null);
  return held ? (kept ?? fresh) : fresh;
}
