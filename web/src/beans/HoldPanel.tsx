import { lazy, Suspense, useState } from 'react';
import type { BeanLotView, HoldView } from '@wunsch/core/api/beans';
import { HOLD_METHODS, USUAL_HOLD, type HoldMethod } from '@wunsch/core/beans/hold';
import { useDraft } from '../parts/draft';
import { Box, Chips, NumberBox, Tick } from '../parts/fields';
import { readNumber, readNumbers } from '../parts/number';
import { Caution, Refusal } from '../parts/pieces';
import { span, useHere, useShow } from '../parts/workshop';
import { useRecords } from './records';
import { When } from '../parts/dates';

const LineChart = lazy(() => import('../charts/LineChart'));

const METHOD_NAMES: Record<HoldMethod, string> = { freeze: 'Deep freeze', heat: 'Heat', roast: 'Roast as kill step' };

/** A lot on hold: its clock, what broke it, and the release by name; or how to begin. */
export function HoldPanel({ lot }: { lot: BeanLotView }) {
  const running = lot.hold !== null && lot.hold.released === null;
  return (
    <section aria-label="Pest hold" className="mt-5">
      {running && lot.hold ? <Running lot={lot} hold={lot.hold} /> : <Begin lot={lot} />}
    </section>
  );
}

function Running({ lot, hold }: { lot: BeanLotView; hold: HoldView }) {
  const show = useShow();
  const { demo } = useHere().view.settings;
  const { write, busy, error, fail } = useRecords(lot.code);
  const draft = useDraft(`core.${lot.code}`, () => ({ temp: '', at: '', word: '' }));
  const { temp, at, word } = draft.value;
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const { clock, plan, value } = hold;
  if (!clock) {
    return (
      <div className="rounded-md bg-ripe-wash px-4 py-4">
        <p className="figure text-2xl">
          {hold.toldBy === null
            ? 'The roast is the kill step, but the roast room has not been told.'
            : 'The roast is the kill step.'}
        </p>
        <p className="mt-1">
          {hold.toldBy === null
            ? 'Until somebody tells the roast room, by name, this lot cannot be sorted or roasted.'
            : `${hold.toldBy} told the roast room. Sort it away from finished goods, in a closed room; every load must reach the roast that your food-safety plan validated.`}
        </p>
        <Caution>
          A roast is a kill step only if it was validated for this load; local codes and your food-safety plan decide.
        </Caution>
        <Refusal error={error} />
        <div className="mt-3 flex flex-wrap gap-3">
          {hold.toldBy === null && <Told lot={lot} value={value} />}
          <button
            type="button"
            className="button"
            disabled={busy}
            onClick={() => void write({ kind: 'release', word: 'hold ended' })}
          >
            End the hold
          </button>
        </div>
      </div>
    );
  }
  const last = hold.readings.at(-1);
  const read = async (): Promise<void> => {
    const typed = readNumber(temp);
    if (typed === null) return fail('Type the core temperature that was read.');
    if (await write({ kind: 'core', tempC: show.toCelsius(typed), by: 'hand' }, draft.key, show.sent(at)))
      draft.clear();
  };
  const release = async (): Promise<void> => {
    if (await write({ kind: 'release', word })) draft.clear();
  };
  const broken = clock.breaks.filter(({ why }) => why === 'temperature').filter(({ lostHours }) => lostHours > 0.05);
  return (
    <div className={`rounded-md px-4 py-4 ${clock.done ? 'bg-leaf-wash' : 'bg-ripe-wash'}`}>
      <p className="label">
        {METHOD_NAMES[plan.method]}, {value.place || 'place not written down'}, since {show.moment(hold.since)},{' '}
        {hold.person}
      </p>
      <p className="mt-1">
        <span className="figure text-4xl">
          {clock.hours.toFixed(0)} of {plan.hours} h
        </span>{' '}
        <span className="text-lg">
          {clock.done
            ? `kept; reached ${show.moment(clock.doneAt ?? 0)}. Release it by name.`
            : clock.holding
              ? `kept at ${plan.method === 'freeze' ? 'or under' : 'or over'} ${show.temp(plan.thresholdC)}. Reached ${show.moment(clock.expectedAt ?? 0)} if it holds.`
              : last
                ? `and the clock stands: the core is at ${show.temp(last.tempC)}, it has to be ${plan.method === 'freeze' ? 'at or under' : 'at or over'} ${show.temp(plan.thresholdC)}.`
                : 'and no core temperature read yet.'}
        </span>
      </p>
      <div
        className="mt-3 h-3 overflow-hidden rounded-full bg-sunk"
        role="progressbar"
        aria-label="Hours kept"
        aria-valuenow={Math.round(100 * clock.share)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <div className="h-full bg-leaf" style={{ width: `${100 * clock.share}%` }} />
      </div>
      {value.probe && !demo && (
        <p className="mt-2 font-semibold text-crimson">
          Its core is written down by a simulated probe: that proves nothing about these beans. Release it with a word,
          and put it on hold again without the probe.
        </p>
      )}
      {broken.map((row) => (
        <p key={row.from} className="mt-2 text-sm">
          {show.moment(row.from)}: the core broke the plan for {span(row.to - row.from)}
          {plan.restart ? `; ${row.lostHours.toFixed(0)} h were lost and it began again.` : '.'}
        </p>
      ))}
      {clock.breaks.some(({ why }) => why === 'gap') && (
        <p className="mt-2 text-sm">Gaps of more than {plan.maxGapHours} h between readings count for nothing.</p>
      )}
      {hold.readings.length > 1 && (
        <div className="mt-3">
          <Suspense fallback={<div className="h-[200px]" />}>
            <LineChart
              caption={`Core of the sack, ${show.tempUnit}, as logged${value.probe ? ' (simulated probe and by hand)' : ''}`}
              points={hold.readings.map(({ at, tempC }) => ({ x: at, y: show.fromCelsius(tempC) }))}
              unit="°"
              threshold={{ y: show.fromCelsius(plan.thresholdC), word: `plan ${show.temp(plan.thresholdC)}` }}
            />
          </Suspense>
        </div>
      )}
      <div className="mt-3 grid items-end gap-3 sm:grid-cols-[9rem_14rem_auto]">
        <NumberBox
          label="Core"
          unit={show.tempUnit}
          value={temp}
          onChange={(text) => set({ temp: text })}
          onEnter={() => void read()}
        />
        <When value={at} onChange={(text) => set({ at: text })} />
        <button type="button" className="button mb-1 justify-self-start" disabled={busy} onClick={() => void read()}>
          Log it
        </button>
      </div>
      <div className="mt-3 grid items-end gap-3 sm:grid-cols-[1fr_auto]">
        <Box
          label={clock.done ? 'A word with the release' : 'Why released early'}
          value={word}
          onChange={(text) => set({ word: text })}
        />
        <button
          type="button"
          className={`button mb-1 ${clock.done ? 'button-main' : ''}`}
          disabled={busy}
          onClick={() => void release()}
        >
          Release {lot.code}
        </button>
      </div>
      <Refusal error={error} />
    </div>
  );
}

function Told({ lot, value }: { lot: BeanLotView; value: HoldView['value'] }) {
  const { personId } = useHere();
  const { write, busy } = useRecords(lot.code);
  return (
    <button
      type="button"
      className="button button-main"
      disabled={busy || personId === null}
      onClick={() => void write({ ...value, toldBy: personId })}
    >
      I have told the roast room
    </button>
  );
}

interface Begun {
  method: HoldMethod;
  figures: Record<'threshold' | 'hours', string>;
  place: string;
  why: string;
  restart: boolean;
  probe: boolean;
  told: boolean;
}

function Begin({ lot }: { lot: BeanLotView }) {
  const show = useShow();
  const { personId, view } = useHere();
  const { write, busy, error, fail } = useRecords(lot.code);
  const draft = useDraft(`hold.${lot.code}`, (): Begun => ({
    method: 'freeze',
    figures: { threshold: '', hours: '' },
    place: '',
    why: '',
    restart: true,
    // Beans that are really here are read by somebody, unless a simulated core is asked for.
    probe: view.settings.demo,
    told: false,
  }));
  const [open, setOpen] = useState(lot.standing === 'on hold' || draft.touched);
  const { method, figures, place, why, restart, probe, told } = draft.value;
  const set = (part: Partial<typeof draft.value>): void => draft.set((before) => ({ ...before, ...part }));
  const { values, wrong } = readNumbers(figures);
  const usual = USUAL_HOLD[method];
  if (!open) {
    return (
      <button type="button" className="button" onClick={() => setOpen(true)}>
        Put it on hold for pests
      </button>
    );
  }
  const begin = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0) return fail('Temperature and hours are numbers.');
    const record = {
      kind: 'hold',
      method,
      thresholdC: values.threshold === null ? usual.thresholdC : show.toCelsius(values.threshold),
      hours: values.hours ?? usual.hours,
      restart: method !== 'roast' && restart,
      maxGapHours: usual.maxGapHours,
      place,
      probe: method !== 'roast' && probe,
      toldBy: method === 'roast' && told ? personId : null,
      why,
    } as const;
    if (await write(record, draft.key)) draft.clear();
  };
  return (
    <div className="grid gap-4 rounded-md bg-sheet px-4 py-4">
      <h2 className="text-xl">How is it freed of pests?</h2>
      <Chips
        legend="Method"
        options={HOLD_METHODS.map((name) => [name, METHOD_NAMES[name]] as const)}
        chosen={[method]}
        choose={([name]) => set({ method: name ?? 'freeze' })}
      />
      {method === 'roast' ? (
        <>
          <Tick checked={told} onChange={(on) => set({ told: on })}>
            I have told the roast room that this lot carries moth and must not stand with finished goods
          </Tick>
          {!lot.route.stations.includes('roast') && (
            <p className="font-semibold text-crimson">Its route, {lot.route.name}, has no roast: choose another way.</p>
          )}
        </>
      ) : (
        <div className="grid grid-cols-2 gap-4 sm:grid-cols-4">
          <NumberBox
            label={`Core ${method === 'freeze' ? 'at or under' : 'at or over'}`}
            unit={show.tempUnit}
            value={figures.threshold}
            onChange={(threshold) => set({ figures: { ...figures, threshold } })}
            problem={wrong.threshold}
            placeholder={String(Math.round(show.fromCelsius(usual.thresholdC)))}
          />
          <NumberBox
            label="For so many hours"
            value={figures.hours}
            onChange={(hours) => set({ figures: { ...figures, hours } })}
            problem={wrong.hours}
            placeholder={String(usual.hours)}
          />
          <Box
            label="Where"
            value={place}
            onChange={(text) => set({ place: text })}
            placeholder="chest freezer"
            className="col-span-2"
          />
        </div>
      )}
      <Box label="What was seen" value={why} onChange={(text) => set({ why: text })} placeholder="webbing in sack 3" />
      {method !== 'roast' && (
        <div>
          <Tick checked={restart} onChange={(on) => set({ restart: on })}>
            The hours start over when the core breaks the plan
          </Tick>
          <Tick checked={probe} onChange={(on) => set({ probe: on })}>
            A simulated probe writes a core down every half hour: to try it out, not for beans that are really here
          </Tick>
        </div>
      )}
      <Caution>
        Usual: {show.temp(-18)} or colder in the middle of the sack for 7 days, or {show.temp(55)} for 24 h. Your
        food-safety plan decides. A frozen sack warms closed, or water condenses on the beans; a deep freeze and a sack
        of {show.sack(60_000)} both ask for gloves and a second person.
      </Caution>
      <Refusal error={error} />
      <div className="flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={() => void begin()}>
          Begin the hold
        </button>
      </div>
    </div>
  );
}
