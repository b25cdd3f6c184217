import { Link, useParams } from 'react-router';
import type { BatchView } from '@wunsch/core/api/types';
import { STATION_NAMES } from '@wunsch/core/workshop/stations';
import { useNow } from '../app/DueLine';
import { useApi } from '../parts/api';
import { Code, Figure, HoldingRow, Loading, Log, Section } from '../parts/pieces';
import { span, useShow } from '../parts/workshop';
import { BatchStream } from '../stream/BatchStream';

/** One batch from sacks to bars. */
export function BatchPage() {
  const { code = '' } = useParams();
  const answer = useApi<BatchView>(`/api/trace/batches/${encodeURIComponent(code)}`);
  const show = useShow();
  const now = useNow();
  const view = answer.data;
  if (!view) return <Loading error={answer.error} />;
  const { batch, cocoa, cost, bars } = view;
  const off = batch.cocoaTargetPct === null ? null : cocoa.cocoaPct - batch.cocoaTargetPct;
  const score =
    view.tastings.length > 0 ? view.tastings.reduce((sum, row) => sum + row.score, 0) / view.tastings.length : null;
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-8 gap-y-1">
        <h1 className="text-4xl">
          <span className="code">{batch.code}</span> {batch.name}
        </h1>
        <p className="text-soft">
          {STATE_WORDS[view.state]}, {view.route.name}, began {show.day(view.startedAt)}
        </p>
      </div>
      <p className={`mt-1 text-lg ${view.origin.kind === 'blend' ? 'font-semibold text-crimson' : 'text-soft'}`}>
        {view.origin.sentence}
      </p>
      <div className="mt-5 grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-3 lg:grid-cols-5">
        <Figure
          label="Cocoa"
          value={`${cocoa.cocoaPct.toFixed(1)} %`}
          note={
            <>
              {cocoa.withoutButterPct.toFixed(1)} % without added butter
              {off !== null && Math.abs(off) >= 0.5 && (
                <strong className="block text-crimson">
                  {Math.abs(off).toFixed(1)} points {off > 0 ? 'over' : 'under'} the {batch.cocoaTargetPct} % meant
                </strong>
              )}
            </>
          }
        />
        <Figure
          label="Bars"
          value={bars.made.toLocaleString('en-GB')}
          note={bars.made > 0 ? `${bars.standing} here, ${bars.sold} sold` : 'none yet'}
        />
        <Figure
          label="Bean to bar"
          value={view.beanToBar === null ? '–' : show.percent(view.beanToBar)}
          note="cacao in bars of green beans"
        />
        <Figure
          label={cost.perBarMilli === null ? 'Cost a kilogram so far' : 'Cost a bar'}
          value={
            cost.perBarMilli === null
              ? cost.perKgMilli === null
                ? '–'
                : show.money(cost.perKgMilli)
              : show.money(cost.perBarMilli)
          }
          note={
            cost.perBarMilli === null || cost.perKgMilli === null
              ? 'bean, pantry, hands, power'
              : `${show.money(cost.perKgMilli)} a kg`
          }
        />
        <Figure
          label="Taste"
          value={score === null ? '–' : score.toFixed(1)}
          note={score === null ? 'not tasted' : `of 10, ${view.tastings.length} tastings`}
        />
      </div>
      <Section
        title="Where the grams went"
        aside={
          <Link className="link" to={`/trace/${batch.code}`}>
            trace both ways
          </Link>
        }
      >
        <BatchStream stream={view.stream} title={`Stream of ${batch.code}`} />
      </Section>
      <div className="mt-8 grid gap-10 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div>
          <Section title="What is in it">
            <table className="w-full text-left">
              <thead className="label">
                <tr>
                  <th className="py-1 font-normal">Code</th>
                  <th className="font-normal">What</th>
                  <th className="text-right font-normal">Weight</th>
                  <th className="text-right font-normal">Share</th>
                </tr>
              </thead>
              <tbody className="rows">
                {view.composition.map((row) => (
                  <tr key={row.rootId} className="border-t border-rule">
                    <td className="py-2">
                      <Code code={row.code} kind={row.kind === 'cacao' ? 'lot' : 'ingredient'} />
                    </td>
                    <td>{row.name}</td>
                    <td className="text-right">{show.mass(row.mg)}</td>
                    <td className="text-right">{show.percent(row.share)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {cocoa.allergens.length > 0 && (
              <p className="mt-2 text-sm font-semibold">Allergens in it: {cocoa.allergens.join(', ')}.</p>
            )}
          </Section>
          {view.standing.length > 0 && (
            <Section title="Standing now">
              <ul className="rows">
                {view.standing.map((holding) => (
                  <HoldingRow key={holding.id} holding={holding} />
                ))}
              </ul>
            </Section>
          )}
          {view.tastings.length > 0 && (
            <Section title="Tasted" aside={disagreement(view.tastings.map(({ score: s }) => s))}>
              <ul className="rows">
                {view.tastings.map((row) => (
                  <li key={row.stepId} className="grid grid-cols-[3.5rem_1fr] gap-3 py-2">
                    <span className="figure text-2xl">{row.score}</span>
                    <span>
                      {row.note === '' ? <span className="text-soft">no words</span> : row.note}
                      <span className="block text-sm text-soft">
                        {row.person}, {show.day(row.at)}
                      </span>
                    </span>
                  </li>
                ))}
              </ul>
            </Section>
          )}
        </div>
        <div>
          {cost.parts.length > 0 && (
            <Section title={cost.perBarMilli === null ? 'Where the money went' : 'In the cost of one bar'}>
              <ul className="rows">
                {cost.parts.map(({ name, milli }) => (
                  <li key={name} className="flex justify-between gap-4 py-1.5">
                    <span>{name}</span>
                    <span className="figure">{show.money(milli)}</span>
                  </li>
                ))}
              </ul>
              {cost.byStation.length > 0 && (
                <p className="mt-3 text-sm text-soft">
                  A kilogram after{' '}
                  {cost.byStation
                    .map(
                      ({ station, perKgMilli }) => `${STATION_NAMES[station].toLowerCase()} ${show.money(perKgMilli)}`,
                    )
                    .join(', ')}
                  .
                </p>
              )}
            </Section>
          )}
          <Section
            title="Log"
            aside={
              view.emptiedAt === null
                ? `${span(now - view.startedAt)} on the stones`
                : `${span(view.emptiedAt - view.startedAt)} on the stones`
            }
          >
            <Log steps={[...view.steps].reverse()} />
          </Section>
        </div>
      </div>
    </>
  );
}

const STATE_WORDS: Record<BatchView['state'], string> = {
  grinding: 'On the stones',
  'in progress': 'On its way',
  bars: 'In the store',
  gone: 'Sold out',
};

/** Two people far apart are worth a second tasting; says so. */
function disagreement(scores: readonly number[]): string | null {
  const spread = Math.max(...scores) - Math.min(...scores);
  return scores.length > 1 && spread >= 3 ? `tasters ${spread.toFixed(1)} points apart: taste again, blind` : null;
}
