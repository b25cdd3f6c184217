import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import useSWR from 'swr';
import type { LoadView } from '@wunsch/core/api/roast';
import { fitWords } from '@wunsch/core/roast/fit';
import type { Study } from '@wunsch/core/roast/study';
import { clock } from '@wunsch/core/roast/words';
import { untilWords, useNow } from '../app/DueLine';
import RoastChart from '../charts/RoastChart';
import { useApi } from '../parts/api';
import { Caution, Loading, Refusal, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { timed } from '../parts/worked';
import { loggedLoads, roasting, useRoasters } from './compute';
import { CurveImport } from './CurveImport';
import { FillSection } from './FillSection';
import { curveLines, plainLine, settingLine } from './lines';
import { LoadFigures } from './LoadFigures';
import { LoadScores, LoadWords, RemoveCurve } from './LoadRecords';
import { RoastingNav } from './RoastingNav';

/** One load: what it means, how it went, and what became of it. */
export function LoadPage() {
  const { code = '' } = useParams();
  const answer = useApi(`/api/roast/loads/${encodeURIComponent(code)}`);
  if (!answer.data) return <Loading error={answer.error} />;
  return <Load key={answer.data.loadId} load={answer.data} />;
}

function Load({ load }: { load: LoadView }) {
  const show = useShow();
  const now = useNow();
  const { temperatureUnit } = useHere().view.settings;
  const roasters = useRoasters();
  const roaster = roasters?.find(({ id }) => id === load.machineId);
  const worked = useSWR<Study, unknown>(
    roasters
      ? ['roast-study', load.code, load.source, load.weightLeft, load.kill, roaster?.curves, temperatureUnit]
      : null,
    async () => {
      const others = roaster ? await loggedLoads(roaster.id, load.kind === 'nib') : [];
      return timed('roast-study', () => roasting().study(load, roaster?.facts.kind ?? 'oven', others, temperatureUnit));
    },
    { revalidateOnFocus: false, revalidateIfStale: false, keepPreviousData: true },
  );
  const study = worked.data ?? null;
  const cooling = load.coolAt !== null && load.coolAt > now && load.winnow === null;
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">
          <span className="code">{load.code}</span> {load.name}
        </h1>
        <RoastingNav />
      </div>
      <p className="mt-1 text-lg text-soft">
        Roasted {show.moment(load.at)} by {load.person}
        {load.roaster !== null && `, ${load.roaster}`}, {show.mass(load.inG * 1000)} in,{' '}
        {show.mass(load.inG * load.weightLeft * 1000)} out.{' '}
        {load.program === null ? (
          'No program.'
        ) : load.how?.programId != null ? (
          <Link className="link" to={`/roasting/program/${load.how.programId}`}>
            {load.program}
          </Link>
        ) : (
          load.program
        )}
        {cooling && load.coolAt !== null && (
          <strong className="text-ink">
            {' '}
            Crack it after {show.time(load.coolAt)}, {untilWords(load.coolAt, now)}.
          </strong>
        )}
      </p>
      <div className="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0">
          <Judgement study={study} error={worked.error} />
          {load.curveData ? <Curve load={load} study={study} /> : <CurveImport code={load.code} />}
          <LoadFigures load={load} study={study} />
          <FillSection load={load} />
        </div>
        <aside aria-label="Result, records and cautions" className="min-w-0">
          <Section title="What became of it">
            <dl className="rows text-sm">
              <Row name="Winnowed">
                {load.winnow ? (
                  <Link className="link" to={`/step/${load.winnow.stepId}`}>
                    {show.percent(load.winnow.nibYield)} nib
                    {load.winnow.shell !== null && `, ${show.percent(load.winnow.shell, 2)} shell in it`}
                  </Link>
                ) : (
                  'not yet'
                )}
              </Row>
              <Row name={load.fillOf?.startsWith('B') ? 'In the bowl of' : 'Went into'}>
                {load.fillOf === null ? (
                  'not yet'
                ) : (
                  <Link
                    className="code link"
                    to={load.fillOf.startsWith('B') ? `/batch/${load.fillOf}` : `/tub/${load.fillOf}`}
                  >
                    {load.fillOf}
                  </Link>
                )}
              </Row>
            </dl>
          </Section>
          <LoadScores load={load} />
          <LoadWords load={load} />
          <Section title="Elsewhere">
            <ul className="grid gap-0.5 text-sm">
              <li>
                <Link className="link inline-flex min-h-9 items-center" to={`/roasting/compare?codes=${load.code}`}>
                  Compare with other loads
                </Link>
              </li>
              <li>
                <Link className="link inline-flex min-h-9 items-center" to={`/step/${load.stepId}`}>
                  Its weights, cost and correction
                </Link>
              </li>
              {load.curve && (
                <li className="flex gap-4">
                  {(['csv', 'json'] as const).map((form) => (
                    <a
                      key={form}
                      className="link inline-flex min-h-9 items-center"
                      href={`/api/roast/loads/${load.code}/curve.${form}`}
                      download={`${load.code}.${form}`}
                    >
                      Curve as {form.toUpperCase()}
                    </a>
                  ))}
                </li>
              )}
            </ul>
            {load.source === 'file' && <RemoveCurve code={load.code} />}
          </Section>
          <div className="mt-5 grid gap-3">
            <Caution>
              A roast is a kill step only if it was validated for this load; your food-safety plan decides.
            </Caution>
          </div>
          {study && <p className="mt-4 text-sm text-soft">{fitWords(study.fit, temperatureUnit)}</p>}
        </aside>
      </div>
    </>
  );
}

