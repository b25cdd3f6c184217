import { Chart, ink, quiet } from './base';

/** Fineness by running hours: what was read, what is to be expected, and the target. */
export default function ForecastChart({
  caption,
  curve,
  readings,
  target,
  nowH,
}: {
  caption: string;
  curve: readonly { hour: number; p10: number; p50: number; p90: number }[];
  readings: readonly { x: number; y: number }[];
  target: number;
  nowH: number;
}) {
  const colours = ink();
  // The first hours are coarser than any gauge reads.
  const top = Math.ceil(Math.min(120, Math.max(2.5 * target, ...readings.map(({ y }) => 1.1 * y))) / 20) * 20;
  const shown = curve.filter(({ p50 }) => Number.isFinite(p50));
  const endH = Math.max(nowH, shown.at(-1)?.hour ?? nowH);
  const every = endH > 72 ? 24 : endH > 30 ? 12 : 6;
  return (
    <figure>
      <figcaption className="label">{caption}</figcaption>
      <div aria-hidden>
        <Chart
          type="rangeArea"
          height={260}
          series={
            [
              {
                name: 'eight in ten',
                type: 'rangeArea',
                data: shown.map(({ hour, p10, p90 }) => ({ x: hour, y: [Math.min(top, p10), Math.min(top, p90)] })),
              },
              {
                name: 'expected',
                type: 'line',
                data: shown.map(({ hour, p50 }) => ({ x: hour, y: Math.min(top, p50) })),
              },
              { name: 'read', type: 'line', data: readings.map(({ x, y }) => ({ x, y: Math.min(top, y) })) },
            ] as never
          }
          options={{
            ...quiet(),
            stroke: { width: [0, 2, 0], curve: 'straight', dashArray: [0, 5, 0] },
            colors: [colours.leaf, colours.ink, colours.ink],
            fill: { opacity: [0.2, 1, 1] },
            markers: { size: [0, 0, 6], strokeWidth: 0 },
            xaxis: {
              type: 'numeric',
              min: 0,
              max: Math.ceil(endH / every) * every,
              tickAmount: Math.ceil(endH / every),
              decimalsInFloat: 0,
              labels: { formatter: (value: string) => `${Math.round(Number(value))} h` },
              axisBorder: { show: false },
            },
            yaxis: {
              min: 0,
              max: top,
              tickAmount: top / 20,
              labels: { formatter: (value: number) => `${Math.round(value)} µm` },
            },
            annotations: {
              yaxis: [
                {
                  y: target,
                  borderColor: colours.leaf,
                  strokeDashArray: 0,
                  label: {
                    text: `target ${target} µm`,
                    position: 'left',
                    textAnchor: 'start',
                    borderWidth: 0,
                    style: { background: 'transparent', color: colours.soft },
                  },
                },
              ],
              xaxis: [
                {
                  x: nowH,
                  borderColor: colours.soft,
                  strokeDashArray: 0,
                  label: {
                    text: 'now',
                    offsetY: 12,
                    textAnchor: 'start',
                    offsetX: 6,
                    orientation: 'horizontal',
                    borderWidth: 0,
                    style: { background: 'transparent', color: colours.soft },
                  },
                },
              ],
            },
            tooltip: { enabled: false },
          }}
        />
      </div>
    </figure>
  );
}
