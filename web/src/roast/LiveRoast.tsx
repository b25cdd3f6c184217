import { usePress } from './usePress';
import { useState } from 'react';
import type { WorkView } from '@wunsch/core/api/types';
import { climbAgainst, nextAct, plannedClimb, whereIn } from '@wunsch/core/roast/live';
import { layerOf, programMinutes } from '@wunsch/core/roast/program';
import { clock } from '@wunsch/core/roast/words';
import { isSure } from '../parts/asking';
import { send } from '../parts/api';
import { Caution, Figure, Loading, Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useShow } from '../parts/workshop';
import { useWorked } from '../parts/worked';
import { roasting, useFit } from './compute';
import { LiveChart } from './LiveChart';
import { HandReading, OwnSetting } from './LiveEntries';
import { SignLane } from './SignLane';
import { NextAct } from './NextAct';
import { SimulatedProbe } from './SimulatedProbe';
import { useLive, type Live } from './useLive';
import { WeighOut } from './WeighOut';

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
  const { busy, error, press, note } = usePress(work.id);
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
    fit ? roasting().ahead({ ...roast, moisturePct: 100 * view.moisture }, massG, fit, curve) : null,
  );
  const start = { beanC: roast.beanStartC ?? 20, moisture: view.moisture };
  const plan = useWorked(fit && roast.plan ? JSON.stringify([roast.plan.steps, fit.loads.length]) : null, async () => {
    if (!fit || !roast.plan) throw new Error('no plan');
    const layerMm = roast.layerMm ?? layerOf(massG, roaster?.facts ?? null);
    return roasting().band(roast.plan, { massG, layerMm }, fit, start, []);
  });
  const { climb, stuckS } = useProbe(live);
  const next = out ? null : nextAct(roast.plan, roast.settings);
  const [plot, setPlot] = useState<{ left: number; width: number } | null>(null);
  const planned = roast.plan ? programMinutes(roast.plan.steps) : 0;
  const endMin =
    Math.ceil(Math.max(planned, plan?.totalMin.high ?? 0, (ahead?.outS ?? 0) / 60, second / 60, 10) / 5 + 0.2) * 5;
  const meant = plan ? plannedClimb(plan.middle.minutes, plan.middle.beanC, second / 60) : null;
  return (
    <div>
      <div className="mb-3 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
        <Figure
          small
          label="In the roaster"
          value={clock(second)}
          note={`${show.mass(work.massMg)}${roast.probe === 'simulated' ? ', simulated probe' : ''}${roast.speed > 1 ? `, ${roast.speed} times as fast` : ''}`}
        />
        <Figure
          small
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
              `${climb < 0 ? '−' : ''}${Math.abs(show.fromCelsius(climb) - show.fromCelsius(0)).toFixed(1)}° a minute${meant === null ? '' : `, ${climbAgainst(climb, meant)}`}`
            )
          }
        />
        <Figure
          small
          label="Air"
          value={airC === null ? '–' : show.temp(Math.round(airC))}
          note={`set to ${setWords(live, show.temp)}`}
        />
        {!out && (
          <Figure
            small
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
        )}
      </div>
      {!out && <NextAct next={next} live={live} aheadS={ahead?.stepEndsS ?? null} busy={busy} press={press} />}
      {live.trouble !== null && (
        <p role="alert" className="mb-4 rounded-md bg-crimson-wash px-4 py-2">
          {live.trouble}
        </p>
      )}
      {silent && !out && roast.probe !== 'hand' && (
        <p role="alert" className="mb-4 rounded-md bg-crimson-wash px-4 py-2">
          Nothing is heard from the probe since {clock(curve.seconds.at(-1) ?? 0)}. The clock and the program go on;
          look at its lead and plug. The gap stays a gap.
        </p>
      )}
      {stuckS !== null && !silent && !out && (
        <p role="alert" className="mb-4 rounded-md bg-crimson-wash px-4 py-2">
          The probe says the very same since {clock(stuckS)}: no bean does that. Go by time, smell and colour, and hold
          a thermometer into the beans.
        </p>
      )}
      <Refusal error={error} />
      {out && <WeighOut live={live} work={work} press={press} onSaved={onSaved} />}
      <div className={out ? 'mt-6' : ''}>
        {!out && <SignLane live={live} busy={busy} press={press} endMin={endMin} plot={plot} />}
        <LiveChart
          live={live}
          plan={plan}
          ahead={ahead}
          endMin={endMin}
          onPlot={(next) => setPlot((now) => (now?.left === next.left && now.width === next.width ? now : next))}
        />
      </div>
      {!out && (
        <>
          <div className="mt-5 flex flex-wrap items-start gap-x-8 gap-y-3">
            <HandReading workId={work.id} busy={busy} note={note} />
            <OwnSetting workId={work.id} busy={busy} note={note} />
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

function PutBack({ work, onDone }: { work: WorkView; onDone: () => void }) {
  const show = useShow();
  const { error, run } = useSave();
  return (
    <>
      <button
        type="button"
        className="button button-quiet mt-2"
        onClick={() => {
          const what = 'As if this had not begun. Its curve and signs are thrown away.';
          void isSure({ title: `Put ${show.mass(work.massMg)} back?`, what, yes: 'Put it back' })
            .then((sure) => sure && run(() => send('DELETE', `/api/ledger/works/${work.id}`)))
            .then((done) => done && onDone());
        }}
      >
        Put it all back
      </button>
      <Refusal error={error} />
    </>
  );
}
