import { useState } from 'react';
import type { BenchView, HoldingView, WorkView } from '@wunsch/core/api/types';
import { SILK, silkNow } from '@wunsch/core/temper/silk';
import { dayText } from '@wunsch/core/units/zone';
import { isSure } from '../parts/asking';
import { useNow } from '../app/DueLine';
import { StepForm } from '../entry/StepForm';
import { SILK_SUM } from './work';
import { hasDraft } from '../parts/draft';
import { ask, send, useApi } from '../parts/api';
import { typedNumber } from '../parts/number';
import { Caution, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { ProbeControls } from './ProbeControls';

const DAY_MS = 86_400_000;
/** A simulated day of silk passes in a minute. */
const QUICK = 1440;

/** Cocoa butter held warm for a day until it is silk: what is held now, what is there, and beginning another. */
export function SilkBench({ view }: { view: BenchView }) {
  const show = useShow();
  const { materials } = useHere().view;
  const [open, setOpen] = useState(false);
  const works = view.works.filter(({ silk }) => silk);
  const isButter = ({ kind, materialId }: HoldingView): boolean =>
    kind === 'ingredient' && materials.some(({ id, cocoa }) => id === materialId && cocoa === 'butter');
  const all = view.pantry.filter(isButter);
  const butters = all.filter(({ freeMg }) => freeMg > 0);
  // Made here it is known by its step; bought, by the name of its ingredient.
  const made = butters.filter(({ silk, name }) => silk === true || /^silk\b/i.test(name));
  if (works.length === 0 && butters.length === 0) return null;
  const there = made.map(({ code, freeMg }) => `${show.mass(freeMg)} in ${code}`).join(', ');
  return (
    <div className="mt-10">
      <Section
        id="silk"
        title="Silk"
        aside={
          <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Close' : 'Make silk'}
          </button>
        }
      >
        <p className="text-soft">
          {there === '' ? 'None in the pantry. ' : `In the pantry: ${there}. `}
          Cocoa butter held at {show.temp(SILK.holdC)} for a day is a paste of stable crystal: one in a hundred seeds a
          dark bowl.
        </p>
        {works.map((work) => (
          <SilkRun key={work.id} work={work} butters={all} />
        ))}
        {open && (
          <div className="mt-4">
            <StartSilk butters={butters.filter((row) => !made.includes(row))} done={() => setOpen(false)} />
            <div className="mt-3">
              <Caution>Warm butter burns, and a box that heats all night wants a tested cut-out.</Caution>
            </div>
          </div>
        )}
      </Section>
    </div>
  );
}

function StartSilk({ butters, done }: { butters: readonly HoldingView[]; done: () => void }) {
  if (butters.length === 0) return <p className="text-soft">There is no cocoa butter in the pantry: buy some first.</p>;
  return (
    <StepForm
      kind="silk"
      specs={[]}
      station="temper"
      draftId="start.silk"
      candidates={butters}
      initialPicked={butters.length === 1 && butters[0] ? [butters[0].id] : []}
      pickTitle="Which butter"
      submit="Begin the silk"
      finish={() => ({})}
      send={async (entry) => {
        await send(
          'POST',
          '/api/ledger/works',
          {
            station: 'temper',
            silk: true,
            sources: entry.sources,
            machineId: entry.machineId,
            personId: entry.personId,
            dueAt: new Date(Date.now() + DAY_MS).toISOString(),
            ...(entry.at === undefined ? {} : { at: entry.at }),
            note: '',
          },
          entry.key,
        );
        done();
        return null;
      }}
    />
  );
}

const TONES = {
  melting: 'bg-sunk',
  cooling: 'bg-sunk',
  holding: 'bg-leaf-wash',
  ready: 'bg-leaf-wash',
  cold: 'bg-ripe-wash',
  lost: 'bg-crimson-wash',
} as const;

/** Silk that is held: its temperature, the hours that count, what is to be done. */
function SilkRun({ work, butters }: { work: WorkView; butters: readonly HoldingView[] }) {
  const { personId, view } = useHere();
  const show = useShow();
  const clock = useNow();
  const path = `/api/temper/works/${work.id}` as const;
  const run = useApi(`${path}/silk`, 2000);
  const { busy, error, run: save, fail } = useSave();
  const draftId = `work.${work.id}`;
  const [taking, setTaking] = useState(() => hasDraft(draftId));
  if (!run.data) return null;
  const { readings, probe, silent, trouble } = run.data;
  const now = silkNow(readings, view.settings.temperatureUnit);
  const last = readings.at(-1);
  const call = async (way: 'probe' | 'readings', body: object): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return false;
    }
    return save(async () => {
      await ask(`${path}/${way}`, { personId, ...body });
      await run.mutate();
    });
  };
  const days = butters.flatMap(({ id, bestBefore }) =>
    bestBefore !== null && work.sources.some(({ holdingId }) => holdingId === id) ? [bestBefore] : [],
  );
  // No longer than the butter that it is made of.
  const keeps = [...days, dayText(clock + SILK.keepsDays * DAY_MS, view.settings.timeZone)].sort()[0] ?? '';
  const tenths = (value: number): string => typedNumber(Math.round(10 * value) / 10);
  const putBack = async (): Promise<void> => {
    const what = 'As if this had not begun. Its log is thrown away.';
    if (await isSure({ title: `Put ${show.mass(work.massMg)} back?`, what, yes: 'Put it back' }))
      void save(() => send('DELETE', `/api/ledger/works/${work.id}`));
  };
  return (
    <section
      aria-label="The silk now"
      className={`mt-3 mb-4 rounded-md px-4 py-3 ${now ? TONES[now.phase] : 'bg-sunk'}`}
    >
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <span className="figure text-5xl" data-testid="silk-temperature">
          {last ? show.temp(last.tempC) : '–'}
        </span>
        <div className="min-w-0 flex-1 basis-60">
          <p className="text-sm text-soft">
            {show.mass(work.massMg)} of {work.sources[0]?.name}, begun {show.moment(work.startedAt)}
          </p>
          <p className="figure text-xl" aria-live="polite">
            {now?.sentence ?? 'No temperature yet: put a probe in, or read it by hand.'}
          </p>
          {now && <p className="text-sm">{now.todo}</p>}
          {now && now.heldH > 0 && (
            <p className="text-sm text-soft">
              {now.heldH.toFixed(1)} h in the hold
              {now.heldC !== null && `, ${show.temp(Math.round(10 * now.heldC) / 10)} on the mean`}.
            </p>
          )}
          {trouble !== null && <p className="font-semibold text-crimson">{trouble}</p>}
          {silent && <p className="font-semibold text-crimson">The probe says nothing: look at its plug.</p>}
        </div>
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <ProbeControls
          of={work.id}
          probe={probe}
          busy={busy}
          read={(tempC) => call('readings', { tempC })}
          follow={(next, speed = 1) => void call('probe', { probe: next, speed })}
          quick={{ words: 'Simulated, a day a minute', speed: QUICK }}
        />
        <span className="flex-1" />
        <button
          type="button"
          className={now?.phase === 'ready' ? 'button button-main' : 'button'}
          aria-expanded={taking}
          onClick={() => setTaking(!taking)}
        >
          {taking ? 'Leave it on' : 'Take it off'}
        </button>
      </div>
      <Refusal error={error} />
      {taking && (
        <div className="mt-4">
          <StepForm
            kind="silk"
            station={work.station}
            draftId={draftId}
            fixed={work.sources}
            initial={{
              heldC: { text: now?.heldC == null ? '' : tenths(show.fromCelsius(now.heldC)) },
              hours: { text: now === null || now.heldH < 0.5 ? '' : tenths(now.heldH) },
              bestBefore: { text: keeps },
            }}
            path={`/api/ledger/works/${work.id}/finish`}
            submit="Save the silk"
            finish={(values, sources) => ({ ...values, sources })}
            {...SILK_SUM}
          />
          <button type="button" className="button button-quiet mt-2" disabled={busy} onClick={() => void putBack()}>
            Put it all back
          </button>
        </div>
      )}
    </section>
  );
}
