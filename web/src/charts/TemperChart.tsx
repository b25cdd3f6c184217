import { memo, useMemo } from 'react';
import type { ApexOptions } from 'apexcharts';
import type { Windows } from '@wunsch/core/temper/windows';
import { celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { MARK_WORDS, type PourMark } from '@wunsch/core/workshop/tempering';
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

/** Temperature over minutes, with where it is to be melted, cooled and worked. */
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
  const end = Math.max(leastMin, points.at(-1)?.minute ?? 0);
  const every = end > 60 ? 20 : end > 24 ? 10 : 5;
  const ticks = Math.ceil(end / every);
  // The same options again are a new line only, which is drawn much sooner than a new picture.
  const options = useMemo(
    () => optionsOf({ windows, unit, marks, every, ticks }),
    [windows, unit, marks, every, ticks],
  );
  const line = (rows: readonly Point[]) => rows.map(({ minute, tempC }) => ({ x: minute, y: celsiusTo(tempC, unit) }));
  return (
    <figure>
      <figcaption className={height < LOW ? 'sr-only' : 'label'}>{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={height}
          series={[
            { name: 'temperature', data: line(points) },
            ...(other ? [{ name: other.words, data: line(other.points) }] : []),
          ]}
          options={options}
        />
      </div>
    </figure>
  );
}

function optionsOf({
  windows,
  unit,
  marks,
  every,
  ticks,
}: {
  windows: Windows;
  unit: TemperatureUnit;
  marks: readonly PourMark[];
  every: number;
  ticks: number;
}): ApexOptions {
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
  return {
    ...quiet(),
    stroke: { width: [2.5, 2], curve: 'straight', dashArray: [0, 5] },
    colors: [colours.ink, colours.crimson],
    xaxis: {
      type: 'numeric',
      min: 0,
      max: ticks * every,
      tickAmount: ticks,
      labels: { formatter: (value: string) => `${Math.round(Number(value))} min` },
      axisBorder: { show: false },
    },
    yaxis: {
      min: out(15),
      max: out(55),
      tickAmount: 4,
      labels: { formatter: (value: number) => `${Math.round(value)} °${unit}` },
    },
    annotations: {
      yaxis: [band('melt', windows.melt), band('cool', windows.cool, 'right'), band('work', windows.work)],
      xaxis: marks.map(({ second, what }) => ({
        x: second / 60,
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

/** Drawn again only when there are new readings. */
export default memo(TemperChart);
