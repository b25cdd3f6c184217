import { useState } from 'react';
import {
  isUnroasted,
  STATION_NAMES,
  STATIONS,
  USUAL_CEILING_C,
  type Route,
  type Station,
} from '@wunsch/core/work/stations';
import { sendOne } from '../parts/api';
import { newRoute } from '@wunsch/core/workshop/schemas';
import { typedNumber } from '../parts/number';
import { Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { Field, useTyped } from '../record/Field';
import { RecordSheet, useRecordForm, type RecordForm } from '../record/form';

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
  const record = useRecordForm(`route.${route.id || 'new'}`, newRoute, () => route);
  return (
    <RecordSheet
      record={record}
      save={(body, key) => sendOne('/api/workshop/routes', route.id, body, key)}
      submit="Save the route"
      leave="Leave it"
      done={close}
      className="mt-4 grid max-w-3xl gap-3"
    >
      <Field at="name" />
      <Passes record={record} />
      <Field at="note" />
      <Ceiling />
    </RecordSheet>
  );
}

/** The stations of a route, in the order in which they are pressed. */
function Passes({ record }: { record: RecordForm<typeof newRoute> }) {
  const stations = useTyped<Station[]>('stations');
  const change = (next: Station[]): void =>
    record.form.setValue('stations', next, { shouldDirty: true, shouldValidate: record.form.formState.isSubmitted });
  const problem = record.form.formState.errors['stations']?.message as string | undefined;
  return (
    <div>
      <div className="flex flex-wrap gap-2" role="group" aria-label="Stations, in the order pressed">
        {STATIONS.map((station) => (
          <button
            key={station}
            type="button"
            className="chip"
            aria-pressed={stations.includes(station)}
            disabled={station === 'beans'}
            onClick={() =>
              change(
                stations.includes(station) ? stations.filter((other) => other !== station) : [...stations, station],
              )
            }
          >
            {STATION_NAMES[station]}
            {stations.includes(station) && <span className="text-sm opacity-75">{stations.indexOf(station) + 1}</span>}
          </button>
        ))}
      </div>
      <p className="label mt-2">A station pressed again leaves the route; pressed anew it goes to the end.</p>
      {problem !== undefined && <p className="text-sm font-semibold text-crimson">{problem}</p>}
    </div>
  );
}

function Ceiling() {
  const show = useShow();
  const stations = useTyped<Station[]>('stations');
  const usual = isUnroasted({ stations })
    ? typedNumber(Math.round(show.fromCelsius(USUAL_CEILING_C)))
    : 'no such bound';
  return <Field className="max-w-xs" at="ceilingC" example={usual} />;
}
