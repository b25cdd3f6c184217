import type { LearnedView } from '@wunsch/core/api/temper';
import { celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { Chart, ink, quiet } from './base';

const TESTS = [
  ['set', 'set'],
  ['slow', 'slow'],
  ['failed', 'failed'],
] as const;

/** Settings against results: how far each tested pour was cooled and how warm it was worked, and how its test came out. */
export default function SettingsChart({
  pours,
  on,
  unit,
}: {
  pours: LearnedView['pours'];
  /** Machine or method, in words. */
  on: string;
  unit: TemperatureUnit;
}) {
  const colours = ink();
  const out = (c: number): number => Math.round(10 * celsiusTo(c, unit)) / 10;
  const series = TESTS.map(([test, words]) => ({
    name: words,
    data: pours.filter((row) => row.test === test).map(({ coolC, workC }) => ({ x: out(coolC), y: out(workC) })),
  }));
  const xs = pours.map(({ coolC }) => out(coolC));
  const ys = pours.map(({ workC }) => out(workC));
  return (
    <figure className="mt-3">
      <figcaption className="label">
        Worked at, over cooled to, on {on}: {series.map(({ name, data }) => `${data.length} ${name}`).join(', ')}
      </figcaption>
      <div aria-hidden>
        <Chart
          type="scatter"
          height={230}
          series={series}
          options={{
            ...quiet(),
            legend: { show: true, position: 'top', horizontalAlign: 'left' },
            colors: [colours.leaf, colours.ripe, colours.crimson],
            markers: { size: 7, shape: ['circle', 'square', 'cross'] as never, strokeWidth: 1 },
            xaxis: {
              type: 'numeric',
              min: Math.floor(Math.min(...xs) - 0.5),
              max: Math.ceil(Math.max(...xs) + 0.5),
              tickAmount: 4,
              labels: { formatter: (value: string) => `${Number(value).toFixed(1)} °${unit}` },
              axisBorder: { show: false },
            },
            yaxis: {
              min: Math.floor(Math.min(...ys) - 0.5),
              max: Math.ceil(Math.max(...ys) + 0.5),
              tickAmount: 4,
              labels: { formatter: (value: number) => `${value.toFixed(1)} °${unit}` },
            },
            tooltip: { enabled: false },
          }}
        />
      </div>
    </figure>
  );
}
