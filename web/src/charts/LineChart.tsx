import { wallClock } from '@wunsch/core/units/zone';
import { useHere } from '../parts/workshop';
import { Chart, ink, quiet } from './base';

export interface LinePoint {
  /** UTC ms, or hours where `hours` is set. */
  x: number;
  y: number | null;
}

interface Props {
  /** What the axes are, in words, over the chart. */
  caption: string;
  points: readonly LinePoint[];
  /** A second line, dashed. */
  second?: readonly LinePoint[] | undefined;
  names?: readonly [string, string];
  unit: string;
  /** A band of what is healthy, by x. */
  band?: readonly { x: number; low: number; high: number }[] | undefined;
  /** A line that matters, with its word. */
  threshold?: { y: number; word: string } | undefined;
  hours?: boolean;
  height?: number;
  bars?: boolean;
  digits?: number;
}

/** One quiet line over time, with the band or the threshold it is held against. */
export default function LineChart({
  caption,
  points,
  second,
  names = ['', ''],
  unit,
  band,
  threshold,
  hours = false,
  height = 200,
  bars = false,
  digits = 0,
}: Props) {
  const colours = ink();
  const { timeZone } = useHere().view.settings;
  const along = (x: number): number => (hours ? x : wallClock(x, timeZone));
  const line = (rows: readonly LinePoint[]): { x: number; y: number | null }[] =>
    rows.map(({ x, y }) => ({ x: along(x), y }));
  const series = [
    ...(band
      ? [{ name: 'usual', type: 'rangeArea', data: band.map(({ x, low, high }) => ({ x: along(x), y: [low, high] })) }]
      : []),
    { name: names[0] || unit, type: bars ? 'column' : 'line', data: line(points) },
    ...(second && second.length > 0 ? [{ name: names[1], type: 'line', data: line(second) }] : []),
  ];
  const widths = [...(band ? [0] : []), bars ? 0 : 2.5, 1.5];
  const values = [...points, ...(second ?? [])].flatMap(({ y }) => (y === null ? [] : [y]));
  const all = [...values, ...(threshold ? [threshold.y] : []), ...(band ?? []).flatMap(({ low, high }) => [low, high])];
  const scale = roundScale(bars ? 0 : Math.min(...all), Math.max(...all, bars ? 4 : -Infinity));
  return (
    <figure>
      <figcaption className="label">{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type={band ? 'rangeArea' : bars ? 'bar' : 'line'}
          height={height}
          series={series}
          options={{
            ...quiet(),
            stroke: { width: widths, curve: 'straight', dashArray: [...(band ? [0] : []), 0, 4] },
            colors: [...(band ? [colours.leaf] : []), colours.ink, colours.soft],
            fill: { type: 'solid', opacity: [...(band ? [0.16] : []), 1, 1] },
            markers: { size: points.length > 60 || bars ? 0 : [...(band ? [0] : []), 4, 3], strokeWidth: 0 },
            plotOptions: { bar: { columnWidth: '70%' } },
            xaxis: {
              type: hours ? 'numeric' : 'datetime',
              ...(hours ? days(points.map(({ x }) => x)) : { tickAmount: 6 }),
              labels: {
                ...(hours ? { formatter: (value: string) => `${Math.round(Number(value))} h` } : {}),
              },
              axisBorder: { show: false },
              tooltip: { enabled: false },
            },
            yaxis: {
              min: scale.low,
              max: scale.high,
              tickAmount: scale.ticks,
              labels: { formatter: (value: number) => `${value.toFixed(digits)} ${unit}` },
            },
            annotations: threshold
              ? {
                  yaxis: [
                    {
                      y: threshold.y,
                      borderColor: colours.crimson,
                      strokeDashArray: 3,
                      label: {
                        text: threshold.word,
                        position: 'left',
                        textAnchor: 'start',
                        borderWidth: 0,
                        style: { background: 'transparent', color: colours.crimson },
                      },
                    },
                  ],
                }
              : {},
          }}
        />
      </div>
    </figure>
  );
}

/** Ends and ticks of an axis that fall on round numbers. */
function roundScale(low: number, high: number): { low: number; high: number; ticks: number } {
  const rough = Math.max(1, (high - low) / 4);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((size) => size >= rough) ?? 10 * power;
  const [from, to] = [Math.floor(low / step) * step, Math.ceil(high / step) * step];
  return { low: from, high: to, ticks: Math.max(1, Math.round((to - from) / step)) };
}

/** Hours from midnight to midnight, a tick every day. */
function days(hours: readonly number[]): { min: number; max: number; tickAmount: number } {
  const [min, max] = [24 * Math.floor(Math.min(...hours) / 24), 24 * Math.ceil(Math.max(...hours) / 24 + 0.001)];
  return { min, max, tickAmount: Math.round((max - min) / 24) };
}
