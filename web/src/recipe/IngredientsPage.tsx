import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { PantryRow } from '@wunsch/core/api/recipe';
import type { Material } from '@wunsch/core/ledger/types';
import { otherDryPct } from '@wunsch/core/ledger/contents';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Box } from '../parts/fields';
import { Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { UsualMaterials } from '../parts/UsualMaterials';
import { useHere, useShow } from '../parts/workshop';
import { usePantry } from './compute';
import { IngredientForm } from './IngredientForm';
import { Quantity } from './Quantity';
import { RecipeNav } from './RecipeNav';

const NEW: Material = { id: '', name: '', kind: 'ingredient', cocoa: 'none', sugar: false, allergens: [] };

const pct = (value: number): string => (value < 0.05 ? '–' : value.toFixed(value < 10 ? 1 : 0));

/** What goes into bowls: what each is made of and where that is from, its price, its allergens, what is here. */
export function IngredientsPage() {
  const { view } = useHere();
  const pantry = usePantry();
  const [query, setQuery] = useSearchParams();
  if (!pantry.data) return <Loading error={pantry.error} />;
  const rows = pantry.data.rows.filter(({ id }) => !id.startsWith('lot:') && id !== 'nibs');
  const lots = pantry.data.rows.filter(({ id }) => id.startsWith('lot:'));
  const materialOf = (id: string): Material | undefined => view.materials.find((row) => row.id === id);
  const asked = query.get('edit');
  const editing = asked === 'new' ? NEW : materialOf(asked ?? '');
  const edit = (id: string | null): void => setQuery(id === null ? {} : { edit: id });
  return (
    <>
      <div className="mb-5 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">Ingredients</h1>
        <RecipeNav />
      </div>
      <p className="mb-5 max-w-3xl text-lg text-soft">
        What 100 g of each are made of decides every percentage, from the recipe to the bar. Usual values come from food
        composition tables; your own analysis replaces them, from the day it holds.
      </p>
      {editing ? (
        <IngredientForm
          key={editing.id}
          material={editing}
          row={rows.find(({ id }) => id === editing.id) ?? null}
          close={() => edit(null)}
        />
      ) : (
        <>
          <div className="overflow-x-auto">
            <table className="w-full min-w-[46rem]">
              <thead className="text-left text-sm text-soft">
                <tr>
                  {['Ingredient', 'Fat', 'Cocoa', 'Sugar', 'Milk', 'Water', 'A kilogram', 'Here', ''].map(
                    (head, index) => (
                      <th key={head} className={`py-1 font-normal ${index > 0 && index < 8 ? 'text-right' : ''}`}>
                        {index > 0 && index < 6 ? `${head}, %` : head}
                      </th>
                    ),
                  )}
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <Row key={row.id} row={row} material={materialOf(row.id)} edit={({ id }) => edit(id)} />
                ))}
              </tbody>
            </table>
          </div>
          <button type="button" className="button mt-4" onClick={() => edit('new')}>
            Another one
          </button>
          <UsualMaterials kind="ingredient" first={10} />
          {lots.length > 0 && (
            <Section title="Nibs by lot" aside="fat differs from lot to lot">
              <ul className="rows">
                {lots.map((row) => (
                  <LotFat key={row.id} row={row} />
                ))}
              </ul>
            </Section>
          )}
        </>
      )}
    </>
  );
}

function Row({
  row,
  material,
  edit,
}: {
  row: PantryRow;
  material: Material | undefined;
  edit: (material: Material) => void;
}) {
  const show = useShow();
  const c = row.contents;
  const expiry = row.stock.find(({ bestBefore }) => bestBefore !== null)?.bestBefore;
  return (
    <tr className="border-t border-rule align-top">
      <td className="py-2 pr-4">
        <span className="font-semibold">{row.name}</span>
        <span className="block text-sm text-soft">
          {row.allergens.length > 0 && <strong className="text-crimson">{row.allergens.join(', ')} · </strong>}
          {material?.origin ? `${material.origin} · ` : ''}
          {c === null
            ? 'nobody said what it is made of'
            : row.assumed
              ? row.source
              : `own: ${row.source || 'entered here'}`}
          {c !== null && otherDryPct(c) > 0.5 && `; ${otherDryPct(c).toFixed(0)} % other dry matter`}
        </span>
      </td>
      {c === null ? (
        <td colSpan={5} className="py-2 text-right text-soft">
          –
        </td>
      ) : (
        [c.fatPct, row.cocoaPct, c.sugarPct + c.polyolsPct, c.dryMilkPct + c.milkFatPct, c.waterPct].map(
          (value, index) => (
            <td key={index} className="py-2 text-right">
              {pct(value)}
            </td>
          ),
        )
      )}
      <td className="py-2 text-right whitespace-nowrap">
        {row.perKgMilli === null ? <span className="text-soft">no price</span> : show.money(row.perKgMilli)}
      </td>
      <td className="py-2 text-right whitespace-nowrap">
        {row.stockG > 0 ? show.mass(row.stockG * 1000) : '–'}
        {expiry != null && <span className="block text-sm text-soft">to {expiry}</span>}
      </td>
      <td className="py-1 text-right">
        {material && (
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Change ${row.name}`}
            onClick={() => edit(material)}
          >
            Change
          </button>
        )}
      </td>
    </tr>
  );
}

/** What the nibs of one lot hold of fat, as measured. */
function LotFat({ row }: { row: PantryRow }) {
  const { personId } = useHere();
  const show = useShow();
  const [fatPct, setFatPct] = useState<number | null>(null);
  const [how, setHow] = useState('');
  const [open, setOpen] = useState(false);
  const { busy, error, run, fail } = useSave();
  const code = row.name.split(' ')[1] ?? '';
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (fatPct === null) return fail('Say the fat in percent.');
    void run(() =>
      send('POST', `/api/beans/lots/${code}/records`, { personId, record: { kind: 'nib-fat', fatPct, how } }, newKey()),
    ).then((done) => done && setOpen(false));
  };
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-x-4">
        <span className="min-w-0 flex-1">
          {row.name}
          <span className="block text-sm text-soft">
            {row.contents?.fatPct} % fat, {row.source}; {show.mass(row.stockG * 1000)} of nibs here
          </span>
        </span>
        {!open && (
          <button type="button" className="button button-quiet" onClick={() => setOpen(true)}>
            Fat was measured
          </button>
        )}
      </div>
      {open && (
        <div className="mt-2 flex flex-wrap items-end gap-3">
          <Quantity className="w-28" label="Fat" unit="%" value={fatPct} onValue={setFatPct} />
          <Box
            className="min-w-48 flex-1"
            label="How, by whom"
            value={how}
            onChange={setHow}
            placeholder="laboratory, Soxhlet"
          />
          <button type="button" className="button button-main" disabled={busy} onClick={save}>
            Save
          </button>
          <button type="button" className="button" onClick={() => setOpen(false)}>
            Leave it
          </button>
        </div>
      )}
      <Refusal error={error} />
    </li>
  );
}
