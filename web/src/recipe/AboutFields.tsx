import { RECIPE_KINDS, type RecipeKind } from '@wunsch/core/recipe/words';
import { machinesAt } from '@wunsch/core/workshop/machines';
import { SelectBox } from '../parts/choice';
import { Box } from '../parts/fields';
import { useHere } from '../parts/workshop';
import type { RecipeDraft } from './draft';
import { Quantity } from './Quantity';

/** What a recipe is called, what its label says, and what it is made on. */
export function AboutFields({
  recipe,
  change,
  problem,
  mass,
}: {
  recipe: RecipeDraft;
  change: (part: Partial<RecipeDraft>) => void;
  problem: string | undefined;
  mass: (mg: number) => string;
}) {
  const { view } = useHere();
  const grinders = machinesAt(view.machines, 'grind', recipe.machineId);
  return (
    <>
      <h2 className="mt-7 mb-3 text-xl">What it is called and made on</h2>
      <div className="grid gap-x-6 gap-y-4 sm:grid-cols-2">
        <Box
          label="Name"
          value={recipe.name}
          problem={problem}
          placeholder="Ridge 72"
          onChange={(name) => change({ name })}
        />
        <SelectBox
          label="Kind"
          value={recipe.kind}
          options={Object.entries(RECIPE_KINDS)}
          onChange={(kind) => change({ kind: kind as RecipeKind })}
        />
        <Quantity
          label="Cocoa that the label says"
          unit="%"
          value={recipe.labelPct}
          placeholder="none"
          onValue={(labelPct) => change({ labelPct })}
        />
        <SelectBox
          label="Grinder"
          value={recipe.machineId ?? ''}
          options={[
            ['', 'any'],
            ...grinders.map(({ id, name, minG, maxG }) => {
              const takes =
                maxG === null ? '' : `, ${minG === null ? '' : `${mass(minG * 1000)} to `}${mass(maxG * 1000)}`;
              return [id, `${name}${takes}`] as const;
            }),
          ]}
          onChange={(machineId) => change({ machineId: machineId || null })}
        />
        <SelectBox
          label="Route"
          value={recipe.routeId ?? ''}
          options={[['', 'chosen when it is weighed'], ...view.routes.map(({ id, name }) => [id, name] as const)]}
          onChange={(routeId) => change({ routeId: routeId || null })}
        />
        <Quantity
          label="The scale’s step"
          unit="g"
          value={recipe.stepG}
          onValue={(stepG) => stepG !== null && stepG > 0 && change({ stepG })}
        />
        <div className="sm:col-span-2">
          <Box label="Note" value={recipe.note} onChange={(note) => change({ note })} />
        </div>
      </div>
    </>
  );
}
