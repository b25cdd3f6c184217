import { useEffect, useMemo, useRef } from 'react';
import { Chart, ink, isNarrow, quiet } from './base';
import { endLabels, stretchLabels, type TimePoint } from './labels';

export interface RoastLine {
  name: string;
  points: readonly TimePoint[];
  /** What it is: that decides its ink. */
  look: 'bean' | 'air' | 'set' | 'plan' | 'ahead';
}

interface Props {
  caption: string;
  lines: readonly RoastLine[];
  band?: readonly { x: number; low: number; high: number }[] | undefined;
  /** Something noticed, at its minute. */
  marks?: readonly { x: number; word: string }[];
  /** Stretches of which nothing is known, or in which something was wrong. */
  stretches?: readonly { from: number; to: number; word: string }[];
  endMin: number;
  unit: string;
  height?: number;
  low?: number;
  /** Told where the time axis lies, px from the left of the chart, whenever that changes. */
  onPlot?: (plot: { left: number; width: number }) => void;
}

/** How each line is drawn: the beans in ink, everything else quieter, none by colour alone. */
const LOOKS = {
  bean: { width: 3, dash: 0, colour: 'ink' },
  air: { width: 1.2, dash: 2, colour: 'soft' },
  set: { width: 2, dash: 0, colour: 'leaf' },
  plan: { width: 1.6, dash: 7, colour: 'leaf' },
  ahead: { width: 2, dash: 4, colour: 'ink' },
} as const;

/** A roast over its minutes: beans, air and setting over what was planned, with what was noticed. */
export default function RoastChart({
  caption,
  lines,
  band,
  marks = [],
  stretches = [],
  endMin,
  unit,
  height = 340,
  low,
  onPlot,
}: Props) {
  const told = useRef(onPlot);
  useEffect(() => {
    told.current = onPlot;
  });
  const key = JSON.stringify([
    lines.map(({ name, look, points }) => [name, look, points.at(-1)]),
    band !== undefined,
    marks,
    stretches,
    endMin,
    unit,
    low,
    scaleOf(lines, band, low),
    axisPx(),
    document.documentElement.dataset['theme'],
  ]);
  const options = useMemo(
    () => {
      const made = optionsFor(
        lines,
        band !== undefined,
        marks,
        stretches,
        endMin,
        unit,
        scaleOf(lines, band, low),
        height,
      );
      const tell = (chart: { w: { globals: { translateX: number; gridWidth: number } } }): void =>
        told.current?.({ left: chart.w.globals.translateX, width: chart.w.globals.gridWidth });
      return { ...made, chart: { ...made.chart, events: { mounted: tell, updated: tell } } };
    },
    // The key holds everything that the options are made of.
    // oxlint-disable-next-line react/exhaustive-deps
    [key],
  );
  const series = [
    ...(band
      ? [{ name: 'eight in ten', type: 'rangeArea', data: band.map(({ x, low: a, high: b }) => ({ x, y: [a, b] })) }]
      : []),
    ...lines.map(({ name, points }) => ({ name, type: 'line', data: points.map(({ x, y }) => ({ x, y })) })),
  ];
  return (
    <figure>
      <figcaption className="label">{caption}</figcaption>
      <div aria-hidden>
        <Chart type={band ? 'rangeArea' : 'line'} height={height} series={series} options={options} />
      </div>
    </figure>
  );
}

function scaleOf(
  lines: readonly RoastLine[],
  band: Props['band'],
  lowest: number | undefined,
): { low: number; high: number; ticks: number } {
  let [low, high] = [lowest ?? Infinity, -Infinity];
  for (const { points } of lines)
    for (const { y } of points) {
      if (y === null) continue;
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
  for (const row of band ?? []) high = Math.max(high, row.high);
  if (!Number.isFinite(low) || !Number.isFinite(high)) return { low: 0, high: 200, ticks: 4 };
  const step = high - low > 220 ? 50 : high - low > 90 ? 20 : 10;
  const [from, to] = [Math.floor(low / step) * step, Math.ceil((high + step / 4) / step) * step];
  return { low: from, high: to, ticks: Math.round((to - from) / step) };
}

/** How long the time axis is about: as much as a narrow window leaves it. */
const axisPx = (): number => Math.min(760, window.innerWidth - 180);

function optionsFor(
  lines: readonly RoastLine[],
  banded: boolean,
  marks: NonNullable<Props['marks']>,
  stretches: NonNullable<Props['stretches']>,
  endMin: number,
  unit: string,
  scale: { low: number; high: number; ticks: number },
  height: number,
) {
  const colours = ink();
  const looks = lines.map(({ look }) => LOOKS[look]);
  const labels = stretchLabels(stretches, endMin / axisPx());
  const label = (colour: string) => ({
    borderWidth: 0,
    style: { background: 'transparent', color: colour, fontSize: '12px' },
  });
  return {
    ...quiet(),
    grid: { ...quiet().grid, padding: { left: 8, right: 92, top: -16, bottom: -4 } },
    stroke: {
      width: [...(banded ? [0] : []), ...looks.map(({ width }) => width)],
      dashArray: [...(banded ? [0] : []), ...looks.map(({ dash }) => dash)],
      curve: 'straight' as const,
    },
    colors: [...(banded ? [colours.leaf] : []), ...looks.map(({ colour }) => colours[colour])],
    fill: { type: 'solid', opacity: [...(banded ? [0.14] : []), ...looks.map(() => 1)] },
    markers: { size: 0 },
    tooltip: { enabled: false },
    xaxis: {
      type: 'numeric' as const,
      min: 0,
      max: Math.max(1, endMin),
      tickAmount: Math.min(isNarrow() ? 4 : 10, Math.max(2, Math.round(endMin / 5))),
      labels: {
        rotate: 0,
        hideOverlappingLabels: true,
        formatter: (value: string) => `${Math.round(Number(value))} min`,
      },
      axisBorder: { show: false },
      tooltip: { enabled: false },
    },
    yaxis: {
      min: scale.low,
      max: scale.high,
      tickAmount: scale.ticks,
      labels: { minWidth: 56, maxWidth: 56, formatter: (value: number) => `${Math.round(value)} ${unit}` },
    },
    annotations: {
      points: endLabels(lines, (scale.high - scale.low) / (height - 50)).map(({ x, y, name, index, offsetY }) => ({
        x,
        y,
        marker: { size: 0 },
        label: {
          ...label(looks[index] ? colours[looks[index].colour] : colours.ink),
          text: name,
          textAnchor: 'start' as const,
          offsetX: 6,
          offsetY: offsetY + 6,
        },
      })),
      xaxis: [
        ...marks.map(({ x, word }, index) => ({
          x,
          borderColor: colours.ink,
          strokeDashArray: 1,
          opacity: 0.35,
          label: {
            ...label(colours.ink),
            text: word,
            orientation: 'horizontal' as const,
            position: 'bottom',
            offsetY: -6 - 16 * (index % 4),
            textAnchor: 'start' as const,
            offsetX: 3,
          },
        })),
        ...stretches.map(({ from, to }, index) => ({
          x: from,
          x2: to,
          fillColor: colours.crimson,
          borderColor: 'transparent',
          opacity: 0.12,
          label: {
            ...label(colours.crimson),
            text: labels[index]?.word ?? '',
            orientation: 'horizontal' as const,
            textAnchor: 'start' as const,
            offsetY: 14 * (1 + (labels[index]?.line ?? 0)),
          },
        })),
      ],
    },
  };
}
