import { useState, type FormEvent, type ReactNode } from 'react';
import type { Settings } from '@wunsch/core/workshop/schemas';
import { STATION_NAMES, STATIONS, type Route, type Station } from '@wunsch/core/workshop/stations';
import { readNumber } from '../bench/entry';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Refusal, Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';

/** Team, machines, ingredients, routes, units and prices, and the way out for the data. */
export function WorkshopPage() {
  const { view } = useHere();
  return (
    <>
      <h1 className="mb-6 text-4xl">{view.settings.name}</h1>
      <div className="grid gap-x-14 gap-y-10 lg:grid-cols-2">
        <div>
          <Team />
          <Machines />
          <Materials />
        </div>
        <div>
          <Units />
          <Data />
        </div>
      </div>
      <Routes />
    </>
  );
}

/** One small form that adds something, with its own refusal. */
function Adder({
  label,
  children,
  act,
}: {
  label: string;
  children: ReactNode;
  act: (form: FormData) => Promise<unknown>;
}) {
  const [error, setError] = useState<unknown>(null);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = event.currentTarget;
    try {
      await act(new FormData(form));
      form.reset();
      setError(null);
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <form className="mt-3" onSubmit={(event) => void submit(event)}>
      <div className="flex flex-wrap items-end gap-3">
        {children}
        <button type="submit" className="button">
          {label}
        </button>
      </div>
      <Refusal error={error} />
    </form>
  );
}

const text = (form: FormData, name: string): string => String(form.get(name) ?? '').trim();
const grams = (form: FormData, name: string): number | null => {
  const kg = readNumber(text(form, name));
  return kg === null ? null : kg * 1000;
};

function Team() {
  const { view } = useHere();
  return (
    <Section title="Team">
      <ul className="rows">
        {view.people.map((person) => (
          <li key={person.id} className="flex items-center gap-3 py-1">
            <span className={`flex-1 ${person.active ? '' : 'text-soft line-through'}`}>{person.name}</span>
            <button
              type="button"
              className="button button-quiet"
              onClick={() =>
                void send('PUT', `/api/workshop/people/${person.id}`, { name: person.name, active: !person.active })
              }
            >
              {person.active ? 'Away' : 'Back'}
            </button>
          </li>
        ))}
      </ul>
      <Adder label="Add" act={(form) => send('POST', '/api/workshop/people', { name: text(form, 'name') }, newKey())}>
        <label className="label flex-1">
          Name
          <input className="entry" name="name" autoComplete="off" />
        </label>
      </Adder>
    </Section>
  );
}

function Machines() {
  const { view } = useHere();
  const show = useShow();
  return (
    <Section title="Machines">
      <ul className="rows">
        {view.machines.map(({ id, name, station, minG, maxG, kw }) => (
          <li key={id} className="flex items-baseline gap-3 py-2">
            <span className="flex-1">{name}</span>
            <span className="text-sm text-soft">
              {STATION_NAMES[station]}
              {maxG !== null &&
                `, ${minG === null ? 'up to' : `${show.mass(minG * 1000)} to`} ${show.mass(maxG * 1000)}`}
              {kw > 0 && `, ${kw} kW`}
            </span>
          </li>
        ))}
      </ul>
      <Adder
        label="Add"
        act={(form) =>
          send(
            'POST',
            '/api/workshop/machines',
            {
              name: text(form, 'name'),
              station: text(form, 'station'),
              minG: grams(form, 'min'),
              maxG: grams(form, 'max'),
              kw: readNumber(text(form, 'kw')) ?? 0,
            },
            newKey(),
          )
        }
      >
        <label className="label w-full">
          Machine
          <input className="entry" name="name" autoComplete="off" />
        </label>
        <label className="label">
          Station
          <select className="entry" name="station" defaultValue="grind">
            {STATIONS.map((station) => (
              <option key={station} value={station}>
                {STATION_NAMES[station]}
              </option>
            ))}
          </select>
        </label>
        {(
          [
            ['min', 'Least, kg'],
            ['max', 'Most, kg'],
            ['kw', 'Power, kW'],
          ] as const
        ).map(([name, label]) => (
          <label key={name} className="label w-24">
            {label}
            <input className="entry" name={name} inputMode="decimal" />
          </label>
        ))}
      </Adder>
    </Section>
  );
}

