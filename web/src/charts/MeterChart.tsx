import { memo } from 'react';
import { celsiusTo } from '@wunsch/core/units/temperature';
import { useHere } from '../parts/workshop';
import { Chart, ink, quiet } from './base';

/** Temperature of a sample over minutes, with where its curve bends. */
function MeterChart({
  points,
  bend,
}: {
  points: readonly { second: number; tempC: number }[];
  bend: { tempC: number } | null;
}) {
  const { temperatureUnit: unit } = useHere().view.settings;
  const colours = ink();
  const out = (c: number): number => celsiusTo(c, unit);
  return (
    <figure>
      <figcaption className="label">Temperature of the sample by minutes</figcaption>
      <div aria-hidden>
        <Chart
          type="line"
          height={170}
          series={[{ name: 'sample', data: points.map(({ second, tempC }) => ({ x: second / 60, y: out(tempC) })) }]}
          options={{
            ...quiet(),
            stroke: { width: 2.5, curve: 'straight' },
            colors: [colours.ink],
            xaxis: {
              type: 'numeric',
              tickAmount: 5,
              labels: { formatter: (value: string) => `${Math.round(Number(value))} min` },
              axisBorder: { show: false },
            },
            yaxis: { tickAmount: 3, labels: { formatter: (value: number) => `${Math.round(value)} °${unit}` } },
            annotations: {
              yaxis: bend
                ? [
                    {
                      y: out(bend.tempC),
                      borderColor: colours.leaf,
                      strokeDashArray: 0,
                      label: {
                        text: 'bend',
                        position: 'right',
                        textAnchor: 'end',
                        borderWidth: 0,
                        style: { background: 'transparent', color: colours.soft },
                      },
                    },
                  ]
                : [],
            },
            tooltip: { enabled: false },
          }}
        />
      </div>
    </figure>
  );
}

export default memo(MeterChart);
