import { Link, useParams } from 'react-router';
import type { LotView } from '@wunsch/core/api/types';
import { useApi } from '../parts/api';
import { Caution, Figure, Loading, Log, Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { BatchStream } from '../stream/BatchStream';

/** One lot: its papers, its price, and everything it became. */
export function LotPage() {
  const { code = '' } = useParams();
  const answer = useApi<LotView>(`/api/trace/lots/${encodeURIComponent(code)}`);
  const show = useShow();
  const view = answer.data;
  if (!view) return <Loading error={answer.error} />;
  const { facts, holding } = view;
  const left = holding.massMg / Math.max(1, view.receivedMg);
  const papers: [string, string][] = [
    ['Producer', facts.producer],
    ['Country', facts.country],
    ['Region', facts.region],
    ['Variety', facts.variety],
    ['Harvest', facts.harvest],
    ['Route', view.route.name],
    ['Received', show.day(view.receivedAt)],
  ];
  const wet = facts.moisturePct !== null && facts.moisturePct > 8;
  return (
    <>
      <h1 className="text-4xl">
        <span className="code">{view.code}</span> {view.name}
      </h1>
      <div className="mt-5 grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-4">
        <Figure
          label="Left of it"
          value={show.mass(holding.massMg)}
          note={`${show.percent(left, 0)} of ${show.mass(view.receivedMg)}, ${facts.sacks} sacks`}
        />
        <Figure label="Landed" value={show.money(view.landedPerKgMilli)} note="a kilogram of green beans" />
        <Figure
          label="Moisture"
          value={facts.moisturePct === null ? '–' : `${facts.moisturePct.toFixed(1)} %`}
          note={
            facts.moisturePct === null ? (
              'not measured'
            ) : wet ? (
              <strong className="text-crimson">over 8 %: mould grows</strong>
            ) : facts.moisturePct < 6 ? (
              'under 6 %: brittle shell'
            ) : (
              'at most 8 % wanted'
            )
          }
        />
        <Figure
          label="Batches"
          value={view.batches.length}
          note={`${view.batches.reduce((sum, { bars }) => sum + bars, 0).toLocaleString('en-GB')} bars have some of it`}
        />
      </div>
      {facts.note !== '' && <p className="mt-4 max-w-3xl rounded-md bg-ripe-wash px-4 py-3">{facts.note}</p>}
      <Section
        title="What became of it"
        aside={
          <Link className="link" to={`/trace/${view.code}`}>
            trace every bar
          </Link>
        }
      >
        <BatchStream stream={view.stream} title={`Stream of ${view.code}`} />
      </Section>
      <div className="mt-8 grid gap-10 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <Section title="Batches with some of it">
          {view.batches.length === 0 ? (
            <p className="text-soft">None yet.</p>
          ) : (
            <ul className="rows">
              {view.batches.slice(0, 60).map(({ batch, share, bars, score }) => (
                <li
                  key={batch.id}
                  className="grid grid-cols-[4rem_minmax(0,1fr)_4rem_5rem_3rem] items-baseline gap-3 py-2"
                >
                  <Link className="code link" to={`/batch/${batch.code}`}>
                    {batch.code}
                  </Link>
                  <span className="truncate">{batch.name}</span>
                  <span className="text-right text-sm text-soft">{share > 0.999 ? 'all' : show.percent(share, 0)}</span>
                  <span className="text-right">{bars > 0 ? `${bars} bars` : ''}</span>
                  <span className="figure text-right">{score === null ? '' : score.toFixed(1)}</span>
                </li>
              ))}
            </ul>
          )}
        </Section>
        <div>
          <Section
            title="Papers"
            aside={
              <Link className="link" to={`/step/${view.receiptId}`}>
                correct them
              </Link>
            }
          >
            <dl className="rows">
              {papers
                .filter(([, value]) => value !== '')
                .map(([name, value]) => (
                  <div key={name} className="grid grid-cols-[6rem_1fr] gap-3 py-1.5">
                    <dt className="text-soft">{name}</dt>
                    <dd>{value}</dd>
                  </div>
                ))}
            </dl>
            <div className="mt-4">
              <Caution>Raw beans are not ready to eat: keep raw and roasted apart.</Caution>
            </div>
          </Section>
          <Section title="Log">
            <Log steps={view.steps.slice(0, 14)} />
          </Section>
        </div>
      </div>
    </>
  );
}
