import { XIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import type { PantryView } from '@wunsch/core/api/recipe';
import { figuresOfLines } from '@wunsch/core/recipe/ingredient';
import { nameOfLimit, valueOf } from '@wunsch/core/recipe/limits';
import { limit as limitSchema } from '@wunsch/core/recipe/records';
import { massUnitFor } from '@wunsch/core/units/mass';
import { machinesAt } from '@wunsch/core/workshop/machines';
import type { Draft } from '../parts/draft';
import { Chips } from '../parts/fields';
import { Figure } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { AboutFields } from './AboutFields';
import { Answering } from './Answering';
import { blankLine, type RecipeDraft } from './draft';
import { FeedOrder } from './FeedOrder';
import { Follows } from './Follows';
import { Quantity } from './Quantity';
import { TargetRows } from './TargetRows';
import type { Weighed } from './weighed';
import { Choice } from '../parts/choice';

/** From what is wanted to what to weigh, and back. */
export function MakeTab({
  draft,
  pantry,
  weighed,
  problems,
  missing,
}: {
  draft: Draft<RecipeDraft>;
  pantry: PantryView;
  weighed: Weighed;
  problems: Record<string, string>;
  missing: readonly string[];
}) {
  const { view } = useHere();
  const { value: recipe, set } = draft;
  const { lines, answer } = weighed;
  const figures = figuresOfLines(lines);
  const total = figures.grams;
  const unit = massUnitFor(Math.max(total, recipe.sizeG ?? 0) * 1000, view.settings.massSystem);
  const show = useShow(unit);
  const change = (part: Partial<RecipeDraft>): void => set((now) => ({ ...now, ...part }));
  const nameOf = (id: string): string => pantry.rows.find((row) => row.id === id)?.name ?? id;
  const gramsOf = (id: string): number => lines.find(({ ingredient }) => ingredient.id === id)?.grams ?? 0;
  const now = (of: string): number | null => (total > 0 ? valueOf(of, figures, gramsOf) : null);
  const grinders = machinesAt(view.machines, 'grind', recipe.machineId);
  const machine = grinders.find(({ id }) => id === recipe.machineId);
  const used = new Set(recipe.lines.map(({ ingredient }) => ingredient));
  const setGrams = (index: number, grams: number | null): void =>
    set((old) => ({
      ...old,
      by: 'grams',
      // Grams that were worked out become what is typed, so that only one of them changes.
      lines: old.lines.map((line, i) => ({
        ...line,
        grams:
          i === index
            ? (grams ?? 0)
            : Number(
                (lines.find(({ ingredient }) => ingredient.id === line.ingredient)?.grams ?? line.grams).toFixed(3),
              ),
      })),
    }));
  const size =
    machine?.maxG != null && total > machine.maxG
      ? 'over'
      : machine?.minG != null && total > 0 && total < machine.minG
        ? 'under'
        : null;
  return (
    <div className="grid gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,1fr)_20rem]">
      <div className="min-w-0">
        <div className="grid grid-cols-2 gap-x-8 gap-y-4 sm:grid-cols-4" aria-live="polite">
          <Figure
            small
            label="Cocoa"
            value={total > 0 ? `${figures.cocoaPct.toFixed(1)}\u00a0%` : '–'}
            note={
              total > 0 ? `${figures.withoutButterPct.toFixed(1)}\u00a0% without added butter` : 'nothing in it yet'
            }
          />
          <Figure
            small
            label="Fat"
            value={total > 0 ? `${figures.fatPct.toFixed(1)}\u00a0%` : '–'}
            note={figures.lecithinPct > 0.005 ? `lecithin ${figures.lecithinPct.toFixed(2)}\u00a0%` : ' '}
          />
          <Figure
            small
            label={figures.polyolsPct > 0.05 ? 'Sugar and sweeteners' : 'Sugar'}
            value={total > 0 ? `${(figures.sugarPct + figures.polyolsPct).toFixed(1)}\u00a0%` : '–'}
            note={figures.milkPct > 0.05 ? `milk solids ${figures.milkPct.toFixed(1)}\u00a0%` : ' '}
          />
          <Figure
            small
            label="Batch"
            value={show.mass(total * 1000)}
            note={
              size === 'over' ? (
                <strong className="text-crimson">over what {machine?.name} carries</strong>
              ) : size === 'under' ? (
                <strong className="text-crimson">under the least of {machine?.name}</strong>
              ) : (
                (machine?.name ?? 'no grinder chosen')
              )
            }
          />
        </div>
        <div className="mt-4">
          <Answering answer={answer} by={recipe.by} />
        </div>
        {missing.length > 0 && (
          <p className="mt-3 rounded-md bg-ripe-wash px-4 py-2 text-sm">
            Not among your ingredients yet: {missing.join(', ')}. Add {missing.length === 1 ? 'it' : 'them'} under{' '}
            <Link className="link" to="/ingredients">
              Ingredients
            </Link>
            , or go on without.
          </p>
        )}
        <div className="mt-4 grid gap-x-10 gap-y-7 md:grid-cols-2">
          <div className="min-w-0">
            <div className="mb-3">
              <Chips
                legend={<span className="sr-only">What you start from</span>}
                options={[
                  ['targets', 'What it should be'],
                  ['grams', 'What is weighed'],
                ]}
                chosen={[recipe.by]}
                choose={([by]) =>
                  change({
                    by: by ?? 'targets',
                    lines: recipe.lines.map((line) => ({
                      ...line,
                      grams: Number(gramsOf(line.ingredient).toFixed(3)),
                    })),
                    ...(by === 'targets' && recipe.limits.length === 0 && total > 0
                      ? { limits: [limitSchema.parse({ of: 'cocoa', aim: Math.round(figures.cocoaPct * 10) / 10 })] }
                      : {}),
                  })
                }
              />
            </div>
            {recipe.limits.length === 0 && (
              <p className="mb-2 text-soft">
                Nothing is asked for yet: say what percent it should have, and the grams follow.
              </p>
            )}
            <TargetRows
              limits={recipe.limits}
              change={(limits) => change({ limits })}
              nameOf={(of) => nameOfLimit(of, nameOf)}
              now={now}
              kept={answer?.kept ?? []}
              ingredients={lines.map(({ ingredient }) => ingredient)}
              problems={problems}
            />
          </div>
          <div className="min-w-0">
            <div className="mb-2 flex min-h-12 items-center justify-between gap-4">
              <h2 className="text-xl">What to weigh</h2>
              {recipe.by === 'targets' && (
                <Quantity
                  quiet
                  label="Batch"
                  className="w-40"
                  mass={unit}
                  value={recipe.sizeG}
                  placeholder="all that fits"
                  onValue={(sizeG) => change({ sizeG: sizeG === 0 ? null : sizeG })}
                />
              )}
            </div>
            {recipe.by === 'targets' && recipe.sizeG === null && !recipe.fromStock && machine?.maxG == null && (
              <p className="mb-2 text-sm font-semibold text-crimson">
                Say how much, choose a grinder, or take from what is here: nothing bounds the batch.
              </p>
            )}
            <ul>
              {recipe.lines.map((line, index) => {
                const row = pantry.rows.find(({ id }) => id === line.ingredient);
                const grams = gramsOf(line.ingredient);
                const pct = total > 0 ? (100 * grams) / total : 0;
                return (
                  <li
                    key={line.ingredient}
                    className="grid grid-cols-[minmax(0,1fr)_9.5rem_auto] items-center gap-x-4 border-t border-rule py-2"
                  >
                    <span className="min-w-0">
                      <span className="block truncate">{row?.name ?? 'an ingredient that is gone'}</span>
                      <span className="block text-sm text-soft">
                        {pct.toFixed(1)}&nbsp;%
                        {row && (row.stockG > 0 ? `, ${show.mass(row.stockG * 1000)} here` : ', none here')}
                      </span>
                      <span aria-hidden className="mt-1 block h-1.5 rounded-full bg-sunk">
                        <span
                          className="block h-full rounded-full bg-ripe"
                          style={{ width: `${Math.min(100, pct)}%` }}
                        />
                      </span>
                    </span>
                    <Quantity
                      quiet
                      label={`${row?.name ?? 'Ingredient'}, weighed`}
                      mass={unit}
                      digits={1}
                      value={Number(grams.toFixed(3))}
                      onValue={(value) => setGrams(index, value)}
                    />
                    <button
                      type="button"
                      className="button button-quiet px-2!"
                      aria-label={`Leave out ${row?.name ?? 'it'}`}
                      onClick={() =>
                        change({
                          lines: recipe.lines.filter((_, i) => i !== index),
                          limits: recipe.limits.filter(({ of }) => !of.endsWith(`:${line.ingredient}`)),
                        })
                      }
                    >
                      <XIcon size={18} aria-hidden />
                    </button>
                  </li>
                );
              })}
            </ul>
            <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-rule pt-2 text-sm">
              {recipe.by === 'targets' && (
                <label className="flex min-h-11 items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-5"
                    checked={recipe.fromStock}
                    onChange={(event) => change({ fromStock: event.target.checked })}
                  />
                  only from what is here
                </label>
              )}
              <Choice
                className="w-auto! max-w-full text-sm!"
                label="Another ingredient"
                placeholder="another ingredient …"
                value=""
                options={pantry.rows
                  .filter(({ id }) => !used.has(id))
                  .map(
                    ({ id, name, stockG }) =>
                      [id, `${name}${stockG > 0 ? `, ${show.mass(stockG * 1000)} here` : ''}`] as const,
                  )}
                onChange={(id) =>
                  change({
                    lines: [
                      ...recipe.lines.map((line) => ({
                        ...line,
                        grams: Number(gramsOf(line.ingredient).toFixed(3)),
                      })),
                      blankLine(id),
                    ],
                  })
                }
              />
            </div>
          </div>
        </div>
        <FeedOrder lines={recipe.lines} nameOf={nameOf} change={(lines) => change({ lines })} />
        <AboutFields recipe={recipe} change={change} problem={problems['name']} mass={show.mass} />
      </div>
      <aside>
        <Follows lines={lines} pantry={pantry} labelPct={recipe.labelPct} machine={machine ?? null} />
      </aside>
    </div>
  );
}
