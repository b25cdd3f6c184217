import { useState } from 'react';
import {
  isUnroasted,
  STATION_NAMES,
  STATIONS,
  USUAL_CEILING_C,
  type Route,
  type Station,
} from '@wunsch/core/work/stations';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Refusal, Section } from '../parts/pieces';
import { NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { useHere, useShow } from '../parts/workshop';

export function Routes() {
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
  const show = useShow();
  const { temperatureUnit } = useHere().view.settings;
  const [name, setName] = useState(route.name);
  const [note, setNote] = useState(route.note);
  const [stations, setStations] = useState<Station[]>(route.stations);
  const [ceiling, setCeiling] = useState(
    route.ceilingC == null ? '' : typedNumber(Math.round(show.tempOut(route.ceilingC))),
  );
  const [error, setError] = useState<unknown>(null);
  const save = async (): Promise<void> => {
    const bound = readNumber(ceiling);
    if (bound === null && ceiling.trim() !== '')
      return setError(new Error('The hottest for the mass is not a number.'));
    const body = { name, note, stations, ceilingC: bound === null ? null : show.tempIn(bound) };
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
      <NumberBox
        className="mt-2 max-w-xs"
        label="The mass is never hotter than"
        unit={`°${temperatureUnit}`}
        value={ceiling}
        onChange={setCeiling}
        placeholder={
          isUnroasted({ stations }) ? typedNumber(Math.round(show.tempOut(USUAL_CEILING_C))) : 'no such bound'
        }
      />
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
