import { STATION_NAMES, STATIONS } from '@wunsch/core/workshop/stations';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Section } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { Adder, figure, grams, text } from './Adder';

export function Team() {
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

export function Machines() {
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
              minG: grams(form, 'min', 'Least, kg'),
              maxG: grams(form, 'max', 'Most, kg'),
              kw: figure(form, 'kw', 'Power, kW') ?? 0,
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

export function Materials() {
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
