import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { PantryView } from '@wunsch/core/api/recipe';
import { feedPlan } from '@wunsch/core/recipe/order';
import type { Recipe } from '@wunsch/core/recipe/records';
import { mostFrom, scaleTo, splitAmong } from '@wunsch/core/recipe/scale';
import { drawAll, type Draw } from '@wunsch/core/recipe/stock';
import { massUnitFor } from '@wunsch/core/units/mass';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { send } from '../parts/api';
import { Chips } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { routeFor } from './draft';
import { useNibsOf } from './nibs';
import { Quantity } from './Quantity';

const clock = (minutes: number): string => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')} h`;

/** The same recipe in another size, shared out among grinders, with the tubs it comes from and the order it goes in. */
export function ScaleTab({
  recipeId,
  version,
  recipe: written,
  pantry,
}: {
  recipeId: string;
  version: number;
  recipe: Recipe;
  pantry: PantryView;
}) {
  const { view, personId } = useHere();
  const navigate = useNavigate();
  const { busy, error, run, fail } = useSave();
  const own = written.lines.reduce((sum, { grams }) => sum + grams, 0);
  const [sizeG, setSizeG] = useState<number | null>(own || 1000);
  const grinders = machinesAt(view.machines, 'grind');
  const [chosen, setChosen] = useState<string[]>(
    grinders.some(({ id }) => id === written.machineId) ? [written.machineId ?? ''] : [],
  );
  const unit = massUnitFor((sizeG ?? own) * 1000, view.settings.massSystem);
  const show = useShow(unit);
  const { recipe, lots: nibLots, chooser } = useNibsOf(written, pantry, show.mass);
  const rowOf = (id: string) => pantry.rows.find((row) => row.id === id);
  if (own <= 0) return <p className="text-soft">Nothing is in the recipe yet.</p>;
  const fromNibs = mostFrom(
    recipe.lines,
    ({ ingredient }) => rowOf(ingredient)?.role === 'nibs',
    (ingredient) => rowOf(ingredient)?.stockG ?? 0,
  );
  const toG = sizeG ?? own;
  const machines = grinders.filter(({ id }) => chosen.includes(id));
  const split = machines.length === 0 ? null : splitAmong(toG, machines);
  const bowls = split?.filter(({ grams }) => grams > 0) ?? [{ id: '', name: '', grams: toG }];
  const weigh = (machineId: string, lines: { ingredient: string; grams: number }[]): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      const { data } = await send('POST', '/api/recipe/weighings', {
        personId,
        recipe: { id: recipeId, version },
        name: recipe.name,
        machineId: machineId || null,
        routeId: routeFor(recipe, view.routes),
        targetMicron: recipe.targetMicron,
        stepG: recipe.stepG,
        lines: lines.filter(({ grams }) => grams > 0),
      });
      await navigate(`/weighing/${data.id}`);
    });
  };
  const perBowl = bowls.map((bowl) => {
    const grams = scaleTo(
      recipe.lines.map((line) => line.grams),
      bowl.grams,
      recipe.stepG,
    );
    return recipe.lines
      .map(({ ingredient }, index) => ({ ingredient, grams: grams[index] ?? 0 }))
      .filter((line) => line.grams > 0);
  });
  const draws = drawAll(perBowl, (ingredient) => rowOf(ingredient)?.stock ?? []);
  /** Lots that the nibs of some draws come from, by code. */
  const lotsIn = (rows: readonly Draw[]): string[] => {
    const tubs = new Set(
      rows
        .filter(({ ingredient }) => rowOf(ingredient)?.role === 'nibs')
        .flatMap(({ taken }) => taken.map(({ line }) => line.holdingId)),
    );
    return nibLots
      .filter(({ stock }) => stock.some(({ holdingId }) => tubs.has(holdingId)))
      .map(({ name }) => name.split(' ')[1] ?? '');
  };
  return (
    <div className="max-w-4xl">
      <div className="flex flex-wrap items-end gap-x-8 gap-y-4">
        <Quantity label="Batch" className="w-44" mass={unit} value={sizeG} onValue={setSizeG} />
        {Number.isFinite(fromNibs) && fromNibs > 0 && (
          <button
            type="button"
            className="button"
            onClick={() => setSizeG(Math.floor(fromNibs / recipe.stepG) * recipe.stepG)}
          >
            All the nibs that are here: {show.mass(fromNibs * 1000)}
          </button>
        )}
      </div>
      {chooser !== null && <div className="mt-4">{chooser}</div>}
      {grinders.length > 0 && (
        <div className="mt-4">
          <Chips
            legend="On which grinders"
            several
            options={grinders.map(
              ({ id, name, maxG }) => [id, maxG === null ? name : `${name}, to ${show.mass(maxG * 1000)}`] as const,
            )}
            chosen={chosen}
            choose={setChosen}
          />
        </div>
      )}
      {machines.length > 0 && split === null && (
        <p role="alert" className="mt-4 rounded-md bg-ripe-wash px-4 py-3 font-semibold">
          {show.mass(toG * 1000)} do not fit: these grinders together take more or less than that. Choose others, or
          another size.
        </p>
      )}
      {(machines.length === 0 || split !== null) &&
        bowls.map((bowl, index) => {
          const lines = perBowl[index] ?? [];
          const own = draws[index] ?? [];
          const lots = lotsIn(own);
          const order = feedPlan(
            lines.map((line) => {
              const row = rowOf(line.ingredient);
              const given = recipe.lines.find(({ ingredient }) => ingredient === line.ingredient);
              return {
                ...line,
                name: row?.name ?? '',
                role: row?.role ?? 'other',
                atMinutes: given?.atMinutes ?? null,
                portions: given?.portions ?? null,
              };
            }),
          );
          return (
            <Section
              key={bowl.id}
              title={bowl.name === '' ? 'To weigh' : `${bowl.name}: ${show.mass(bowl.grams * 1000)}`}
            >
              <ul className="rows">
                {own.map(({ ingredient, grams, taken, missingG }) => {
                  const row = rowOf(ingredient);
                  return (
                    <li key={ingredient} className="flex flex-wrap items-baseline gap-x-4 py-2">
                      <span className="figure w-28 text-right text-lg">{show.mass(grams * 1000)}</span>
                      <span className="min-w-0 flex-1">
                        {row?.name}
                        <span className="block text-sm text-soft">
                          {taken
                            .map(({ line: one, grams: part }) => `${one.code}: ${show.mass(part * 1000)}`)
                            .join(', ')}
                          {missingG > 0.5 && (
                            <strong className="text-crimson"> missing {show.mass(missingG * 1000)}</strong>
                          )}
                        </span>
                      </span>
                    </li>
                  );
                })}
              </ul>
              {lots.length > 1 && (
                <p role="alert" className="mt-2 rounded-md bg-ripe-wash px-4 py-2 text-sm font-semibold">
                  Nibs of {lots.length} lots come together ({lots.join(', ')}): single-origin holds only if they are of
                  one origin, and the label has to say so.
                </p>
              )}
              <p className="label mt-3">Into the bowl</p>
              <ol className="mt-1 text-sm">
                {order.map((portion, index) => (
                  <li key={index} className="grid grid-cols-[4.5rem_6.5rem_minmax(0,1fr)] gap-x-3 py-0.5">
                    <span className="text-soft">{clock(portion.atMinutes)}</span>
                    <span className="text-right">{show.mass(portion.grams * 1000)}</span>
                    <span>
                      {portion.name}
                      {portion.part !== '' && ` ${portion.part}`} <span className="text-soft">{portion.note}</span>
                    </span>
                  </li>
                ))}
              </ol>
              <div className="mt-3 flex flex-wrap gap-3">
                <button
                  type="button"
                  className="button button-main"
                  disabled={busy}
                  onClick={() => weigh(bowl.id, lines)}
                >
                  Weigh {show.mass(bowl.grams * 1000)} now
                </button>
                <a
                  className="button"
                  target="_blank"
                  rel="noreferrer"
                  href={`/api/recipe/recipes/${recipeId}/sheet.pdf?version=${version}&grams=${bowl.grams}`}
                >
                  Sheet to print
                </a>
              </div>
            </Section>
          );
        })}
      <Refusal error={error} />
    </div>
  );
}
