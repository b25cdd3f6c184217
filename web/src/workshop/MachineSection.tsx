import { useState } from 'react';
import { z } from 'zod/mini';
import { STATION_NAMES, STATIONS } from '@wunsch/core/work/stations';
import { field } from '@wunsch/core/fields/registry';
import { machineFacts, type Machine } from '@wunsch/core/workshop/schemas';
import { send, sendOne, useApi } from '../parts/api';
import { useGrinder } from '../grind/useRun';
import { useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { Field, useTyped } from '../record/Field';
import { RecordSheet, useRecordForm } from '../record/form';

/** Machines: what they carry, what they saw, how they were cleaned. */
export function Machines() {
  const { view } = useHere();
  const show = useShow();
  const [open, setOpen] = useState<string | null>(null);
  const retired = view.machines.filter((machine) => machine.retired === true);
  const used = view.machines.filter((machine) => machine.retired !== true);
  return (
    <Section title="Machines">
      <ul className="rows">
        {[...used, ...retired].map((machine) => (
          <li key={machine.id} className="py-1">
            <div className="flex items-center gap-3">
              <span className={`min-w-0 flex-1 ${machine.retired === true ? 'text-soft' : ''}`}>
                {machine.name}
                <span className="block text-sm text-soft">
                  {STATION_NAMES[machine.station]}
                  {machine.maxG !== null &&
                    `, ${machine.minG === null ? 'up to' : `${show.massBeside(machine.minG * 1000, machine.maxG * 1000)} to`} ${show.mass(machine.maxG * 1000)}`}
                  {machine.kw > 0 && `, ${machine.kw} kW`}
                  {machine.retired === true && ', no longer used'}
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

const DOES = { grinds: 'Grinds fine', coarse: 'Grinds coarse', conches: 'Only conches' };

/** What a machine can carry over, and the cleanings that took it away. */
function Allergens({ machine }: { machine: Machine }) {
  const { personId } = useHere();
  const show = useShow();
  const seen = useApi(`/api/workshop/machines/${machine.id}/allergens`);
  const [how, setHow, forget] = useKept(`machine.${machine.id}.cleaned`, '');
  const { busy, error, run, fail } = useSave();
  const clean = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/workshop/machines/${machine.id}/cleanings`, { personId, how })).then(
      (done) => done && forget(),
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
  const [note, setNote, forget] = useKept(`machine.${machine.id}.service`, '');
  const { busy, error, run, fail } = useSave();
  if (!grinder) return null;
  const { fill, hours, due, services } = grinder;
  const record = (what: string): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/workshop/machines/${machine.id}/services`, { personId, what, note })).then(
      (done) => done && forget(),
    );
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
          <p className="min-w-0 flex-1 basis-48 font-semibold">{fill.sentence}</p>
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

/** The machine as its form holds it: what a grinder does is one choice of three. */
const machineSheet = z.safeExtend(machineFacts, {
  does: field(z._default(z.enum(['grinds', 'coarse', 'conches']), 'grinds'), { label: 'What it does', words: DOES }),
});

function MachineForm({ machine, close }: { machine: Machine | null; close: () => void }) {
  const record = useRecordForm(`machine.${machine?.id ?? 'new'}`, machineSheet, () => ({
    station: 'grind' as const,
    ...machine,
    does: machine?.coarse ? ('coarse' as const) : machine?.conches ? ('conches' as const) : ('grinds' as const),
  }));
  return (
    <div role="group" aria-label={machine?.name ?? 'A new machine'}>
      <RecordSheet
        record={record}
        save={({ does, ...facts }, key) => {
          const body = {
            ...facts,
            ...(facts.station === 'grind' ? { coarse: does === 'coarse', conches: does === 'conches' } : {}),
          };
          return sendOne('/api/workshop/machines', machine?.id, body, key);
        }}
        submit={machine ? 'Save' : 'Add'}
        leave="Leave it"
        done={close}
        className="mt-2 grid grid-cols-3 gap-3"
      >
        <Field className="col-span-2" at="name" />
        <Field at="station" listed choices={STATIONS.map((row) => [row, STATION_NAMES[row]] as const)} />
        <Field at="minG" />
        <Field at="maxG" />
        <Field at="kw" />
        <GrinderFields />
        {machine && <Field at="retired" className="col-span-3" />}
      </RecordSheet>
    </div>
  );
}

/** What only a machine that grinds is asked. */
function GrinderFields() {
  const [station, does] = [useTyped('station'), useTyped('does')];
  if (station !== 'grind') return null;
  return (
    <>
      <div className="col-span-3">
        <Field at="does" />
        {does === 'coarse' && (
          <p className="mt-1 text-sm text-soft">
            Hand or saddle stone, mortar, food processor, juicer: texture is described, passes are counted, nothing is
            foretold.
          </p>
        )}
      </div>
      <Field at="rpm" />
      <Field at="noiseDb" />
      <Field at="tension" />
      <Field at="dressEveryH" />
      <Field at="serviceEveryH" />
      <Field at="lid" />
    </>
  );
}
