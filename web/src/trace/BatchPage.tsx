import { Link, useParams } from 'react-router';
import type { BatchView } from '@wunsch/core/api/types';
import type { HoldingKind } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { useNow } from '../app/DueLine';
import { useApi } from '../parts/api';
import { Log } from '../parts/log';
import { Figure, HoldingRow, KIND_NAMES, Loading, Section } from '../parts/pieces';
import { cocoaNote, CompositionTable } from '../parts/Composition';
import { MarkList } from '../parts/marks';
import { count, MassUnitHere, span, useShow, useUnitOf } from '../parts/workshop';
import { Looks } from '../temper/Looks';
import { BatchStream } from '../stream/BatchStream';

/** One batch from sacks to bars. */
export function BatchPage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/trace/batches/${encodeURIComponent(code)}`);
  const view = answer.data;
  // One unit a page, by the most that was in the batch at any station.
  const unit = useUnitOf((view?.stream ?? []).map(({ inMg, goodMg }) => Math.max(inMg, goodMg)));
  const show = useShow(unit);
  const now = useNow();
  if (!view) return <Loading error={answer.error} />;
  const { batch, cost, bars, goods } = view;
  const last = goods.at(-1);
  if (!last) return <Loading />;
  const { composition } = last;
  const off = batch.cocoaTargetPct === null ? null : composition.cocoaPct - batch.cocoaTargetPct;
  const score =
    view.tastings.length > 0 ? view.tastings.reduce((sum, row) => sum + row.score, 0) / view.tastings.length : null;
  return (
    <MassUnitHere value={unit}>
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
      <MarkList marks={view.marks} />
      <div className="mt-5 grid grid-cols-2 gap-x-6 gap-y-5 sm:grid-cols-3 lg:grid-cols-5">
        <Figure
          label={goods.length > 1 ? `Cocoa, ${GOODS_WORDS[last.what] ?? KIND_NAMES[last.what]}` : 'Cocoa'}
          value={`${composition.cocoaPct.toFixed(1)}\u00a0%`}
          note={
            <>
              {cocoaNote(composition)}
              {goods.length > 1 && `; ${goods[0]?.composition.cocoaPct.toFixed(1)}\u00a0% in the bowl`}
              {off !== null && Math.abs(off) >= 0.5 && (
                <strong className="block text-crimson">
                  {Math.abs(off).toFixed(1)} points {off > 0 ? 'over' : 'under'} the {batch.cocoaTargetPct}&nbsp;% meant
                </strong>
              )}
            </>
          }
        />
        <Figure
          label="Bars"
          value={count(bars.made)}
          note={bars.made > 0 ? `${count(bars.standing)} here, ${count(bars.sold)} sold` : 'none yet'}
        />
        <Figure
          label="Bean to bar"
          value={view.beanToBar === null ? '–' : show.percent(view.beanToBar)}
          note="cacao in bars of green beans"
        />
        <Figure
          label={cost.perBarMilli === null ? `Cost a ${show.heavyWord} so far` : 'Cost a bar'}
          value={
            cost.perBarMilli === null
              ? cost.perKgMilli === null
                ? '–'
                : show.price(cost.perKgMilli)
              : show.money(cost.perBarMilli)
          }
          note={
            cost.perBarMilli === null || cost.perKgMilli === null
              ? 'bean, pantry, hands, power'
              : `${show.price(cost.perKgMilli)} a ${show.heavy}`
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
          {goods.map(({ codes, what, composition: made }, index) => (
            <Section
              key={codes[0]}
              title={
                goods.length === 1
                  ? 'What is in it'
                  : index === 0
                    ? 'What is in the bowl'
                    : `What is in ${GOODS_WORDS[what] ?? KIND_NAMES[what]}`
              }
              aside={index === 0 ? undefined : codes.slice(0, 6).join(', ')}
            >
              <CompositionTable composition={made} totalMg={index === 0 ? view.chargedMg : undefined} />
            </Section>
          ))}
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
          <Looks code={batch.code} batchId={batch.id} />
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
                  A {show.heavyWord} after{' '}
                  {cost.byStation
                    .map(
                      ({ station, perKgMilli }) => `${STATION_NAMES[station].toLowerCase()} ${show.price(perKgMilli)}`,
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
    </MassUnitHere>
  );
}

/** What goods are called in a sentence. */
const GOODS_WORDS: Partial<Record<HoldingKind, string>> = {
  mass: 'the mass',
  block: 'the blocks',
  tempered: 'the pour',
  bars: 'the bars',
  packed: 'the packed bars',
};

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
