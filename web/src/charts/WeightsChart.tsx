import type { WeightStudy } from '@wunsch/core/mould/weights';
import { individuals } from '@wunsch/core/stats/individuals';
import { Chart, ink, quiet } from './base';

/** Weights of single pieces in the order in which they were weighed, with the declared weight and the error under it. */
export default function WeightsChart({
  weightsG,
  declaredG,
  study,
}: {
  weightsG: readonly number[];
  declaredG: number;
  study: WeightStudy;
}) {
  const colours = ink();
  const chart = weightsG.length >= 5 ? individuals(weightsG) : null;
  const short = study.errorG === null ? declaredG : declaredG - study.errorG;
  const low = Math.min(...weightsG, short, chart?.lower ?? Infinity) - 0.5;
  const high = Math.max(...weightsG, declaredG, chart?.upper ?? 0) + 0.5;
  const line = (y: number, text: string, colour: string) => ({
    y,
    borderColor: colour,
    strokeDashArray: 0,
    label: {
      text,
      position: 'right',
      textAnchor: 'end',
      borderWidth: 0,
      style: { background: 'transparent', color: colours.soft },
    },
  });
  return (
    <figure className="mt-2">
      <figcaption className="label">
        Grams a piece, in order; mean {study.meanG.toFixed(1)} g
        {study.sdG !== null && `, spread ${study.sdG.toFixed(2)} g`}
        {chart && '; band: natural limits'}
      </figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={150}
          series={[{ name: 'weight', data: weightsG.map((y, index) => ({ x: index + 1, y })) }]}
          options={{
            ...quiet(),
            stroke: { width: 1.6, curve: 'straight' },
            colors: [colours.ink],
            markers: { size: 4, strokeWidth: 0 },
            xaxis: {
              type: 'numeric',
              tickAmount: Math.min(8, Math.max(1, weightsG.length - 1)),
              labels: { formatter: (value: string) => String(Math.round(Number(value))) },
              axisBorder: { show: false },
            },
            yaxis: {
              min: low,
              max: high,
              tickAmount: 3,
              labels: { formatter: (value: number) => `${value.toFixed(1)} g` },
            },
            annotations: {
              yaxis: [
                ...(chart
                  ? [{ y: chart.lower, y2: chart.upper, fillColor: colours.leaf, opacity: 0.1, borderWidth: 0 }]
                  : []),
                line(declaredG, `declared ${declaredG} g`, colours.ink),
                ...(study.errorG === null ? [] : [line(short, `short under ${short.toFixed(1)} g`, colours.crimson)]),
              ],
            },
            tooltip: { enabled: false },
          }}
        />
      </div>
    </figure>
  );
}
