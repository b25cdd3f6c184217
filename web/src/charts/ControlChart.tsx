import type { SeriesView } from '@wunsch/core/api/losses';
import { dateFormat } from '@wunsch/core/units/formats';
import { useHere } from '../parts/workshop';
import { Chart, ink, quiet } from './base';

/** Points in order against their natural limits; where a rule fires they are marked, and where it began is a band. */
export default function ControlChart({ view, open }: { view: SeriesView; open: (stepId: string) => void }) {
  const colours = ink();
  const { timeZone } = useHere().view.settings;
  const day = dateFormat({ timeZone, day: 'numeric', month: 'short' });
  const { points, chart, change, metric } = view;
  const data = points.map(({ level }, index) => ({ x: index + 1, y: Math.round(level * 10_000) / 100 }));
  const values = data.map(({ y }) => y);
  const low = Math.min(...values, (chart?.lower ?? 1) * 100);
  const high = Math.max(...values, (chart?.upper ?? 0) * 100);
  const pad = Math.max(0.2, (high - low) * 0.1);
  const lowIndex = change ? points.findIndex(({ at }) => at === change.lowAt) + 1 : 0;
  const highIndex = change ? points.findIndex(({ at }) => at === change.highAt) + 1 : 0;
  return (
    <figure>
      <figcaption className="label">
        {metric === 'yield' ? 'Yield' : 'Unaccounted'}, % of what went in, one point a step, families brought to one
        level; band: natural limits
        {change && '; crimson band: when the change began'}
      </figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={260}
          series={[{ name: metric, data }]}
          options={{
            ...quiet(),
            chart: {
              ...quiet().chart,
              events: {
                markerClick: (_event: unknown, _context: unknown, { dataPointIndex }: { dataPointIndex: number }) => {
                  const point = points[dataPointIndex];
                  if (point) open(point.stepId);
                },
              },
            },
            stroke: { width: 1.4, curve: 'straight' },
            colors: [colours.ink],
            markers: {
              size: 3.5,
              strokeWidth: 0,
              hover: { size: 7 },
              discrete: points.flatMap(({ signal }, dataPointIndex) =>
                signal === null
                  ? []
                  : [
                      {
                        seriesIndex: 0,
                        dataPointIndex,
                        fillColor: colours.crimson,
                        strokeColor: colours.crimson,
                        size: 6,
                      },
                    ],
              ),
            },
            xaxis: {
              type: 'numeric',
              min: 1,
              max: Math.max(2, points.length),
              tickAmount: Math.min(8, points.length),
              labels: {
                formatter: (value: string) => {
                  const point = points[Math.round(Number(value)) - 1];
                  return point ? day.format(point.at) : '';
                },
              },
              axisBorder: { show: false },
              tooltip: { enabled: false },
            },
            yaxis: {
              min: low - pad,
              max: high + pad,
              tickAmount: 4,
              labels: { formatter: (value: number) => `${value.toFixed(1)}\u00a0%` },
            },
            annotations: {
              yaxis: chart
                ? [
                    {
                      y: chart.lower * 100,
                      y2: chart.upper * 100,
                      fillColor: colours.leaf,
                      opacity: 0.14,
                      borderColor: 'transparent',
                    },
                    { y: chart.mean * 100, borderColor: colours.leaf, strokeDashArray: 0 },
                  ]
                : [],
              xaxis: change
                ? [
                    {
                      x: Math.max(1, lowIndex - 0.4),
                      x2: highIndex + 0.4,
                      fillColor: colours.crimson,
                      opacity: 0.14,
                      borderColor: 'transparent',
                      label: {
                        text: 'began here',
                        orientation: 'horizontal',
                        borderWidth: 0,
                        style: { background: 'transparent', color: colours.crimson },
                      },
                    },
                  ]
                : [],
            },
          }}
        />
      </div>
    </figure>
  );
}
