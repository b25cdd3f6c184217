import { useState } from 'react';
import { STATION_NAMES, STATIONS } from '@wunsch/core/work/stations';
import type { Machine } from '@wunsch/core/workshop/schemas';
import { send, useApi } from '../parts/api';
import { newKey } from '../parts/draft';
import { useGrinder } from '../grind/useRun';
import { SelectBox } from '../parts/choice';
import { Box, Chips, NumberBox, Tick } from '../parts/fields';
import { readNumbers, typedNumber } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

/** Machines: what they carry, what they saw, how they were cleaned. */
export function Machines() {
  const { view } = useHere();
  const show = useShow();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Section title="Machines">
      <ul className="rows">
        {view.machines.map((machine) => (
          <li key={machine.id} className="py-1">
            <div className="flex items-center gap-3">
              <span className="min-w-0 flex-1">
                {machine.name}
                <span className="block text-sm text-soft">
                  {STATION_NAMES[machine.station]}
                  {machine.maxG !== null &&
                    `, ${machine.minG === null ? 'up to' : `${show.mass(machine.minG * 1000)} to`} ${show.mass(machine.maxG * 1000)}`}
                  {machine.kw > 0 && `, ${machine.kw} kW`}
                </span>
              </span>
              <button
                type="button"
                className="button button-quiet"
                aria-expanded={open === machine.id}
                onClick={() => setOpen(open === machine.id ? null : machine.id)}
              >
                {open === machine.id ? 'Close' : 'Open'}
              </button>
            </div>
            {open === machine.id && (
              <div className="pb-3">
                <Allergens machine={machine} />
                {machine.station === 'grind' && <Upkeep machine={machine} />}
                <MachineForm machine={machine} close={() => setOpen(null)} />
              </div>
            )}
          </li>
        ))}
      </ul>
      {open === 'new' ? (
        <MachineForm machine={null} close={() => setOpen(null)} />
      ) : (
        <button type="button" className="button mt-3" onClick={() => setOpen('new')}>
          Add a machine
        </button>
      )}
    </Section>
  );
}

const DOES = [
  ['grinds', 'Grinds fine'],
  ['coarse', 'Grinds coarse'],
  ['conches', 'Only conches'],
] as const;
type Does = (typeof DOES)[number][0];

