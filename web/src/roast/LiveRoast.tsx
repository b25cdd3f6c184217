import { lazy, Suspense, useMemo, useState, type ReactNode } from 'react';
import type { WorkView } from '@wunsch/core/api/types';
import { gapsOf } from '@wunsch/core/roast/curve';
import { isDue, nextAct, nextStirS, whereIn, type NextAct } from '@wunsch/core/roast/live';
import { layerOf, programMinutes } from '@wunsch/core/roast/program';
import { clock, SIGNS } from '@wunsch/core/roast/words';
import { send } from '../parts/api';
import { NumberBox } from '../parts/fields';
import { readNumber } from '../parts/number';
import { Caution, Figure, Loading, Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { roasting, useFit, useWorked } from './compute';
import { curveLines, plainLine, settingLine } from './lines';
import { SimulatedProbe } from './SimulatedProbe';
import { useLive, type Live } from './useLive';
import { WeighOut } from './WeighOut';

const RoastChart = lazy(() => import('../charts/RoastChart'));

/** A roast that is in the roaster: what to do next, how it goes, what was noticed; then the scale. */
export function LiveRoast({
  work,
  onDone,
  onSaved,
}: {
  work: WorkView;
  onDone: () => void;
  /** Takes the code of the load that was weighed out. */
  onSaved: (code: string | undefined) => void;
}) {
  const { live, error } = useLive(work.id);
  if (!live) return <Loading error={error} />;
  return <Roasting live={live} work={work} onDone={onDone} onSaved={onSaved} />;
}

const usePress = (workId: string) => {
  const { busy, error, run } = useSave();
  const press = (name: string, body: object = {}): void =>
    void run(() => send('POST', `/api/roast/live/${workId}/${name}`, body));
  return { busy, error, press };
};

function Roasting({
  live,
  work,
  onDone,
  onSaved,
}: {
  live: Live;
  work: WorkView;
  onDone: () => void;
  onSaved: (code: string | undefined) => void;
}) {
  const show = useShow();
  const { view, curve, second, silent } = live;
  const { roast, roaster } = view;
  const { busy, error, press } = usePress(work.id);
  const massG = work.massMg / 1000;
  const out = roast.seconds !== null;
  const beanC = curve.beanC.findLast((tempC) => tempC !== null) ?? null;
  const airC = curve.airC.findLast((tempC) => tempC !== null) ?? null;
  const fit = useFit(
    roaster,
    work.sources.some(({ kind }) => kind === 'nibs'),
  );
  // Every few seconds is often enough to look ahead.
  const looked = Math.floor(second / 5);
  const ahead = useWorked(fit && beanC !== null && !out ? `${looked} ${roast.settings.length}` : null, async () =>
    fit ? roasting().ahead(roast, massG, fit, curve) : null,
  );
  const start = { beanC: roast.beanStartC ?? 20, moisture: (roast.moisturePct ?? 7) / 100 };
  const plan = useWorked(fit && roast.plan ? JSON.stringify([roast.plan.steps, fit.loads.length]) : null, async () => {
    if (!fit || !roast.plan) throw new Error('no plan');
    const layerMm = roast.layerMm ?? layerOf(massG, roaster?.facts ?? null);
    return roasting().band(roast.plan, { massG, layerMm }, fit, start, []);
  });
  const { climb, stuckS } = useProbe(live);
  const next = out ? null : nextAct(roast.plan, roast.settings);
  return (
    <div>
      <div className="mb-5 grid grid-cols-2 gap-x-6 gap-y-4 sm:grid-cols-4">
        <Figure
          label="In the roaster"
          value={clock(second)}
          note={`${show.mass(work.massMg)}${roast.probe === 'simulated' ? ', simulated probe' : ''}${roast.speed > 1 ? `, ${roast.speed} times as fast` : ''}`}
        />
        <Figure
          label="Beans"
          value={beanC === null ? '–' : show.temp(Math.round(beanC * 10) / 10)}
          note={
            roast.probe === 'hand' ? (
              'read by hand'
            ) : silent && !out ? (
              <strong className="text-crimson">the probe is silent</strong>
            ) : stuckS !== null && !out ? (
              <strong className="text-crimson">the probe is stuck since {clock(stuckS)}</strong>
            ) : climb === null ? (
              'climb not known yet'
            ) : (
              `${climb >= 0 ? '+' : '−'}${Math.abs(show.tempOut(climb) - show.tempOut(0)).toFixed(1)}° a minute`
            )
          }
        />
        <Figure
          label="Air"
          value={airC === null ? '–' : show.temp(Math.round(airC))}
          note={`set to ${setWords(live, show.temp)}`}
        />
        <Figure
          label="Expected out"
          value={ahead?.outS == null ? '–' : clock(ahead.outS)}
          note={
            ahead?.endC == null
              ? roast.plan
                ? 'by the plan'
                : 'no program'
              : `beans at ${show.temp(Math.round(ahead.endC))}`
          }
        />
      </div>
      {!out && <Next next={next} live={live} aheadS={ahead?.stepEndsS ?? null} busy={busy} press={press} />}
      <div className={out ? '' : 'grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_11rem]'}>
        {!out && <Signs live={live} busy={busy} press={press} />}
        <div className="min-w-0 lg:order-first">
          <LiveChart live={live} plan={plan} ahead={ahead} />
        </div>
      </div>
      {silent && !out && roast.probe !== 'hand' && (
        <p role="alert" className="mt-2 rounded-md bg-crimson-wash px-4 py-2">
          Nothing is heard from the probe since {clock(curve.seconds.at(-1) ?? 0)}. The clock and the program go on;
          look at its lead and plug. The gap stays a gap.
        </p>
      )}
      {stuckS !== null && !silent && !out && (
        <p role="alert" className="mt-2 rounded-md bg-crimson-wash px-4 py-2">
          The probe says the very same since {clock(stuckS)}: no bean does that. Go by time, smell and colour, and hold
          a thermometer into the beans.
        </p>
      )}
      <Refusal error={error} />
      {out ? (
        <WeighOut live={live} work={work} press={press} onSaved={onSaved} />
      ) : (
        <>
          <div className="mt-5 flex flex-wrap items-center gap-x-8 gap-y-3">
            <HandReading press={press} />
            <OwnSetting press={press} />
          </div>
          {roast.probe === 'simulated' && (
            <details className="mt-3">
              <summary className="label min-h-11 cursor-pointer py-3">This probe is simulated</summary>
              <SimulatedProbe speeds={false} />
            </details>
          )}
          <PutBack work={work} onDone={onDone} />
        </>
      )}
      {(roast.plan?.kind === 'nib' || work.sources.some(({ kind }) => kind === 'nibs')) && (
        <div className="mt-4">
          <Caution>Nibs scorch quicker than whole beans and smoke early: thin layer, stir, stay.</Caution>
        </div>
      )}
    </div>
  );
}

function setWords({ view: { roast } }: Live, temp: (c: number) => string): string {
  const { setC } = whereIn(roast.plan, roast.settings);
  return setC === null ? 'nothing known' : temp(setC);
}

/** Climb over the last minute, and whether the probe is stuck; worked out off the page. */
function useProbe({ curve, second }: Live): { climb: number | null; stuckS: number | null } {
  const from = Math.max(0, curve.seconds.length - 400);
  const tail = { seconds: curve.seconds.slice(from), beanC: curve.beanC.slice(from), airC: curve.airC.slice(from) };
  return (
    useWorked(curve.seconds.length > 20 ? `${Math.floor(second / 3)}` : null, () => roasting().now(tail)) ?? {
      climb: null,
      stuckS: null,
    }
  );
}

interface Pressing {
  live: Live;
  busy: boolean;
  press: (name: string, body?: object) => void;
}

/** The one thing to do next, with the time until then. */
function Next({ next, live, aheadS, busy, press }: Pressing & { next: NextAct | null; aheadS: number | null }) {
  const show = useShow();
  const { view, second, curve } = live;
  const { roast, roaster } = view;
  const stirS = nextStirS(roast.plan?.stirEveryMin ?? null, roast.stirs);
  const stirDue = stirS !== null && second >= stirS;
  const beanC = curve.beanC.findLast((tempC) => tempC !== null) ?? null;
  const due = isDue(roast, second, beanC);
  const itself = roaster?.facts.setBy === 'itself' && next?.act.what === 'set';
  const what =
    next === null
      ? 'No program: it comes out when you say so.'
      : next.act.what === 'out'
        ? 'Take it out'
        : `${(whereIn(roast.plan, roast.settings).setC ?? 0) > next.act.setC ? 'Lower' : 'Raise'} to ${show.temp(next.act.setC)}`;
  const late = next?.atS == null ? 0 : second - next.atS;
  return (
    <section
      aria-label="What is next"
      className={`mb-4 rounded-md px-4 py-3 ${due || stirDue ? 'bg-ripe-wash' : 'bg-sheet'}`}
    >
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <p className="figure flex-1 text-2xl leading-tight">
          {what}
          {next !== null && ' '}
          {next !== null &&
            (due ? <span className="text-crimson">now</span> : <When next={next} second={second} aheadS={aheadS} />)}
          {next?.act.what === 'set' && next.act.note !== '' && (
            <span className="block pt-1 font-sans text-base font-normal text-soft">{next.act.note}</span>
          )}
          {itself && (
            <span className="block pt-1 font-sans text-base font-normal text-soft">{roaster.name} sets itself.</span>
          )}
        </p>
        <span className="flex flex-wrap gap-2">
          {next?.act.what === 'set' && !itself && (
            <>
              {late > 45 && (
                <button
                  type="button"
                  className="button"
                  disabled={busy}
                  onClick={() => press('settings', { onTime: true })}
                >
                  Done, on time
                </button>
              )}
              <button
                type="button"
                className={`button ${due ? 'button-main' : ''}`}
                disabled={busy}
                onClick={() => press('settings')}
              >
                {due ? 'Done' : 'Done already'}
              </button>
            </>
          )}
          <button
            type="button"
            className={`button ${next === null || next.act.what === 'out' ? 'button-main' : ''} ${due ? 'text-lg' : ''}`}
            disabled={busy}
            onClick={() => press('stop')}
          >
            It is out
          </button>
        </span>
      </div>
      {stirS !== null && (
        <div className="mt-2 flex flex-wrap items-center justify-between gap-3 border-t border-rule pt-2">
          <p className={stirDue ? 'font-semibold text-crimson' : 'text-soft'}>
            {stirDue ? `Stir now, ${clock(second - stirS)} over` : `Stir in ${clock(stirS - second)}`}
            {roast.stirs.length > 0 && `, stirred ${roast.stirs.length === 1 ? 'once' : `${roast.stirs.length} times`}`}
          </p>
          <button
            type="button"
            className={`button ${stirDue ? 'button-main' : ''}`}
            disabled={busy}
            onClick={() => press('stirs')}
          >
            Stirred
          </button>
        </div>
      )}
    </section>
  );
}

/** `in 0:40`; for a temperature or a sign, about when, and at the latest when. */
function When({ next, second, aheadS }: { next: NextAct; second: number; aheadS: number | null }) {
  const show = useShow();
  const latest = next.atS === null ? null : clock(Math.max(0, next.atS - second));
  if (next.sooner === null) return <>in {latest}</>;
  if (next.sooner.what === 'sign')
    return (
      <>
        with “{next.sooner.sign}”<Latest words={latest} />
      </>
    );
  const about =
    aheadS === null || (next.atS !== null && aheadS >= next.atS - 1) ? null : clock(Math.max(0, aheadS - second));
  return (
    <>
      when the beans have {show.temp(next.sooner.beanC)}
      {about !== null && `, in about ${about}`}
      <Latest words={latest} />
    </>
  );
}

const Latest = ({ words }: { words: string | null }): ReactNode =>
  words === null ? null : <span className="text-soft">, in {words} at the latest</span>;

function LiveChart({
  live: { view, curve, second },
  plan,
  ahead,
}: {
  live: Live;
  plan: Awaited<ReturnType<ReturnType<typeof roasting>['band']>> | null;
  ahead: Awaited<ReturnType<ReturnType<typeof roasting>['ahead']>> | null;
}) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const { roast } = view;
  const count = curve.seconds.length;
  const lines = useMemo(
    () => curveLines(curve, show.tempOut),
    // Readings are only ever added.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [count, temperatureUnit],
  );
  const band = plan
    ? plan.minutes.map((x, i) => ({ x, low: show.tempOut(plan.low[i] ?? 0), high: show.tempOut(plan.high[i] ?? 0) }))
    : undefined;
  const planned = roast.plan ? programMinutes(roast.plan.steps) : 0;
  const endMin =
    Math.ceil(Math.max(planned, plan?.totalMin.high ?? 0, (ahead?.outS ?? 0) / 60, second / 60, 10) / 5 + 0.2) * 5;
  const gaps = gapsOf(
    curve.seconds,
    curve.beanC.map((value) => value ?? NaN),
  );
  return (
    <Suspense fallback={<div className="h-[420px]" />}>
      <RoastChart
        caption="Over the minutes; the band is where eight in ten such loads would run"
        endMin={endMin}
        unit={`°${temperatureUnit}`}
        band={band}
        height={400}
        low={0}
        lines={[
          ...(plan
            ? [
                {
                  name: 'planned',
                  look: 'plan' as const,
                  points: plainLine(plan.middle.minutes, plan.middle.beanC, show.tempOut, 120),
                },
              ]
            : []),
          { name: 'set', look: 'set', points: settingLine(roast.settings, second, show.tempOut) },
          ...(lines.air.length > 0 ? [{ name: 'air', look: 'air' as const, points: lines.air }] : []),
          ...(ahead && roast.seconds === null
            ? [
                {
                  name: 'ahead',
                  look: 'ahead' as const,
                  points: plainLine(ahead.minutes, ahead.beanC, show.tempOut, 80),
                },
              ]
            : []),
          { name: 'beans', look: 'bean', points: lines.bean },
        ]}
        marks={[
          ...roast.signs.map(({ second: at, what }) => ({ x: at / 60, word: what })),
          ...roast.stirs.map((at) => ({ x: at / 60, word: 'stirred' })),
        ]}
        stretches={gaps.map(({ fromS, toS }) => ({ from: fromS / 60, to: toS / 60, word: 'not read' }))}
      />
    </Suspense>
  );
}

