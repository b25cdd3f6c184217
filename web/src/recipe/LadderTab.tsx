import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { LadderView, PantryView } from '@wunsch/core/api/recipe';
import { ladderOf, usualGap, VARIED } from '@wunsch/core/recipe/ladder';
import { valueText } from '@wunsch/core/recipe/limits';
import type { Recipe } from '@wunsch/core/recipe/records';
import { FIGURES, type FigureId } from '@wunsch/core/recipe/words';
import { massUnitFor } from '@wunsch/core/units/mass';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Box, Chips } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useWorked } from '../parts/worked';
import { useHere, useShow } from '../parts/workshop';
import { choicesOf, kitchen, rowsOf } from './compute';
import { routeFor } from './draft';
import { useNibsOf } from './nibs';
import { Quantity } from './Quantity';
import { Choice } from '../parts/choice';
import { Overrule } from '../parts/Overrule';

/** Three to five variants of the recipe, small, side by side, that end in a tasting. */
export function LadderTab({
  recipeId,
  version,
  recipe,
  pantry,
  ladders,
}: {
  recipeId: string;
  version: number;
  recipe: Recipe;
  pantry: PantryView;
  ladders: readonly LadderView[];
}) {
  return (
    <div className="max-w-5xl">
      {ladders.map((ladder) => (
        <Kept key={ladder.id} ladder={ladder} recipeId={recipeId} version={version} recipe={recipe} />
      ))}
      <NewLadder recipeId={recipeId} recipe={recipe} pantry={pantry} />
    </div>
  );
}

function NewLadder({ recipeId, recipe: written, pantry }: { recipeId: string; recipe: Recipe; pantry: PantryView }) {
  const { view, personId } = useHere();
  const { settings } = view;
  const [of, setOf] = useState<FigureId>('cocoa');
  const [count, setCount] = useState('3');
  const [gap, setGap] = useState<number | null>(null);
  const [sizeG, setSizeG] = useState<number | null>(1000);
  const [name, setName, forget] = useKept(`ladder.${recipeId}.name`, '');
  const { busy, error, run, fail } = useSave();
  const unit = massUnitFor((sizeG ?? 1000) * 1000, settings.massSystem);
  const show = useShow(unit);
  const { recipe, chooser } = useNibsOf(written, pantry, show.mass);
  const rows = rowsOf(
    pantry,
    recipe.lines.map(({ ingredient }) => ingredient),
  );
  const lines = rows.map((ingredient) => ({
    ingredient,
    grams: recipe.lines.find((line) => line.ingredient === ingredient.id)?.grams ?? 0,
  }));
  const step = gap ?? usualGap(of);
  const variants = ladderOf(lines, of, Number(count), step);
  const values = variants.map(({ value }) => value);
  const key = variants.length > 0 && sizeG ? JSON.stringify([of, values, sizeG, recipe.lines]) : null;
  const arms = useWorked(key, () =>
    Promise.all(
      variants.map(({ limits }) =>
        kitchen().solve({
          choices: choicesOf(rows, false),
          limits,
          leastG: null,
          mostG: null,
          machine: '',
          size: { grams: sizeG ?? 1000 },
          stepG: recipe.stepG,
          currency: settings.currency,
          massSystem: settings.massSystem,
        }),
      ),
    ),
  );
  const save = (): void => {
    if (personId === null) return fail(NOBODY);
    if (!arms) return;
    void run(() =>
      send('POST', `/api/recipe/recipes/${recipeId}/ladders`, {
        personId,
        name: name || `${FIGURES[of].name} ${valueText(of, values[0] ?? 0)} to ${valueText(of, values.at(-1) ?? 0)}`,
        what: FIGURES[of].name,
        arms: arms.map((answer, index) => ({
          name: valueText(of, values[index] ?? 0),
          lines: answer.lines
            .filter(({ grams }) => grams > 0)
            .map(({ id, grams }) => ({ ingredient: id, grams: Number(grams.toFixed(3)) })),
        })),
      }),
    ).then((kept) => kept && forget());
  };
  return (
    <Section title="A new ladder">
      <p className="mb-4 max-w-3xl text-soft">
        One thing varied, all else kept: small batches on one lot side by side, then tasted against each other.
      </p>
      <div className="grid gap-4">
        {chooser}
        <Chips
          legend="What is varied"
          options={VARIED.map((id) => [id, FIGURES[id].name] as const)}
          chosen={[of]}
          choose={([next]) => setOf(next ?? 'cocoa')}
        />
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <Chips
            legend="How many"
            options={
              [
                ['3', '3'],
                ['4', '4'],
                ['5', '5'],
              ] as const
            }
            chosen={[count as '3']}
            choose={([next]) => setCount(next ?? '3')}
          />
          <Quantity
            className="w-32"
            label="Apart by"
            unit="%"
            value={step}
            onValue={(value) => setGap(value === 0 ? null : value)}
          />
          <Quantity className="w-36" label="Each" mass={unit} value={sizeG} onValue={setSizeG} />
          <Box className="min-w-48 flex-1" label="Name" value={name} onChange={setName} placeholder="How sweet" />
        </div>
      </div>
      {arms && (
        <div className="mt-5 grid gap-x-8 gap-y-4 sm:grid-cols-3 lg:grid-cols-5">
          {arms.map((answer, index) => (
            <div key={index} className="border-t-2 border-ink pt-2">
              <p className="figure text-2xl">{valueText(of, values[index] ?? 0)}</p>
              <ul className="mt-1 text-sm">
                {answer.lines
                  .filter(({ grams }) => grams > 0)
                  .map(({ id, grams }) => (
                    <li key={id} className="flex justify-between gap-3">
                      <span className="truncate">{rows.find((row) => row.id === id)?.name}</span>
                      <span className="whitespace-nowrap">{show.mass(grams * 1000)}</span>
                    </li>
                  ))}
              </ul>
              {answer.kept.some((row) => row.of === of && Math.abs(row.rounded - row.wanted) > 0.2) && (
                <p className="mt-1 text-sm font-semibold text-crimson">these ingredients do not reach it</p>
              )}
            </div>
          ))}
        </div>
      )}
      <button type="button" className="button button-main mt-5" disabled={busy || !arms} onClick={save}>
        Plan the ladder
      </button>
      <Refusal error={error} />
    </Section>
  );
}

