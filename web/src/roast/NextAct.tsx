import type { Press } from './usePress';
import type { ReactNode } from 'react';
import { isDue, nextStirS, whereIn, type NextAct as Act } from '@wunsch/core/roast/live';
import { clock } from '@wunsch/core/roast/words';
import { useShow } from '../parts/workshop';
import type { Live } from './useLive';

/** A live roast, and the way to press something at it. */
export interface Pressing {
  live: Live;
  busy: boolean;
  press: Press;
}

/** The one thing to do next, with the time until then. */
export function NextAct({ next, live, aheadS, busy, press }: Pressing & { next: Act | null; aheadS: number | null }) {
  const show = useShow();
  const { view, second, curve } = live;
  const { roast, roaster } = view;
  const stirS = nextStirS(roast.plan?.stirEveryMin ?? null, roast.stirs);
  const stirDue = stirS !== null && second >= stirS;
  const beanC = curve.beanC.findLast((tempC) => tempC !== null) ?? null;
  const due = isDue(roast, second, beanC);
  const itself = roaster?.facts.setBy === 'itself' && next?.act.what === 'set';
  const setC = whereIn(roast.plan, roast.settings).setC ?? 0;
  const what =
    next === null
      ? 'No program: it comes out when you say so.'
      : next.act.what === 'out'
        ? 'Take it out'
        : `${setC > next.act.setC ? 'Lower to' : setC < next.act.setC ? 'Raise to' : 'Keep at'} ${show.temp(next.act.setC)}`;
  const late = next?.atS == null ? 0 : second - next.atS;
  return (
    <section
      aria-label="What is next"
      className={`mb-2 rounded-md px-4 py-2.5 ${due || stirDue ? 'bg-ripe-wash' : 'bg-sheet'}`}
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
          {stirS !== null && (
            <span
              className={`block pt-1 font-sans text-base ${stirDue ? 'font-semibold text-crimson' : 'font-normal text-soft'}`}
            >
              {stirDue ? `Stir now, ${clock(second - stirS)} over` : `Stir in ${clock(stirS - second)}`}
              {roast.stirs.length > 0 &&
                `, stirred ${roast.stirs.length === 1 ? 'once' : `${roast.stirs.length} times`}`}
            </span>
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
          {stirS !== null && (
            <button
              type="button"
              className={`button ${stirDue ? 'button-main' : ''}`}
              disabled={busy}
              onClick={() => press('stirs')}
            >
              Stirred
            </button>
          )}
          <button
            type="button"
            className={`button ${next === null || (due && next.act.what === 'out') ? 'button-main' : ''}`}
            disabled={busy}
            onClick={() => press('stop')}
          >
            It is out
          </button>
        </span>
      </div>
    </section>
  );
}

/** `in 0:40`; for a temperature or a sign, about when, and at the latest when. */
function When({ next, second, aheadS }: { next: Act; second: number; aheadS: number | null }) {
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
