import type { HistoryPoint } from '@wunsch/core/api/types';
import type { Individuals } from '@wunsch/core/stats/individuals';
import { Chart, ink, quiet } from './base';

/** Yields one by one, in order, with the natural limits of the newest one's family as a band. */
export default function YieldChart({
  points,
  chart,
  watch,
}: {
  points: readonly HistoryPoint[];
  chart: Individuals | null;
  /** The newest one wants a look: only then it is drawn in the colour of alarm. */
  watch: boolean;
}) {
  const colours = ink();
  const newest = watch ? colours.crimson : colours.leaf;
  const family = points.at(-1)?.family ?? '';
  const own = points.filter((point) => point.family === family);
  const values = own.map(({ value }) => Math.round(value * 1000) / 10);
  const low = Math.min(...values, (chart?.lower ?? 1) * 100);
  const high = Math.max(...values, (chart?.upper ?? 0) * 100);
  const pad = Math.max(0.5, (high - low) * 0.12);
  const base = quiet();
  return (
    <figure>
      <figcaption className="label">Yield, % good out of in{family === '' ? '' : ` · ${family}`}</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={170}
          series={[{ name: 'yield', data: values }]}
          options={{
            ...base,
            stroke: { width: 1.5, curve: 'straight' },
            colors: [colours.ink],
            markers: {
              size: 3,
              strokeWidth: 0,
              discrete: [
                {
                  seriesIndex: 0,
                  dataPointIndex: values.length - 1,
                  fillColor: newest,
                  strokeColor: newest,
                  size: 5,
                },
              ],
            },
            xaxis: {
              labels: { show: false },
              axisTicks: { show: false },
              axisBorder: { show: false },
              tooltip: { enabled: false },
              categories: own.map(({ code }) => code),
            },
            yaxis: {
              min: low - pad,
              max: high + pad,
              tickAmount: 3,
              labels: { formatter: (value: number) => `${value.toFixed(1)}` },
            },
            annotations: chart
              ? {
                  yaxis: [
                    {
                      y: chart.lower * 100,
                      y2: Math.min(100, chart.upper * 100),
                      fillColor: colours.leaf,
                      opacity: 0.13,
                      borderColor: 'transparent',
                    },
                    { y: chart.mean * 100, borderColor: colours.leaf, strokeDashArray: 0 },
                  ],
                }
              : {},
          }}
        />
      </div>
    </figure>
  );
}
