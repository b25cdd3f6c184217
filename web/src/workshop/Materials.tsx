import { useState } from 'react';
import type { Material } from '@wunsch/core/ledger/types';
import { USUAL_MATERIALS } from '@wunsch/core/workshop/usual-materials';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Box, NumberBox } from '../parts/fields';
import { readNumbers, typedNumber } from '../parts/number';
import { Refusal, Section } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

type Role = 'sugar' | 'butter' | 'liquor' | 'powder' | 'couverture' | 'other' | 'packaging';
const ROLES: readonly (readonly [Role, string])[] = [
  ['sugar', 'Sugar'],
  ['butter', 'Cocoa butter'],
  ['liquor', 'Cocoa liquor'],
  ['powder', 'Cocoa powder'],
  ['couverture', 'Bought chocolate'],
  ['other', 'Other ingredient'],
  ['packaging', 'Packaging, by the piece'],
];

const roleOf = ({ kind, cocoa, sugar }: Omit<Material, 'id'>): Role =>
  kind === 'packaging' ? 'packaging' : cocoa !== 'none' ? cocoa : sugar ? 'sugar' : 'other';

const factsOf = (row: Omit<Material, 'id'>): string =>
  [
    ROLES.find(([role]) => role === roleOf(row))?.[1] ?? '',
    row.cocoaPct == null ? '' : `${row.cocoaPct} % cocoa`,
    row.allergens.length > 0 ? `allergen: ${row.allergens.join(', ')}` : '',
    row.keepsMonths == null ? '' : `goods with it keep ${row.keepsMonths} months`,
  ]
    .filter(Boolean)
    .join(', ');

/** Ingredients and packaging: the usual ones by a press, all of them to be changed. */
export function Materials() {
  const { view } = useHere();
  const [editing, setEditing] = useState<Material | null>(null);
  const [more, setMore] = useState(false);
  const { error, run } = useSave();
  const names = new Set(view.materials.map(({ name }) => name.toLowerCase()));
  const usual = USUAL_MATERIALS.filter(({ name }) => !names.has(name.toLowerCase()));
  return (
    <Section title="Ingredients and packaging">
      <ul className="rows">
        {view.materials.map((material) => (
          <li key={material.id} className="flex items-center gap-3 py-1">
            <span className="min-w-0 flex-1">
              {material.name}
              <span className="block text-sm text-soft">{factsOf(material)}</span>
            </span>
            <button type="button" className="button button-quiet" onClick={() => setEditing(material)}>
              Change
            </button>
          </li>
        ))}
      </ul>
      {usual.length > 0 && (
        <div className="mt-3">
          <p className="label mb-1">Usual ones, taken over by a press</p>
          <div className="flex flex-wrap gap-2">
            {usual.slice(0, more ? undefined : 6).map((row) => (
              <button
                key={row.name}
                type="button"
                className="chip"
                onClick={() => void run(() => send('POST', '/api/workshop/materials', row, newKey()))}
              >
                + {row.name}
              </button>
            ))}
            {usual.length > 6 && !more && (
              <button type="button" className="button button-quiet" onClick={() => setMore(true)}>
                {usual.length - 6} more
              </button>
            )}
          </div>
        </div>
      )}
      <Refusal error={error} />
      {editing ? (
        <MaterialForm key={editing.id} material={editing} close={() => setEditing(null)} />
      ) : (
        <button
          type="button"
          className="button mt-3"
          onClick={() =>
            setEditing({ id: '', name: '', kind: 'ingredient', cocoa: 'none', sugar: false, allergens: [] })
          }
        >
          Another one
        </button>
      )}
    </Section>
  );
}

function MaterialForm({ material, close }: { material: Material; close: () => void }) {
  const [name, setName] = useState(material.name);
  const [role, setRole] = useState<Role>(roleOf(material));
  const [allergens, setAllergens] = useState(material.allergens.join(', '));
  const figure = (value: number | null | undefined): string => (value == null ? '' : typedNumber(value));
  const [typed, setTyped] = useState({
    cocoaPct: figure(material.cocoaPct),
    addedButterPct: figure(material.addedButterPct),
    sugarPct: figure(material.sugarPct),
    keepsMonths: figure(material.keepsMonths),
  });
  const { busy, error, run, fail } = useSave();
  const { values, wrong } = readNumbers(typed);
  const set = (key: keyof typeof typed) => (text: string) => setTyped((now) => ({ ...now, [key]: text }));
  const save = (): void => {
    if (Object.keys(wrong).length > 0) return fail('A figure cannot be read: look again.');
    const body = {
      name,
      kind: role === 'packaging' ? 'packaging' : 'ingredient',
      cocoa: role === 'sugar' || role === 'other' || role === 'packaging' ? 'none' : role,
      sugar: role === 'sugar',
      allergens: allergens
        .split(/[,;]+/)
        .map((word) => word.trim())
        .filter((word) => word !== ''),
      ...values,
    };
    void run(() =>
      material.id === ''
        ? send('POST', '/api/workshop/materials', body, newKey())
        : send('PUT', `/api/workshop/materials/${material.id}`, body),
    ).then((done) => done && close());
  };
  return (
    <div className="mt-3 grid grid-cols-2 gap-3" role="group" aria-label={material.name || 'A new one'}>
      <Box className="col-span-2" label="Name" value={name} onChange={setName} onEnter={save} />
      <label className="label">
        Counts as
        <select className="entry" value={role} onChange={(event) => setRole(event.target.value as Role)}>
          {ROLES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {role !== 'packaging' && (
        <>
          <Box
            label="Allergens, apart by commas"
            value={allergens}
            onChange={setAllergens}
            placeholder="milk, hazelnut"
          />
          {role === 'couverture' && (
            <>
              <NumberBox
                label="Cocoa on its label"
                unit="%"
                value={typed.cocoaPct}
                problem={wrong.cocoaPct}
                onChange={set('cocoaPct')}
              />
              <NumberBox
                label="Of it, added butter"
                unit="%"
                value={typed.addedButterPct}
                problem={wrong.addedButterPct}
                onChange={set('addedButterPct')}
                placeholder="not known"
              />
              <NumberBox
                label="Sugar"
                unit="%"
                value={typed.sugarPct}
                problem={wrong.sugarPct}
                onChange={set('sugarPct')}
              />
            </>
          )}
          <NumberBox
            label="Goods with it keep"
            unit="months"
            value={typed.keepsMonths}
            problem={wrong.keepsMonths}
            onChange={set('keepsMonths')}
            placeholder="as usual"
          />
        </>
      )}
      <div className="col-span-2 flex gap-3">
        <button type="button" className="button button-main" disabled={busy} onClick={save}>
          Save
        </button>
        <button type="button" className="button" onClick={close}>
          Leave it
        </button>
      </div>
      <div className="col-span-2">
        <Refusal error={error} />
      </div>
    </div>
  );
}
