import { useState } from 'react';
import type { PantryView } from '@wunsch/core/api/recipe';
import type { Line } from '@wunsch/core/recipe/ingredient';
import { Chips } from '../parts/fields';
import { Caution, Section } from '../parts/pieces';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import { kitchen, rowsOf } from './compute';

/** The same chocolate without something: what stands in for it, and what cannot be kept. */
export function SwapTab({
  lines,
  pantry,
  stepG,
  take,
}: {
  lines: readonly Line[];
  pantry: PantryView;
  stepG: number;
  take: (lines: { ingredient: string; grams: number }[]) => void;
}) {
  const { settings } = useHere().view;
  const show = useShow();
  const [out, setOut] = useState<string[]>([]);
  const [offered, setOffered] = useState<string[]>([]);
  const used = lines.filter(({ grams }) => grams > 0);
  const ready = out.length > 0 && offered.length > 0;
  const key = ready
    ? JSON.stringify([out, offered, used.map(({ ingredient, grams }) => [ingredient.id, grams])])
    : null;
  const swap = useWorked(key, () => kitchen().swap(used, out, rowsOf(pantry, offered), stepG, settings), 'recipe-swap');
  const found = ready ? swap : null;
  const nameOf = (id: string): string => pantry.rows.find((row) => row.id === id)?.name ?? id;
  return (
    <div className="max-w-4xl">
      <div className="grid gap-5">
        <Chips
          legend="What is not to be had, or not wanted"
          several
          options={used.map(({ ingredient }) => [ingredient.id, ingredient.name] as const)}
          chosen={out}
          choose={setOut}
        />
        <Chips
          legend="What may stand in for it"
          several
          options={pantry.rows
            .filter(({ id }) => !used.some(({ ingredient }) => ingredient.id === id))
            .map(({ id, name }) => [id, name] as const)}
          chosen={offered}
          choose={setOffered}
        />
      </div>
      {!ready && (
        <p className="mt-5 text-soft">
          Choose what goes out and what may come in: cocoa, sweetness, fat and milk stay what they were as far as they
          can.
        </p>
      )}
      {found && (
        <Section title={found.lost.length === 0 ? 'The same chocolate' : 'As near as it comes'}>
          <ul className="rows">
            {found.answer.lines
              .filter(({ grams }) => grams > 0)
              .map(({ id, grams }) => (
                <li key={id} className="flex items-baseline gap-4 py-1.5">
                  <span className="figure w-28 text-right text-lg">{show.mass(grams * 1000)}</span>
                  <span>{nameOf(id)}</span>
                </li>
              ))}
          </ul>
          {found.lost.length > 0 && (
            <p className="mt-3">
              <strong>Cannot be kept:</strong> {found.lost.map(({ words }) => words).join('; ')}.
            </p>
          )}
          {found.comes.length > 0 && (
            <p className="mt-2 rounded-md bg-crimson-wash px-4 py-2 font-semibold">
              Brings in {found.comes.join(', ')}: the label, the moulds and the stones it goes over are no longer free
              of it.
            </p>
          )}
          {found.goes.length > 0 && (
            <div className="mt-2">
              <Caution>
                Without {found.goes.join(', ')} among its ingredients. Stones, pots and moulds that had it carry it over
                until a cleaning of allergens is recorded: it is no free-from yet.
              </Caution>
            </div>
          )}
          <button
            type="button"
            className="button button-main mt-4"
            onClick={() =>
              take(
                found.answer.lines.filter(({ grams }) => grams > 0).map(({ id, grams }) => ({ ingredient: id, grams })),
              )
            }
          >
            Take it into the recipe
          </button>
        </Section>
      )}
    </div>
  );
}