/** What a machine can carry over, and the cleanings that took it away. */
function Allergens({ machine }: { machine: Machine }) {
  const { personId } = useHere();
  const show = useShow();
  const seen = useApi(`/api/workshop/machines/${machine.id}/allergens`);
  const [how, setHow] = useState('');
  const { busy, error, run, fail } = useSave();
  const clean = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/workshop/machines/${machine.id}/cleanings`, { personId, how }, newKey())).then(
      (done) => done && setHow(''),
    );
  };
  const { carries = [], cleanings = [] } = seen.data ?? {};
  const last = cleanings.at(-1);
  return (
    <div className="mb-3 rounded-md bg-sunk px-3 py-2">
      <p>
        {carries.length === 0
          ? 'It has seen no allergen since it was last cleaned of them.'
          : `Last allergens: ${carries.map(({ allergen, code, at }) => `${allergen} in ${code}, ${show.day(at)}`).join('; ')}.`}{' '}
        <span className="text-soft">
          {last ? `Cleaned ${show.day(last.at)} by ${last.person}: ${last.how}.` : 'No cleaning is recorded.'}
        </span>
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <Box
          className="min-w-40 flex-1"
          label="Cleaned of allergens, how"
          value={how}
          onChange={setHow}
          placeholder="Taken apart, hot water, dried"
          onEnter={clean}
        />
        <button type="button" className="button" disabled={busy} onClick={clean}>
          Cleaned now
        </button>
      </div>
      <Refusal error={error} />
    </div>
  );
}

const SERVICE_WORDS = [
  ['dressed', 'Stones dressed'],
  ['serviced', 'Serviced'],
  ['repaired', 'Repaired'],
] as const;

/** What a grinder's own bowls say of it, and what was done to it. */
function Upkeep({ machine }: { machine: Machine }) {
  const { personId } = useHere();
  const show = useShow();
  const grinder = useGrinder(machine.id);
  const [note, setNote] = useState('');
  const { busy, error, run, fail } = useSave();
  if (!grinder) return null;
  const { fill, hours, due, services } = grinder;
  const record = (what: string): void => {
    if (personId === null) return fail(NOBODY);
    void run(() =>
      send('POST', `/api/workshop/machines/${machine.id}/services`, { personId, what, note }, newKey()),
    ).then((done) => done && setNote(''));
  };
  const tens = (g: number): number => Math.round(g / 100) * 100;
  /** What its bowls taught becomes its least and most everywhere; the plate is kept beside it. */
  const takeLearned = (): void => {
    const { id: _id, cleanings: _c, services: _s, ...facts } = machine;
    const plate = { plateMinG: machine.plateMinG ?? machine.minG, plateMaxG: machine.plateMaxG ?? machine.maxG };
    void run(() =>
      send('PUT', `/api/workshop/machines/${machine.id}`, {
        ...facts,
        ...plate,
        maxG: fill.said.most && fill.most ? tens(fill.most.p50) : machine.maxG,
        minG: fill.said.least && fill.least ? tens(fill.least.p50) : machine.minG,
      }),
    );
  };
  return (
    <div className="mb-3 rounded-md bg-sunk px-3 py-2" role="group" aria-label={`Upkeep of ${machine.name}`}>
      <p>
        {Math.round(hours.run)} h run in {grinder.grinds} {grinder.grinds === 1 ? 'bowl' : 'bowls'};{' '}
        {Math.round(hours.sinceDressed)} h since its stones were dressed, {Math.round(hours.sinceServiced)} h since a
        service.
      </p>
      {fill.sentence !== null && (
        <div className="flex flex-wrap items-center gap-x-4">
          <p className="min-w-0 flex-1 font-semibold">{fill.sentence}</p>
          <button type="button" className="button" disabled={busy} onClick={takeLearned}>
            Count with that
          </button>
        </div>
      )}
      {due.map((sentence) => (
        <p key={sentence} className="font-semibold text-crimson">
          {sentence}
        </p>
      ))}
      {services.slice(0, 3).map(({ at, what, note: words, person }) => (
        <p key={at} className="text-sm text-soft">
          {SERVICE_WORDS.find(([id]) => id === what)?.[1] ?? what} {show.day(at)} by {person}
          {words === '' ? '' : `: ${words}`}
        </p>
      ))}
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <Box
          className="min-w-40 flex-1"
          label="What was done (if there is more to say)"
          value={note}
          onChange={setNote}
        />
        {SERVICE_WORDS.map(([what, label]) => (
          <button key={what} type="button" className="button" disabled={busy} onClick={() => record(what)}>
            {label}
          </button>
        ))}
      </div>
      <Refusal error={error} />
    </div>
  );
}

function MachineForm({ machine, close }: { machine: Machine | null; close: () => void }) {
  const figure = (value: number | null | undefined, per = 1): string =>
    value == null ? '' : typedNumber(Number((value / per).toFixed(3)));
  const [name, setName] = useState(machine?.name ?? '');
  const [station, setStation] = useState(machine?.station ?? 'grind');
  const [typed, setTyped] = useState({
    min: figure(machine?.minG, 1000),
    max: figure(machine?.maxG, 1000),
    kw: figure(machine?.kw),
    rpm: figure(machine?.rpm),
    noise: figure(machine?.noiseDb),
    dress: figure(machine?.dressEveryH),
    service: figure(machine?.serviceEveryH),
  });
  const [does, setDoes] = useState<Does>(machine?.coarse ? 'coarse' : machine?.conches ? 'conches' : 'grinds');
  const [tension, setTension] = useState(machine?.tension ?? '');
  const [lid, setLid] = useState(machine?.lid ?? false);
  const { busy, error, run, fail } = useSave();
  const { values, wrong } = readNumbers(typed);
  const set = (key: keyof typeof typed) => (text: string) => setTyped((now) => ({ ...now, [key]: text }));
  const save = (): void => {
    if (Object.keys(wrong).length > 0) return fail('A figure cannot be read: look again.');
    if (values.min !== null && values.max !== null && values.min > values.max)
      return fail('The least is more than the most.');
    const body = {
      name,
      station,
      minG: values.min === null ? null : values.min * 1000,
      maxG: values.max === null ? null : values.max * 1000,
      kw: values.kw ?? 0,
      ...(station === 'grind'
        ? {
            coarse: does === 'coarse',
            conches: does === 'conches',
            rpm: values.rpm,
            noiseDb: values.noise,
            tension,
            lid,
            dressEveryH: values.dress,
            serviceEveryH: values.service,
          }
        : {}),
      ...(machine?.roaster === undefined ? {} : { roaster: machine.roaster }),
    };
    void run(() =>
      machine
        ? send('PUT', `/api/workshop/machines/${machine.id}`, body)
        : send('POST', '/api/workshop/machines', body, newKey()),
    ).then((done) => done && close());
  };
  return (
    <div className="mt-2 grid grid-cols-3 gap-3" role="group" aria-label={machine?.name ?? 'A new machine'}>
      <Box className="col-span-2" label="Machine" value={name} onChange={setName} onEnter={save} />
      <SelectBox
        label="Station"
        value={station}
        options={STATIONS.map((row) => [row, STATION_NAMES[row]] as const)}
        onChange={(row) => setStation(row)}
      />
      <NumberBox label="Least" unit="kg" value={typed.min} problem={wrong.min} onChange={set('min')} />
      <NumberBox label="Most" unit="kg" value={typed.max} problem={wrong.max} onChange={set('max')} />
      <NumberBox label="Power" unit="kW" value={typed.kw} problem={wrong.kw} onChange={set('kw')} />
      {station === 'grind' && (
        <>
          <div className="col-span-3">
            <Chips
              legend="What it does"
              options={DOES}
              chosen={[does]}
              choose={([next]) => setDoes(next ?? 'grinds')}
            />
            {does === 'coarse' && (
              <p className="mt-1 text-sm text-soft">
                Hand or saddle stone, mortar, food processor, juicer: texture is described, passes are counted, nothing
                is foretold.
              </p>
            )}
          </div>
          <NumberBox label="Speed" unit="turns a minute" value={typed.rpm} problem={wrong.rpm} onChange={set('rpm')} />
          <NumberBox label="Noise" unit="dB" value={typed.noise} problem={wrong.noise} onChange={set('noise')} />
          <Box label="Tension, as it is usually set" value={tension} onChange={setTension} />
          <NumberBox
            label="Stones dressed every"
            unit="h"
            value={typed.dress}
            problem={wrong.dress}
            onChange={set('dress')}
          />
          <NumberBox
            label="Service every"
            unit="h"
            value={typed.service}
            problem={wrong.service}
            onChange={set('service')}
          />
          <Tick checked={lid} onChange={setLid}>
            It has a lid
          </Tick>
        </>
      )}
      <div className="col-span-3 flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          {machine ? 'Save' : 'Add'}
        </button>
        <button type="button" className="button" onClick={close}>
          Leave it
        </button>
      </div>
      <div className="col-span-3">
        <Refusal error={error} />
      </div>
    </div>
  );
}
