import { memo, useMemo, useState } from 'react';
import type { ApexOptions } from 'apexcharts';
import type { Windows } from '@wunsch/core/temper/windows';
import { celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { MARK_WORDS, type PourMark } from '@wunsch/core/work/tempering';
import { Chart, ink, quiet } from './base';

interface Point {
  minute: number;
  tempC: number;
}

interface Props {
  caption: string;
  points: readonly Point[];
  windows: Windows;
  unit: TemperatureUnit;
  height?: number;
  /** Minutes that are shown at the least: a longer axis is drawn anew less often. */
  leastMin?: number;
  /** What was done with it, by one press. */
  marks?: readonly PourMark[];
  /** Another curve beside it, in words. */
  other?: { words: string; points: readonly Point[] } | null;
}

const NO_MARKS: readonly PourMark[] = [];
/** Lower pictures say in words only to those who cannot see them what is obvious to others. */
const LOW = 200;
/** What is shown, °C. */
const FROM_C = 15;
const TO_C = 55;
/** Ticks of every axis, and the minutes that one can be. */
const TICKS = 6;
const TICK_MIN = [2, 5, 10, 20, 40, 60, 120, 240] as const;

/** Where the plot is in the picture, px. */
interface Plot {
  left: number;
  top: number;
  width: number;
  height: number;
}

/**
 * Temperature over minutes, with where it is to be melted, cooled and worked. The frame is drawn once; a bowl that is
 * read many times a second moves nothing but its line.
 */
function TemperChart({
  caption,
  points,
  windows,
  unit,
  height = 240,
  leastMin = 10,
  marks = NO_MARKS,
  other = null,
}: Props) {
  const [plot, setPlot] = useState<Plot | null>(null);
  const longest = Math.max(leastMin, points.at(-1)?.minute ?? 0, other?.points.at(-1)?.minute ?? 0);
  const every = TICK_MIN.find((minutes) => TICKS * minutes >= longest) ?? Math.ceil(longest / TICKS);
  // Marks stand at their minutes: with them the frame is drawn anew as the axis grows.
  const markEvery = marks.length > 0 ? every : 1;
  const options = useMemo(
    () => optionsOf({ windows, unit, marks, markEvery, placed: setPlot }),
    [windows, unit, marks, markEvery],
  );
  const path = (rows: readonly Point[]): string =>
    rows.map(({ minute, tempC }) => `${minute / every},${TO_C - Math.min(TO_C, Math.max(FROM_C, tempC))}`).join(' ');
  return (
    <figure>
      <figcaption className={height < LOW ? 'sr-only' : 'label'}>{caption}</figcaption>
      {/* Nothing in the picture moves anything around it: what is measured while it is drawn stays in here. */}
      <div aria-hidden className="relative" style={{ height, contain: 'strict' }}>
        <Chart type="line" height={height - X_LABELS} series={FRAME} options={options} />
        {plot && (
          <>
            <svg
              className="pointer-events-none absolute"
              style={plot}
              viewBox={`0 0 ${TICKS} ${TO_C - FROM_C}`}
              preserveAspectRatio="none"
            >
              <polyline points={path(points)} className="fill-none stroke-ink" {...LINE} />
              {other && (
                <polyline
                  points={path(other.points)}
                  className="fill-none stroke-crimson"
                  {...LINE}
                  strokeDasharray={5}
                />
              )}
            </svg>
            {Array.from({ length: TICKS + 1 }, (_, tick) => (
              <span
                key={tick}
                className={`absolute text-xs whitespace-nowrap text-soft ${tick < TICKS ? '-translate-x-1/2' : '-translate-x-full'}`}
                style={{ left: plot.left + (plot.width * tick) / TICKS, top: plot.top + plot.height + 4 }}
              >
                {tick * every} min
              </span>
            ))}
          </>
        )}
      </div>
    </figure>
  );
}

/** px under the frame for the minutes. */
const X_LABELS = 16;
const LINE = { strokeWidth: 2.5, vectorEffect: 'non-scaling-stroke' } as const;
/** A frame without a line would have no axes. */
const FRAME = [{ name: 'frame', data: [{ x: 0, y: -1000 }] }];

interface Frame {
  windows: Windows;
  unit: TemperatureUnit;
  marks: readonly PourMark[];
  /** Minutes a tick that the marks are placed by. */
  markEvery: number;
  placed: (plot: Plot) => void;
}

function optionsOf({ windows, unit, marks, markEvery, placed }: Frame): ApexOptions {
  const colours = ink();
  const out = (c: number): number => celsiusTo(c, unit);
  // Cool and work lie close: in a low picture their words stand at either end.
  const band = (word: string, { from, to }: { from: number; to: number }, end: 'left' | 'right' = 'left') => ({
    y: out(from),
    y2: out(to),
    fillColor: colours.leaf,
    opacity: 0.16,
    borderWidth: 0,
    label: {
      text: word,
      position: end,
      textAnchor: end === 'left' ? 'start' : 'end',
      borderWidth: 0,
      offsetY: 14,
      style: { background: 'transparent', color: colours.soft },
    },
  });
  const { chart, ...calm } = quiet();
  const measure = (drawn: DrawnChart): void => {
    const { translateX, translateY, gridWidth, gridHeight } = drawn.w.globals;
    placed({ left: translateX, top: translateY, width: gridWidth, height: gridHeight });
  };
  return {
    ...calm,
    chart: { ...chart, events: { mounted: measure, updated: measure } },
    stroke: { width: 0 },
    markers: { size: 0 },
    xaxis: {
      type: 'numeric',
      min: 0,
      max: TICKS,
      tickAmount: TICKS,
      labels: { show: false },
      axisTicks: { show: false },
      axisBorder: { show: false },
    },
    yaxis: {
      min: out(FROM_C),
      max: out(TO_C),
      tickAmount: 4,
      labels: { formatter: (value: number) => `${Math.round(value)} °${unit}` },
    },
    annotations: {
      yaxis: [band('melt', windows.melt), band('cool', windows.cool, 'right'), band('work', windows.work)],
      xaxis: marks.map(({ second, what }) => ({
        x: second / 60 / markEvery,
        borderColor: colours.soft,
        strokeDashArray: 3,
        label: {
          text: MARK_WORDS[what].toLowerCase(),
          orientation: 'vertical',
          borderWidth: 0,
          style: { background: 'transparent', color: colours.soft },
        },
      })),
    },
    tooltip: { enabled: false },
  };
}

/** What a drawn chart tells of where it drew. */
interface DrawnChart {
  w: { globals: Record<'translateX' | 'translateY' | 'gridWidth' | 'gridHeight', number> };
}

/** Drawn again only when there are new readings. */
export default memo(TemperChart);
