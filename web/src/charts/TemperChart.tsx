import { memo } from 'react';
import type { Windows } from '@wunsch/core/temper/windows';
import { celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { Chart, ink, quiet } from './base';

/** Temperature over minutes, with where it is to be melted, cooled and worked. */
function TemperChart({
  caption,
  points,
  windows,
  unit,
  height = 240,
}: {
  caption: string;
  points: readonly { minute: number; tempC: number }[];
  windows: Windows;
  unit: TemperatureUnit;
  height?: number;
}) {
  const colours = ink();
  const out = (c: number): number => celsiusTo(c, unit);
  const end = Math.max(10, points.at(-1)?.minute ?? 0);
  const every = end > 60 ? 20 : end > 24 ? 10 : 5;
  const band = (word: string, { from, to }: { from: number; to: number }) => ({
    y: out(from),
    y2: out(to),
    fillColor: colours.leaf,
    opacity: 0.16,
    borderWidth: 0,
    label: {
      text: word,
      position: 'left',
      textAnchor: 'start',
      borderWidth: 0,
      offsetY: 14,
      style: { background: 'transparent', color: colours.soft },
    },
  });
  return (
    <figure>
      <figcaption className="label">{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={height}
          series={[{ name: 'temperature', data: points.map(({ minute, tempC }) => ({ x: minute, y: out(tempC) })) }]}
          options={{
            ...quiet(),
            stroke: { width: 2.5, curve: 'straight' },
            colors: [colours.ink],
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
              yaxis: [band('melt', windows.melt), band('cool', windows.cool), band('work', windows.work)],
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
