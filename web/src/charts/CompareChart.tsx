import { useEffect } from 'react';
import { Chart, ink, isNarrow, quiet } from './base';
import { endLabels, type TimePoint } from './labels';
import { strokeOf } from './strokes';

/** Degrees that a pixel of the drawing stands for, about. */
const PER_PIXEL = 0.45;

export interface ComparedLine {
  name: string;
  points: readonly TimePoint[];
}

/** Bean temperatures of several loads over one another. */
export default function CompareChart({
  caption,
  lines,
  unit,
  fromMin,
  endMin,
  zero,
  drawn,
}: {
  caption: string;
  lines: readonly ComparedLine[];
  unit: string;
  fromMin: number;
  endMin: number;
  /** Word at the place where they are laid over one another; null at the start. */
  zero: string | null;
  /** Told when the lines stand on the screen. */
  drawn?: (() => void) | undefined;
}) {
  const { ink: main } = ink();
  const style = getComputedStyle(document.documentElement);
  const strokes = lines.map((_, i) => strokeOf(i));
  const colours = strokes.map(({ colour }) => style.getPropertyValue(colour).trim());
  useEffect(() => {
    if (!drawn) return;
    const frame = requestAnimationFrame(() => drawn());
    return () => cancelAnimationFrame(frame);
  }, [lines, drawn]);
  return (
    <figure>
      <figcaption className="label">{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={400}
          series={lines.map(({ name, points }) => ({ name, data: points.map(({ x, y }) => ({ x, y })) }))}
          options={{
            ...quiet(),
            stroke: { width: 2.5, curve: 'straight', dashArray: strokes.map(({ dash }) => dash) },
            colors: colours,
            markers: { size: 0 },
            tooltip: { enabled: false },
            grid: { ...quiet().grid, padding: { left: 8, right: 44, top: -10, bottom: -4 } },
            xaxis: {
              type: 'numeric',
              min: fromMin,
              max: endMin,
              tickAmount: Math.min(isNarrow() ? 4 : 12, Math.max(2, Math.round((endMin - fromMin) / 5))),
              labels: {
                rotate: 0,
                hideOverlappingLabels: true,
                formatter: (value: string) => `${Math.round(Number(value))} min`,
              },
              axisBorder: { show: false },
              tooltip: { enabled: false },
            },
            yaxis: {
              min: 0,
              tickAmount: 8,
              labels: { formatter: (value: number) => `${Math.round(value)} ${unit}` },
            },
            annotations: {
              xaxis:
                zero === null
                  ? []
                  : [
                      {
                        x: 0,
                        borderColor: main,
                        strokeDashArray: 2,
                        label: {
                          text: zero,
                          orientation: 'horizontal',
                          borderWidth: 0,
                          style: { background: 'transparent', color: main },
                        },
                      },
                    ],
              points: endLabels(lines, PER_PIXEL).map(({ x, y, name, index, offsetY }) => ({
                x,
                y,
                marker: { size: 0 },
                label: {
                  text: name,
                  borderWidth: 0,
                  textAnchor: 'start' as const,
                  offsetX: 6,
                  offsetY: offsetY + 6,
                  style: {
                    background: 'transparent',
                    color: colours[index] ?? main,
                    fontSize: '13px',
                    fontWeight: 600,
                  },
                },
              })),
            },
          }}
        />
      </div>
    </figure>
  );
}
