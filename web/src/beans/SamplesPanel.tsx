import { Link } from 'react-router';
import type { SampleView } from '@wunsch/core/api/beans';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { useShow } from '../parts/workshop';

type Row = readonly [
  name: string,
  value: (sample: SampleView) => string,
  better: 'low' | 'high' | null,
  of: (sample: SampleView) => number | null,
];

const pct = (value: number | null, digits = 1): string =>
  value === null ? '–' : `${(100 * value).toFixed(digits)}\u00a0%`;
const moisture = ({ inspection }: SampleView): number | null => {
  const values = inspection?.value.moisturePct ?? [];
  return values.length === 0 ? null : values.reduce((a, b) => a + b, 0) / values.length;
};
const count = ({ inspection }: SampleView): number | null => {
  const values = inspection?.value.per100g ?? [];
  return values.length === 0 ? null : values.reduce((a, b) => a + b, 0) / values.length;
};

/** Samples side by side: what was found in each, before anything is bought. */
export function SamplesPanel() {
  const show = useShow();
  const answer = useApi('/api/beans/samples');
  if (!answer.data) return <Loading error={answer.error} />;
  const { samples } = answer.data;
  if (samples.length === 0) {
    return (
      <Empty
        title="No samples yet."
        action={
          <Link className="button button-main" to="/station/beans?show=receive">
            Receive a sample
          </Link>
        }
      >
        A kilogram or two, received as a sample, goes the way of any lot: inspect it, make a small batch, taste. Here
        they stand side by side.
      </Empty>
    );
  }
  const rows: Row[] = [
    [
      'Score',
      ({ score }) => (score === null ? 'not tasted' : `${score.toFixed(1)} of 10`),
      'high',
      ({ score }) => score,
    ],
    ['Grade', ({ inspection }) => inspection?.cut?.sentence ?? 'not cut', null, () => null],
    [
      'Faulty by count',
      ({ inspection }) => pct(inspection?.shares?.defective.share ?? null),
      'low',
      ({ inspection }) => inspection?.shares?.defective.share ?? null,
    ],
    [
      'Slaty',
      ({ inspection }) => pct(inspection?.shares?.slaty.share ?? null),
      'low',
      ({ inspection }) => inspection?.shares?.slaty.share ?? null,
    ],
    [
      'Moisture',
      (sample) => (moisture(sample) === null ? '–' : `${moisture(sample)?.toFixed(1)}\u00a0%`),
      null,
      () => null,
    ],
    ['Beans in 100 g', (sample) => (count(sample) === null ? '–' : (count(sample)?.toFixed(0) ?? '')), 'low', count],
    ['Picked out', ({ sortRejectShare }) => pct(sortRejectShare), 'low', ({ sortRejectShare }) => sortRejectShare],
    ['Nib yield', ({ nibYield }) => pct(nibYield), 'high', ({ nibYield }) => nibYield],
    [
      'Price',
      ({ facts }) => (facts.pricePerKg === undefined ? '–' : show.priceIn(facts.pricePerKg, facts.currency ?? '')),
      'low',
      ({ facts }) => facts.pricePerKg ?? null,
    ],
    [
      'Fermented',
      ({ papers }) =>
        [papers.vessel, papers.fermentDays === null ? '' : `${papers.fermentDays} days`]
          .filter((text) => text !== '')
          .join(', ') || '–',
      null,
      () => null,
    ],
    ['Received', ({ receivedAt }) => show.day(receivedAt), null, () => null],
  ];
  const shown = samples.slice(0, 4);
  return (
    <div className="overflow-x-auto">
      <table className="w-full table-fixed text-left">
        <colgroup>
          <col className="w-36" />
        </colgroup>
        <thead>
          <tr>
            <td />
            {shown.map((sample) => (
              <th key={sample.id} scope="col" className="pr-4 pb-2 align-top font-normal">
                <Link className="code link text-xl" to={`/lot/${sample.code}`}>
                  {sample.code}
                </Link>
                <span className="block">{sample.name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, value, better, of]) => {
            const known = shown.map(of).filter((row) => row !== null);
            const best =
              better === null || known.length < 2 ? null : better === 'low' ? Math.min(...known) : Math.max(...known);
            return (
              <tr key={name} className="border-t border-rule">
                <th scope="row" className="py-2 pr-4 font-normal whitespace-nowrap text-soft">
                  {name}
                </th>
                {shown.map((sample) => (
                  <td key={sample.id} className="py-2 pr-4">
                    {value(sample)}
                    {best !== null && of(sample) === best && <span className="ml-2 text-sm text-leaf">better</span>}
                  </td>
                ))}
              </tr>
            );
          })}
          <tr className="border-t border-rule">
            <td />
            {shown.map((sample) => (
              <td key={sample.id} className="py-3 pr-4">
                {sample.boughtAs.length > 0 ? (
                  <span className="text-soft">
                    bought as{' '}
                    {sample.boughtAs.map(({ code }) => (
                      <Link key={code} className="link code" to={`/lot/${code}`}>
                        {code}
                      </Link>
                    ))}
                  </span>
                ) : (
                  <Link className="button" to={`/station/beans?show=receive&sample=${sample.code}`}>
                    Buy this
                  </Link>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