function Signs({ live, busy, press }: Pressing) {
  const { roast } = live.view;
  const [own, setOwn] = useState('');
  const noticed = new Set(roast.signs.map(({ what }) => what));
  const wanted = roast.plan?.steps.flatMap(({ until }) => (until?.what === 'sign' ? [until.sign] : [])) ?? [];
  const used = [...new Set([...SIGNS, ...wanted, ...live.view.ownSigns, ...noticed])];
  const last = roast.signs.at(-1);
  return (
    <section aria-label="What do you notice">
      <h2 className="mb-2 text-lg">What do you notice?</h2>
      <div className="flex flex-wrap gap-2 lg:grid lg:gap-1.5">
        {used.map((what) => (
          <button
            key={what}
            type="button"
            className="chip min-h-[52px]! lg:min-h-[44px]! lg:justify-start"
            aria-pressed={noticed.has(what)}
            disabled={busy}
            onClick={() => press('signs', { what })}
          >
            {what}
          </button>
        ))}
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (own.trim() === '') return;
            press('signs', { what: own.trim() });
            setOwn('');
          }}
        >
          <input
            className="entry w-44! min-w-0 lg:w-full!"
            placeholder="own words"
            aria-label="In your own words"
            value={own}
            maxLength={40}
            onChange={(event) => setOwn(event.target.value)}
          />
          <button type="submit" className="button px-3!" disabled={busy || own.trim() === ''}>
            Note
          </button>
        </form>
      </div>
      {last && (
        <button
          type="button"
          className="button button-quiet mt-1 px-0! text-sm"
          disabled={busy}
          onClick={() => press('undo', { what: 'sign' })}
        >
          Take “{last.what}” back
        </button>
      )}
    </section>
  );
}

