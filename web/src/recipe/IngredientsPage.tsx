import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { PantryRow } from '@wunsch/core/api/recipe';
import type { Material } from '@wunsch/core/ledger/types';
import { otherDryPct } from '@wunsch/core/ledger/contents';
import { send } from '../parts/api';
import { hasDraft, useKept } from '../parts/draft';
import { Box } from '../parts/fields';
import { Listing, type Column } from '../parts/listing';
import { Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { UsualMaterials } from '../parts/UsualMaterials';
import { useHere, useShow } from '../parts/workshop';
import { usePantry } from './compute';
import { IngredientForm } from './IngredientForm';
import { Quantity } from './Quantity';
import { RecipeNav } from './RecipeNav';
import { useColumns } from '../parts/columns';

const NEW: Material = { id: '', name: '', kind: 'ingredient', cocoa: 'none', sugar: false, allergens: [] };

const pct = (value: number): string => (value < 0.05 ? '–' : value.toFixed(value < 10 ? 1 : 0));

/** What goes into bowls: what each is made of and where that is from, its price, its allergens, what is here. */
export function IngredientsPage() {
  const { view } = useHere();
  const pantry = usePantry();
  const show = useShow();
  const column = useColumns(show);
  const [query, setQuery] = useSearchParams();
  if (!pantry.data) return <Loading error={pantry.error} />;
  const rows = pantry.data.rows.filter(({ id }) => !id.startsWith('lot:') && id !== 'nibs');
  const lots = pantry.data.rows.filter(({ id }) => id.startsWith('lot:'));
  const materialOf = (id: string): Material | undefined => view.materials.find((row) => row.id === id);
  const asked = query.get('edit');
  const editing = asked === 'new' ? NEW : materialOf(asked ?? '');
  const edit = (id: string | null): void => setQuery(id === null ? {} : { edit: id });
  const share = (id: string, head: string, of: (row: PantryRow) => number | null): Column<PantryRow> => ({
    id,
    head: `${head}, %`,
    right: true,
    value: of,
    show: (row) => {
      const value = of(row);
      return value === null ? '–' : pct(value);
    },
  });
  const columns: Column<PantryRow>[] = [
    {
      id: 'name',
      head: 'Ingredient',
      value: ({ name, allergens }) => [name, ...allergens].join(', '),
      show: (row) => <Named row={row} material={materialOf(row.id)} />,
    },
    share('fat', 'Fat', ({ contents }) => contents?.fatPct ?? null),
    share('cocoa', 'Cocoa', ({ contents, cocoaPct }) => (contents ? cocoaPct : null)),
    share('sugar', 'Sugar', ({ contents }) => (contents ? contents.sugarPct + contents.polyolsPct : null)),
    share('milk', 'Milk', ({ contents }) => (contents ? contents.dryMilkPct + contents.milkFatPct : null)),
    share('water', 'Water', ({ contents }) => contents?.waterPct ?? null),
    column.price('price', ({ perKgMilli }) => perKgMilli, {
      show: ({ perKgMilli }) =>
        perKgMilli === null ? <span className="text-soft">no price</span> : show.price(perKgMilli),
    }),
    {
      id: 'here',
      head: 'Here',
      unit: 'g',
      right: true,
      value: ({ stockG }) => stockG,
      show: ({ stockG, stock }) => {
        const expiry = stock.find(({ bestBefore }) => bestBefore !== null)?.bestBefore;
        return (
          <>
            {stockG > 0 ? show.mass(stockG * 1000) : '–'}
            {expiry != null && <span className="block text-sm text-soft">to {expiry}</span>}
          </>
        );
      },
    },
  ];
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
          <Listing
            label="Ingredients"
            rows={rows}
            columns={columns}
            rowId={({ id }) => id}
            minWidth="46rem"
            tail={({ id, name }) =>
              materialOf(id) && (
                <button
                  type="button"
                  className="button button-quiet"
                  aria-label={`Change ${name}`}
                  onClick={() => edit(id)}
                >
                  Change
                </button>
              )
            }
          />
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

function Named({ row, material }: { row: PantryRow; material: Material | undefined }) {
  const { contents } = row;
  return (
    <>
      <span className="font-semibold">{row.name}</span>
      <span className="block text-sm text-soft">
        {row.allergens.length > 0 && <strong className="text-crimson">{row.allergens.join(', ')} · </strong>}
        {material?.origin ? `${material.origin} · ` : ''}
        {contents === null
          ? 'nobody said what it is made of'
          : row.assumed
            ? row.source
            : `own: ${row.source || 'entered here'}`}
        {contents !== null &&
          otherDryPct(contents) > 0.5 &&
          `; ${otherDryPct(contents).toFixed(0)}\u00a0% other dry matter`}
      </span>
    </>
  );
}

/** What the nibs of one lot hold of fat, as measured. */
function LotFat({ row }: { row: PantryRow }) {
  const { personId } = useHere();
  const show = useShow();
  const [{ fatPct, how }, set, forget] = useKept<{ fatPct: number | null; how: string }>(`nib-fat.${row.id}`, {
    fatPct: null,
    how: '',
  });
  const [open, setOpen] = useState(hasDraft(`nib-fat.${row.id}`));
  const { busy, error, run, fail } = useSave();
  const code = row.name.split(' ')[1] ?? '';
  const leave = (): void => {
    forget();
    setOpen(false);
  };
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (fatPct === null) return fail('Say the fat in percent.');
    void run(() =>
      send('POST', `/api/beans/lots/${code}/records`, { personId, record: { kind: 'nib-fat', fatPct, how } }),
    ).then((done) => done && leave());
  };
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-x-4">
        <span className="min-w-0 flex-1 basis-48">
          {row.name}
          <span className="block text-sm text-soft">
            {row.contents?.fatPct}&nbsp;% fat, {row.source}; {show.mass(row.stockG * 1000)} of nibs here
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
          <Quantity
            className="w-28"
            label="Fat"
            unit="%"
            value={fatPct}
            onValue={(next) => set({ fatPct: next, how })}
          />
          <Box
            className="min-w-48 flex-1"
            label="How, by whom"
            value={how}
            onChange={(next) => set({ fatPct, how: next })}
            placeholder="laboratory, Soxhlet"
          />
          <button type="button" className="button button-main" disabled={busy} onClick={save}>
            Save
          </button>
          <button type="button" className="button" onClick={leave}>
            Leave it
          </button>
        </div>
      )}
      <Refusal error={error} />
    </li>
  );
}