function Materials() {
  const { view } = useHere();
  return (
    <Section title="Ingredients and packaging">
      <ul className="rows">
        {view.materials.map(({ id, name, kind, cocoa, sugar, allergens }) => (
          <li key={id} className="flex items-baseline gap-3 py-2">
            <span className="flex-1">{name}</span>
            <span className="text-sm text-soft">
              {[
                kind === 'packaging' ? 'packaging, by the piece' : '',
                cocoa === 'butter' ? 'added cocoa butter' : cocoa === 'none' ? '' : `cocoa ${cocoa}`,
                sugar ? 'sugar' : '',
                allergens.length > 0 ? `allergen: ${allergens.join(', ')}` : '',
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
          </li>
        ))}
      </ul>
      <Adder
        label="Add"
        act={(form) => {
          const role = text(form, 'role');
          const cocoa = ['butter', 'liquor', 'powder'].includes(role) ? role : 'none';
          const allergens = text(form, 'allergens')
            .split(/[,\s]+/)
            .filter(Boolean);
          return send(
            'POST',
            '/api/workshop/materials',
            {
              name: text(form, 'name'),
              kind: role === 'packaging' ? 'packaging' : 'ingredient',
              cocoa,
              sugar: role === 'sugar',
              allergens,
            },
            newKey(),
          );
        }}
      >
        <label className="label flex-1">
          Name
          <input className="entry" name="name" autoComplete="off" />
        </label>
        <label className="label">
          Counts as
          <select className="entry" name="role" defaultValue="sugar">
            <option value="sugar">Sugar</option>
            <option value="butter">Cocoa butter</option>
            <option value="liquor">Cocoa liquor</option>
            <option value="powder">Cocoa powder</option>
            <option value="other">Other ingredient</option>
            <option value="packaging">Packaging</option>
          </select>
        </label>
        <label className="label w-32">
          Allergens
          <input className="entry" name="allergens" placeholder="milk, nuts" />
        </label>
      </Adder>
    </Section>
  );
}

function Units() {
  const { view } = useHere();
  // Only what was changed here is kept here: the rest follows what other screens save.
  const [edits, setEdits] = useState<Partial<Settings>>({});
  const settings: Settings = { ...view.settings, ...edits };
  const [error, setError] = useState<unknown>(null);
  const [saved, setSaved] = useState(false);
  const set = <K extends keyof Settings>(key: K, value: Settings[K]): void => {
    setSaved(false);
    setEdits((now) => ({ ...now, [key]: value }));
  };
  const number = (key: 'wagePerHour' | 'energyPerKwh' | 'restDays' | 'readingHours', label: string) => (
    <label className="label">
      {label}
      <input
        className="entry"
        type="number"
        step="any"
        min="0"
        value={settings[key]}
        onChange={(event) => set(key, Number(event.target.value))}
      />
    </label>
  );
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const { demo: _, ...body } = settings;
    try {
      await send('PUT', '/api/workshop/settings', body);
      setError(null);
      setSaved(true);
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <Section title="Units, prices and times">
      <form onSubmit={(event) => void save(event)} className="grid grid-cols-2 gap-4">
        <label className="label col-span-2">
          Name of the workshop
          <input className="entry" value={settings.name} onChange={(event) => set('name', event.target.value)} />
        </label>
        <label className="label">
          Weights
          <select
            className="entry"
            value={settings.massSystem}
            onChange={(event) => set('massSystem', event.target.value as Settings['massSystem'])}
          >
            <option value="metric">g and kg</option>
            <option value="imperial">oz and lb</option>
          </select>
        </label>
        <label className="label">
          Temperatures
          <select
            className="entry"
            value={settings.temperatureUnit}
            onChange={(event) => set('temperatureUnit', event.target.value as Settings['temperatureUnit'])}
          >
            <option value="C">°C</option>
            <option value="F">°F</option>
          </select>
        </label>
        <label className="label">
          Currency
          <input
            className="entry"
            value={settings.currency}
            onChange={(event) => set('currency', event.target.value.toUpperCase())}
            maxLength={3}
          />
        </label>
        <label className="label">
          Time zone
          <input
            className="entry"
            value={settings.timeZone}
            onChange={(event) => set('timeZone', event.target.value)}
          />
        </label>
        {number('wagePerHour', 'An hour of work costs')}
        {number('energyPerKwh', 'A kWh costs')}
        {number('restDays', 'Days that blocks rest')}
        {number('readingHours', 'Hours between gauge readings')}
        <div className="col-span-2 flex items-center gap-3">
          <button type="submit" className="button button-main">
            Save
          </button>
          {saved && <span role="status">Saved.</span>}
        </div>
      </form>
      <Refusal error={error} />
    </Section>
  );
}

function Data() {
  const { view } = useHere();
  const [error, setError] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const [typed, setTyped] = useState('');
  const restore = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setBusy(true);
    try {
      await send('POST', '/api/workshop/restore', JSON.parse(await file.text()));
      setError(null);
    } catch (reason) {
      setError(reason instanceof SyntaxError ? new Error('That file is not JSON: nothing was restored.') : reason);
    } finally {
      setBusy(false);
    }
  };
  const begin = async (): Promise<void> => {
    setBusy(true);
    try {
      await send('POST', '/api/demo/reset', { confirm: typed.trim().toLowerCase() });
      setTyped('');
      setError(null);
    } catch (reason) {
      setError(reason);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Section title="The data is yours">
      <div className="flex flex-wrap gap-3">
        <a className="button" href="/api/workshop/export.json" download="wunsch-workshop.json">
          Everything as JSON
        </a>
        <a className="button" href="/api/trace/steps.csv" download="wunsch-steps.csv">
          Every posting as CSV
        </a>
      </div>
      {view.empty && (
        <label className="label mt-4 block">
          Restore an export into this empty workshop
          <input
            type="file"
            accept="application/json"
            className="entry py-2"
            disabled={busy}
            onChange={(event) => void restore(event.target.files?.[0])}
          />
        </label>
      )}
      {view.settings.demo && (
        <div className="mt-5">
          <p className="text-sm text-soft">
            This workshop is made up. Beginning again throws away everything entered here, and makes the demo anew, up
            to today.
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-3">
            <label className="label">
              Type “begin again”
              <input className="entry" value={typed} onChange={(event) => setTyped(event.target.value)} />
            </label>
            <button
              type="button"
              className="button"
              disabled={busy || typed.trim().toLowerCase() !== 'begin again'}
              onClick={() => void begin()}
            >
              {busy ? 'Beginning …' : 'Begin the demo again'}
            </button>
          </div>
        </div>
      )}
      <Refusal error={error} />
    </Section>
  );
}

function Routes() {
  const { view } = useHere();
  const [editing, setEditing] = useState<Route | null>(null);
  return (
    <Section title="Routes" aside="which stations a batch passes">
      <ul className="rows">
        {view.routes.map((route) => (
          <li
            key={route.id}
            className="grid items-baseline gap-x-6 gap-y-1 py-3 md:grid-cols-[15rem_minmax(0,1fr)_auto]"
          >
            <span className="text-lg">{route.name}</span>
            <span>
              {route.stations.map((station) => STATION_NAMES[station]).join(' → ')}
              <span className="block text-sm text-soft">{route.note}</span>
            </span>
            <button
              type="button"
              className="button button-quiet"
              onClick={() => setEditing({ ...route, id: route.id })}
            >
              Change
            </button>
          </li>
        ))}
      </ul>
      {editing ? (
        <RouteEditor key={editing.id} route={editing} close={() => setEditing(null)} />
      ) : (
        <button
          type="button"
          className="button mt-3"
          onClick={() => setEditing({ id: '', name: '', note: '', stations: [...STATIONS] })}
        >
          New route
        </button>
      )}
    </Section>
  );
}

function RouteEditor({ route, close }: { route: Route; close: () => void }) {
  const [name, setName] = useState(route.name);
  const [note, setNote] = useState(route.note);
  const [stations, setStations] = useState<Station[]>(route.stations);
  const [error, setError] = useState<unknown>(null);
  const save = async (): Promise<void> => {
    const body = { name, note, stations };
    try {
      await (route.id === ''
        ? send('POST', '/api/workshop/routes', body, newKey())
        : send('PUT', `/api/workshop/routes/${route.id}`, body));
      close();
    } catch (reason) {
      setError(reason);
    }
  };
  return (
    <div className="mt-4 max-w-3xl">
      <label className="label">
        Name of the route
        <input className="entry" value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <div className="my-3 flex flex-wrap gap-2" role="group" aria-label="Stations, in the order pressed">
        {STATIONS.map((station) => (
          <button
            key={station}
            type="button"
            className="chip"
            aria-pressed={stations.includes(station)}
            disabled={station === 'beans'}
            onClick={() =>
              setStations((now) =>
                now.includes(station) ? now.filter((other) => other !== station) : [...now, station],
              )
            }
          >
            {STATION_NAMES[station]}
            {stations.includes(station) && <span className="text-sm opacity-75">{stations.indexOf(station) + 1}</span>}
          </button>
        ))}
      </div>
      <p className="label">A station pressed again leaves the route; pressed anew it goes to the end.</p>
      <label className="label mt-2 block">
        Note
        <input className="entry" value={note} onChange={(event) => setNote(event.target.value)} />
      </label>
      <Refusal error={error} />
      <div className="mt-3 flex gap-3">
        <button type="button" className="button button-main" onClick={() => void save()}>
          Save the route
        </button>
        <button type="button" className="button" onClick={close}>
          Leave it
        </button>
      </div>
    </div>
  );
}
