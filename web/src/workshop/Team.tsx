import { useState } from 'react';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

/** Who works here: added, renamed, away for a while. */
export function Team() {
  const { view, choosePerson, personId } = useHere();
  const [name, setName, forget] = useKept('person.name', '');
  const [renaming, setRenaming] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const { busy, error, run } = useSave();
  const add = (): void =>
    void run(async () => {
      const { data } = await send('POST', '/api/workshop/people', { name });
      if (personId === null) choosePerson(data.id);
      forget();
    });
  const change = (id: string, body: { name: string; active: boolean }): void =>
    void run(() => send('PUT', `/api/workshop/people/${id}`, body)).then((done) => done && setRenaming(null));
  return (
    <Section title="Team">
      <ul className="rows">
        {view.people.map((person) => (
          <li key={person.id} className="flex flex-wrap items-center gap-2 py-1">
            {renaming === person.id ? (
              <>
                <Box
                  className="min-w-32 flex-1"
                  label="Name"
                  value={typed}
                  onChange={setTyped}
                  onEnter={() => change(person.id, { name: typed, active: person.active })}
                />
                <button
                  type="button"
                  className="button"
                  disabled={busy}
                  onClick={() => change(person.id, { name: typed, active: person.active })}
                >
                  Save the name
                </button>
              </>
            ) : (
              <>
                <span className={`min-w-0 flex-1 ${person.active ? '' : 'text-soft line-through'}`}>{person.name}</span>
                <button
                  type="button"
                  className="button button-quiet"
                  onClick={() => {
                    setRenaming(person.id);
                    setTyped(person.name);
                  }}
                >
                  Rename
                </button>
                <button
                  type="button"
                  className="button button-quiet"
                  onClick={() => change(person.id, { name: person.name, active: !person.active })}
                >
                  {person.active ? 'Away' : 'Back'}
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <Box className="flex-1" label="Name" value={name} onChange={setName} onEnter={add} />
        <button type="button" className="button" disabled={busy} onClick={add}>
          Add
        </button>
      </div>
      <Refusal error={error} />
    </Section>
  );
}
