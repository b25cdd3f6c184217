import type { ReadingView } from '@wunsch/core/api/types';
import { Chart, ink, quiet } from './base';

/** Fineness against hours on the stones, with the target as a band. */
export default function GrindChart({
  startedAt,
  readings,
  target,
}: {
  startedAt: number;
  readings: readonly ReadingView[];
  target: number;
}) {
  const colours = ink();
  const data = readings.flatMap(({ at, value }) =>
    value === null ? [] : [{ x: Math.round(((at - startedAt) / 3_600_000) * 10) / 10, y: value }],
  );
  const most = Math.max(...data.map(({ y }) => y), target) * 1.1;
  const longest = Math.max(24, ...data.map(({ x }) => x)) * 1.1;
  return (
    <figure>
      <figcaption className="label">
        Fineness in µm against hours on the stones; the band is the target, give or take 2 µm
      </figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={210}
          series={[{ name: 'µm', data }]}
          options={{
            ...quiet(),
            stroke: { width: 2, curve: 'straight' },
            colors: [colours.ink],
            markers: { size: 5, strokeWidth: 0 },
            xaxis: {
              type: 'numeric',
              min: 0,
              max: longest,
              tickAmount: 6,
              decimalsInFloat: 0,
              labels: { formatter: (value: string) => `${Math.round(Number(value))} h` },
              axisBorder: { show: false },
            },
            yaxis: {
              min: 0,
              max: Math.ceil(most / 10) * 10,
              tickAmount: 4,
              labels: { formatter: (value: number) => `${Math.round(value)} µm` },
            },
            annotations: {
              yaxis: [
                { y: target - 2, y2: target + 2, fillColor: colours.leaf, opacity: 0.22, borderColor: 'transparent' },
              ],
            },
          }}
        />
      </div>
    </figure>
  );
}
