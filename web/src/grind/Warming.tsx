import type { GrindRunView } from '@wunsch/core/api/grind';
import type { GrindView } from '@wunsch/core/api/types';
import { hottestFor, judgeWarming } from '@wunsch/core/grind/warming';
import { ceilingOf } from '@wunsch/core/work/stations';
import { send } from '../parts/api';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { span, useHere, useShow } from '../parts/workshop';

/** The temperature of the mass: where it is going, and the probe that logs it. */
export function Warming({ grind: { batch, readings, cocoa }, run }: { grind: GrindView; run: GrindRunView | null }) {
  const { view, personId } = useHere();
  const show = useShow();
  const { busy, error, run: save, fail } = useSave();
  const route = view.routes.find(({ id }) => id === batch.routeId);
  const ceilingC = route ? ceilingOf(route) : null;
  const temps = [
    ...readings.flatMap(({ at, what, value }) =>
      what === 'bowl-temperature' && value !== null ? [{ at, tempC: value }] : [],
    ),
    ...(run?.probe?.rows ?? []),
  ].sort((a, b) => a.at - b.at);
  const hottest = hottestFor(ceilingC, cocoa.figures.milkPct);
  const found = hottest === null ? null : judgeWarming(temps, hottest.tempC, show.temp);
  const last = temps.at(-1);
  const choose = (probe: 'simulated' | 'sent' | null): void => {
    if (personId === null) return fail(NOBODY);
    void save(() => send('POST', `/api/grind/batches/${batch.code}/probe`, { personId, probe }));
  };
  const tone =
    found === null ? 'bg-sunk' : { stop: 'bg-crimson-wash', watch: 'bg-ripe-wash', good: 'bg-leaf-wash' }[found.tone];
  return (
    <section aria-label="Temperature of the mass" className={`mt-3 rounded-md px-4 py-2 ${tone}`}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p className="min-w-0 flex-1 basis-48 font-semibold">
          {found?.sentence ?? (last ? `${show.temp(last.tempC)}.` : 'The mass: no temperature yet.')}
          {found === null && hottest !== null && ` ${hottest.why} keeps it under ${show.temp(hottest.tempC)}.`}
        </p>
        {run?.probe ? (
          <button type="button" className="button button-quiet text-sm" disabled={busy} onClick={() => choose(null)}>
            Take the probe out
          </button>
        ) : (
          <>
            <button
              type="button"
              className="button button-quiet text-sm"
              disabled={busy}
              onClick={() => choose('sent')}
            >
              A probe sends it
            </button>
            <button
              type="button"
              className="button button-quiet text-sm"
              disabled={busy}
              onClick={() => choose('simulated')}
            >
              Simulated probe
            </button>
          </>
        )}
      </div>
      {found?.todo != null && <p className="text-sm">{found.todo}</p>}
      {found !== null && hottest !== null && <p className="text-sm text-soft">{hottest.why}.</p>}
      {run?.probe?.trouble != null && <p className="text-sm font-semibold text-crimson">{run.probe.trouble}</p>}
      {run?.probe && (
        <p className={`text-sm ${run.probe.silentMin === null ? 'text-soft' : 'font-semibold text-crimson'}`}>
          {run.probe.silentMin === null
            ? `Logged by a ${run.probe.kind === 'simulated' ? 'simulated probe' : 'probe'}${last ? `, last at ${show.time(last.at)}` : ''}.`
            : `The probe has said nothing for ${span(run.probe.silentMin * 60_000)}: look at its plug, read by hand meanwhile.`}
        </p>
      )}
      <Refusal error={error} />
    </section>
  );
}
