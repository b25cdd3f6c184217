import { memo } from 'react';
import type { Windows } from '@wunsch/core/temper/windows';
import { celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { MARK_WORDS, type PourMark } from '@wunsch/core/workshop/tempering';
import { Chart, ink, quiet } from './base';

const NO_MARKS: readonly PourMark[] = [];

/** Temperature over minutes, with where it is to be melted, cooled and worked. */
function TemperChart({
  caption,
  points,
  windows,
  unit,
  height = 240,
  marks = NO_MARKS,
  other = null,
}: {
  caption: string;
  points: readonly { minute: number; tempC: number }[];
  windows: Windows;
  unit: TemperatureUnit;
  height?: number;
  /** What was done with it, by one press. */
  marks?: readonly PourMark[];
  /** Another curve beside it, in words. */
  other?: { words: string; points: readonly { minute: number; tempC: number }[] } | null;
}) {
  const colours = ink();
  const out = (c: number): number => celsiusTo(c, unit);
  const end = Math.max(10, points.at(-1)?.minute ?? 0);
  const every = end > 60 ? 20 : end > 24 ? 10 : 5;
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
  return (
    <figure>
      <figcaption className={height < 200 ? 'sr-only' : 'label'}>{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={height}
          series={[
            { name: 'temperature', data: points.map(({ minute, tempC }) => ({ x: minute, y: out(tempC) })) },
            ...(other
              ? [{ name: other.words, data: other.points.map(({ minute, tempC }) => ({ x: minute, y: out(tempC) })) }]
              : []),
          ]}
          options={{
            ...quiet(),
            stroke: { width: [2.5, 2], curve: 'straight', dashArray: [0, 5] },
            colors: [colours.ink, colours.crimson],
            xaxis: {
              type: 'numeric',
              min: 0,
              max: Math.ceil(end / every) * every,
              tickAmount: Math.ceil(end / every),
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
          }}
        />
      </div>
    </figure>
  );
}

/** Drawn again only when there are new readings. */
export default memo(TemperChart);