/** A thermometer held into the beans. */
function HandReading({ press }: { press: Pressing['press'] }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  return (
    <OneFigure
      label={`Beans, by hand (°${temperatureUnit})`}
      button="Log it"
      take={(value) => press('readings', { beanC: show.tempIn(value) })}
    />
  );
}

function OwnSetting({ press }: { press: Pressing['press'] }) {
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  return (
    <OneFigure
      label={`Set otherwise (°${temperatureUnit})`}
      button="Set"
      take={(value) => press('settings', { setC: show.tempIn(value) })}
    />
  );
}

function OneFigure({ label, button, take }: { label: string; button: string; take: (value: number) => void }) {
  const [text, setText] = useState('');
  const value = readNumber(text);
  const enter = (): void => {
    if (value === null) return;
    take(value);
    setText('');
  };
  return (
    <span className="flex items-end gap-2">
      <NumberBox label={label} value={text} onChange={setText} onEnter={enter} className="w-40" />
      <button type="button" className="button mb-0.5" disabled={value === null} onClick={enter}>
        {button}
      </button>
    </span>
  );
}

function PutBack({ work, onDone }: { work: WorkView; onDone: () => void }) {
  const show = useShow();
  const { error, run } = useSave();
  return (
    <>
      <button
        type="button"
        className="button button-quiet mt-2"
        onClick={() => {
          if (
            !window.confirm(
              `Put ${show.mass(work.massMg)} back as if this had not begun? Its curve and signs are thrown away.`,
            )
          )
            return;
          void run(() => send('DELETE', `/api/ledger/works/${work.id}`)).then((done) => done && onDone());
        }}
      >
        Put it all back
      </button>
      <Refusal error={error} />
    </>
  );
}