const Row = ({ name, children }: { name: ReactNode; children: ReactNode }) => (
  <div className="flex justify-between gap-4 py-1.5">
    <dt className="text-soft">{name}</dt>
    <dd className="text-right">{children}</dd>
  </div>
);

function Judgement({ study, error }: { study: Study | null; error: unknown }) {
  if (!study && error !== undefined) return <Refusal error={error} />;
  if (!study)
    return (
      <p className="min-h-40 py-4 text-soft" aria-busy="true">
        Looking at the load …
      </p>
    );
  const { tone, headline, why, todo } = study.judgement;
  return (
    <section
      aria-label="Judgement"
      className={`rounded-md px-5 py-4 ${tone === 'watch' ? 'bg-ripe-wash' : tone === 'good' ? 'bg-leaf-wash' : 'bg-sunk'}`}
    >
      <p className="figure text-[1.9rem] leading-tight">{headline}</p>
      {todo !== null && <p className="mt-2 text-lg">{todo}</p>}
      <p className="mt-2 max-w-4xl leading-relaxed text-soft">{why.join(' ')}</p>
    </section>
  );
}

/** How it went over what was planned; under it how fast the beans climbed. */
function Curve({ load, study }: { load: LoadView; study: Study | null }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  if (!load.curveData) return null;
  const { seconds } = load.curveData;
  const endS = load.how?.seconds ?? seconds.at(-1) ?? 0;
  const lines = curveLines(load.curveData, show.fromCelsius);
  const settings = load.how?.settings ?? [];
  const plan = study?.plan ?? null;
  const endMin = Math.ceil((Math.max(endS / 60, plan?.middle.totalMin ?? 0) + 0.6) / 5) * 5;
  const climb = study?.smooth ? climbLine(study.smooth, show.fromCelsius(1) - show.fromCelsius(0)) : [];
  const stretches = [
    ...(study?.clean?.gaps ?? []).map((row) => ({ ...row, word: 'not read' })),
    ...(study?.clean?.stuck ?? []).map((row) => ({ ...row, word: 'probe stuck' })),
    ...(study?.stalls ?? []).map((row) => ({ ...row, word: 'stood still' })),
    ...(study?.jumps ?? []).map((row) => ({ ...row, word: 'jumped' })),
  ].map(({ fromS, toS, word }) => ({ from: fromS / 60, to: toS / 60, word }));
  return (
    <div className="mt-5">
      <RoastChart
        caption="Over the minutes; the band is where eight in ten such loads would run"
        endMin={endMin}
        unit={`°${temperatureUnit}`}
        height={320}
        low={0}
        band={plan?.minutes.map((x, i) => ({
          x,
          low: show.fromCelsius(plan.low[i] ?? 0),
          high: show.fromCelsius(plan.high[i] ?? 0),
        }))}
        lines={[
          ...(plan
            ? [
                {
                  name: 'planned',
                  look: 'plan' as const,
                  points: plainLine(plan.middle.minutes, plan.middle.beanC, show.fromCelsius, 120),
                },
              ]
            : []),
          ...(settings.length > 0
            ? [{ name: 'set', look: 'set' as const, points: settingLine(settings, endS, show.fromCelsius) }]
            : []),
          ...(lines.air.length > 0 ? [{ name: 'air', look: 'air' as const, points: lines.air }] : []),
          { name: 'beans', look: 'bean', points: lines.bean },
        ]}
        marks={[
          ...(load.how?.signs ?? []).map(({ second, what }) => ({ x: second / 60, word: what })),
          ...(load.how?.stirs ?? []).map((second) => ({ x: second / 60, word: 'stirred' })),
        ]}
        stretches={stretches}
      />
      {climb.length > 0 && (
        <RoastChart
          caption={`How fast the beans climbed, °${temperatureUnit} a minute, over 45 seconds`}
          endMin={endMin}
          unit="°/min"
          height={140}
          low={0}
          lines={[{ name: 'climb', look: 'set', points: climb }]}
        />
      )}
      {study?.figures && (
        <p className="sr-only">
          The beans ended at {show.temp(study.figures.endC ?? 0)} after {clock(endS)}.
        </p>
      )}
    </div>
  );
}

/** The first two minutes belong to the probe, not to the beans. */
const SETTLED_S = 120;
const CLIMB_POINTS = 240;

function climbLine({ seconds, climb }: NonNullable<Study['smooth']>, scale: number) {
  const every = Math.max(1, Math.ceil(seconds.length / CLIMB_POINTS));
  return Array.from(seconds, (second, i) => ({ x: second / 60, y: climb[i] ?? NaN, keep: i % every === 0 }))
    .filter(({ x, keep }) => keep && x * 60 >= SETTLED_S)
    .map(({ x, y }) => ({ x, y: Number.isFinite(y) ? Math.round(y * scale * 100) / 100 : null }));
}