function Kept({
  ladder,
  recipeId,
  version,
  recipe,
}: {
  ladder: LadderView;
  recipeId: string;
  version: number;
  recipe: Recipe;
}) {
  const { view, personId } = useHere();
  const show = useShow();
  const navigate = useNavigate();
  const { busy, error, run, fail } = useSave();
  const grinders = machinesAt(view.machines, 'grind');
  const [machines, setMachines] = useState<Record<number, string>>({});
  const weigh = (index: number): void => {
    const arm = ladder.arms[index];
    if (personId === null) return fail(NOBODY);
    if (!arm) return;
    void run(async () => {
      const { data } = await send('POST', '/api/recipe/weighings', {
        personId,
        recipe: { id: recipeId, version },
        name: `${recipe.name}, ${arm.name}`,
        machineId: machines[index] || arm.machineId,
        routeId: routeFor(recipe, view.routes),
        targetMicron: recipe.targetMicron,
        stepG: recipe.stepG,
        lines: arm.lines.map(({ ingredient, grams }) => ({ ingredient, grams })),
        ladder: { id: ladder.id, arm: index },
      });
      await navigate(`/weighing/${data.id}`);
    });
  };
  return (
    <Section title={ladder.name} aside={`${ladder.person}, ${show.day(ladder.at)}`}>
      <p className="figure text-xl">{ladder.sentence}</p>
      <Overrule judged="ladder" subject={ladder.id} said={ladder.sentence} />
      <div className="mt-3 grid gap-x-8 gap-y-4 sm:grid-cols-3 lg:grid-cols-5">
        {ladder.arms.map((arm, index) => (
          <div key={arm.name} className="border-t-2 border-ink pt-2">
            <p className="figure text-2xl">{arm.name}</p>
            <ul className="text-sm">
              {arm.lines.map((line) => (
                <li key={line.ingredient} className="flex justify-between gap-3">
                  <span className="truncate">{line.name}</span>
                  <span className="whitespace-nowrap">{show.mass(line.grams * 1000)}</span>
                </li>
              ))}
            </ul>
            {arm.batch ? (
              <p className="mt-2 text-sm">
                <Link className="code link" to={`/batch/${arm.batch.code}`}>
                  {arm.batch.code}
                </Link>{' '}
                is {arm.batch.cocoaPct.toFixed(1)}&nbsp;%
                {arm.batch.score !== null && (
                  <>
                    , scored <strong>{arm.batch.score.toFixed(1)}</strong> ({arm.batch.scores})
                  </>
                )}
              </p>
            ) : (
              <div className="mt-2 grid gap-2">
                <Choice
                  className="text-sm!"
                  label={`Grinder for ${arm.name}`}
                  value={machines[index] ?? ''}
                  options={[['', 'any grinder'], ...grinders.map(({ id, name }) => [id, name] as const)]}
                  onChange={(id) => setMachines((now) => ({ ...now, [index]: id }))}
                />
                <button type="button" className="button" disabled={busy} onClick={() => weigh(index)}>
                  Weigh it
                </button>
              </div>
            )}
          </div>
        ))}
      </div>
      {ladder.arms.every(({ batch }) => batch !== null) && (
        <Link className="button mt-4 inline-flex" to="/station/taste">
          To the tasting
        </Link>
      )}
      <Refusal error={error} />
    </Section>
  );
}
