import type { HistoryView } from '@wunsch/core/api/taste';
import { Chart, ink, quiet } from './base';

type Product = HistoryView['products'][number];

/** Scores of one product, batch by batch with its usual band, or over the age of its bars. */
export default function HistoryChart({
  product: { name, batches, tastings, verdict },
  what,
  over,
}: {
  product: Product;
  /** `overall`, or one of the scales. */
  what: string;
  over: 'batch' | 'age';
}) {
  const colours = ink();
  const outside = new Set(verdict?.outside.map(({ code }) => code));
  const points = tastings.flatMap(({ code, ageDays, values }) => {
    const value = values[what];
    return value === undefined ? [] : [{ code, ageDays, value }];
  });
  const tenth = (value: number): number => Math.round(10 * value) / 10;
  const means = batches.map(({ code, score }) => {
    if (what === 'overall') return tenth(score);
    const own = points.filter((point) => point.code === code);
    return own.length === 0 ? null : tenth(own.reduce((sum, { value }) => sum + value, 0) / own.length);
  });
  const band = what === 'overall' && over === 'batch' ? verdict : null;
  const shown = over === 'age' ? points.map(({ value }) => value) : means.filter((value) => value !== null);
  const low = Math.max(0, Math.floor(Math.min(...shown, band?.lower ?? 10) - 0.3));
  const top = Math.min(10, Math.ceil(Math.max(...shown, band?.upper ?? 0) + 0.3));
  // Ticks at whole points, every one or every other.
  const high = top - low > 4 && (top - low) % 2 === 1 ? top + 1 : top;
  const base = quiet();
  return (
    <figure>
      <figcaption className="sr-only">
        {name}: {what}, {over === 'age' ? 'over the age of the bars' : 'batch by batch'}
      </figcaption>
      <div aria-hidden>
        <Chart
          key={over}
          type={over === 'age' ? 'scatter' : 'line'}
          height={150}
          series={[
            over === 'age'
              ? { name: what, data: points.map(({ ageDays, value }) => ({ x: Math.round(ageDays), y: tenth(value) })) }
              : { name: what, data: means },
          ]}
          options={{
            ...base,
            stroke: { width: over === 'age' ? 0 : 1.5, curve: 'straight' },
            colors: [colours.ink],
            markers: {
              size: 3,
              strokeWidth: 0,
              discrete:
                over === 'age'
                  ? []
                  : batches.flatMap(({ code }, i) =>
                      band && outside.has(code)
                        ? [
                            {
                              seriesIndex: 0,
                              dataPointIndex: i,
                              fillColor: colours.crimson,
                              strokeColor: colours.crimson,
                              size: 6,
                            },
                          ]
                        : [],
                    ),
            },
            xaxis: {
              ...(over === 'age'
                ? {
                    type: 'numeric',
                    tickAmount: 5,
                    labels: { formatter: (days: string) => `${Math.round(Number(days))} d` },
                  }
                : { categories: batches.map(({ code }) => code), labels: { show: batches.length <= 12 } }),
              axisTicks: { show: false },
              axisBorder: { show: false },
              tooltip: { enabled: false },
            },
            yaxis: {
              min: low,
              max: high,
              tickAmount: high - low <= 4 ? high - low : (high - low) / 2,
              labels: { formatter: (value: number) => value.toFixed(0) },
            },
            annotations: band
              ? {
                  yaxis: [
                    {
                      y: band.lower,
                      y2: band.upper,
                      fillColor: colours.leaf,
                      opacity: 0.13,
                      borderColor: 'transparent',
                    },
                    { y: band.mean, borderColor: colours.leaf, strokeDashArray: 0 },
                  ],
                }
              : {},
          }}
        />
      </div>
    </figure>
  );
}
