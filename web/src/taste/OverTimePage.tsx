import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { SCALES } from '@wunsch/core/taste/records';
import { useApi } from '../parts/api';
import { Chips } from '../parts/fields';
import { Empty, Loading, Section } from '../parts/pieces';
import { capital } from '../parts/words';
import { useShow } from '../parts/workshop';
import { TasteHead } from './TasteNav';
import { Overrule } from '../parts/Overrule';

const HistoryChart = lazy(() => import('../charts/HistoryChart'));

/** Last year's bar: is it as it was? And: which sample to buy. */
export function OverTimePage() {
  const show = useShow();
  const { data, error } = useApi('/api/taste/history');
  const [what, setWhat] = useState('overall');
  const [over, setOver] = useState<'batch' | 'age'>('batch');
  const samples = useApi('/api/taste/samples').data;
  if (!data) return <Loading error={error} />;
  const scales = SCALES.filter((scale) =>
    data.products.some(({ tastings }) => tastings.some(({ values }) => values[scale] !== undefined)),
  );
  const ageWords = (days: number | null): string => (days === null ? '' : `, ${Math.round(days)} days old`);
  return (
    <>
      <TasteHead title="Over time">
        Is it as it was? Scores of each bar over its batches; one outside its usual band is named, with what differed.
      </TasteHead>
      {data.products.length === 0 && (
        <Empty title="Nothing was tasted yet.">Every batch gets its score at the Taste bench.</Empty>
      )}
      {data.products.length > 0 && (
        <div className="mb-6 flex flex-wrap gap-x-8 gap-y-3">
          <Chips
            legend="Of the sheet"
            options={[['overall', 'Overall'], ...scales.map((scale) => [scale, capital(scale)] as const)]}
            chosen={[what]}
            choose={([next]) => setWhat(next ?? 'overall')}
          />
          <Chips
            legend="Along"
            options={[
              ['batch', 'Batches'],
              ['age', 'Age of the bars'],
            ]}
            chosen={[over]}
            choose={([next]) => setOver(next ?? 'batch')}
          />
        </div>
      )}
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-2">
        {data.products.map((product) => {
          const { name, batches, verdict } = product;
          const last = batches.at(-1);
          return (
            <section key={name} aria-label={name}>
              <h2 className="text-xl">{name}</h2>
              <p className={verdict?.outside.length ? 'font-semibold' : ''}>
                {verdict?.sentence ??
                  `${batches.length} ${batches.length === 1 ? 'batch' : 'batches'} tasted: from five on there is a usual band.`}
              </p>
              {verdict && <Overrule judged="history" subject={name} said={verdict.sentence} />}
              {batches.length > 1 && (
                <Suspense fallback={<div className="h-[150px]" />}>
                  <HistoryChart product={product} what={what} over={over} />
                </Suspense>
              )}
              <p className="text-sm text-soft">
                {(verdict?.outside ?? []).map(({ code, differed }) => (
                  <span key={code} className="block">
                    <Link className="code link" to={`/batch/${code}`}>
                      {code}
                    </Link>{' '}
                    {differed.length === 0
                      ? 'was made as always, as far as it was logged.'
                      : differed
                          .slice(0, 3)
                          .map(
                            ({ fact, value, usual }) =>
                              `${data.factNames[fact] ?? fact} ${value.toFixed(1)}, usually ${usual.toFixed(1)}`,
                          )
                          .join('; ')}
                  </span>
                ))}
                {last && (
                  <>
                    Last:{' '}
                    <Link className="code link" to={`/batch/${last.code}`}>
                      {last.code}
                    </Link>{' '}
                    {last.score.toFixed(1)} from {last.tasters} {last.tasters === 1 ? 'taster' : 'tasters'}
                    {ageWords(last.ageDays)}.
                  </>
                )}
              </p>
            </section>
          );
        })}
      </div>
      {samples && samples.samples.length > 0 && (
        <Section title="Buy this sample?" id="samples">
          <p className="figure text-xl">{samples.sentence}</p>
          <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-label="Samples and the present bean">
            <table className="w-full min-w-[34rem]">
              <thead className="label text-left">
                <tr>
                  <th className="font-normal">Beans</th>
                  <th className="text-right font-normal">Score</th>
                  <th className="text-right font-normal">Landed, a {show.heavy}</th>
                  <th className="text-right font-normal">Beans in a bar</th>
                </tr>
              </thead>
              <tbody>
                {samples.samples.map((row) => (
                  <tr key={row.code} className="border-t border-rule">
                    <td className="py-1.5">
                      <Link className="code link" to={`/lot/${row.code}`}>
                        {row.code}
                      </Link>{' '}
                      {row.name} <span className="text-soft">{row.standing === 'present' && 'bought now'}</span>
                    </td>
                    <td className="figure text-right">{row.score?.toFixed(1) ?? 'not tasted'}</td>
                    <td className="figure text-right">
                      {row.landedPerKgMilli === null ? '–' : show.price(row.landedPerKgMilli)}
                    </td>
                    <td className="figure text-right">
                      {row.costPerBarMilli === null ? '–' : show.money(row.costPerBarMilli)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="mt-1 text-sm text-soft">
            Beans in a bar of {show.pieceMass(70_000)} with 70 % cocoa, through the yields that winnowing has here.{' '}
            <Link className="link" to="/session/new">
              Taste them blind
            </Link>
          </p>
        </Section>
      )}
    </>
  );
}
