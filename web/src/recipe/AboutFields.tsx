import { RECIPE_KINDS, type RecipeKind } from '@wunsch/core/recipe/words';
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
  const grinders = view.machines.filter(({ station }) => station === 'grind');
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
        <label className="label block">
          Kind
          <select
            className="entry"
            value={recipe.kind}
            onChange={(event) => change({ kind: event.target.value as RecipeKind })}
          >
            {Object.entries(RECIPE_KINDS).map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <Quantity
          label="Cocoa that the label says"
          unit="%"
          value={recipe.labelPct}
          placeholder="none"
          onValue={(labelPct) => change({ labelPct })}
        />
        <label className="label block">
          Grinder
          <select
            className="entry"
            value={recipe.machineId ?? ''}
            onChange={(event) => change({ machineId: event.target.value || null })}
          >
            <option value="">any</option>
            {grinders.map(({ id, name, minG, maxG }) => (
              <option key={id} value={id}>
                {name}
                {maxG === null ? '' : `, ${minG === null ? '' : `${mass(minG * 1000)} to `}${mass(maxG * 1000)}`}
              </option>
            ))}
          </select>
        </label>
        <label className="label block">
          Route
          <select
            className="entry"
            value={recipe.routeId ?? ''}
            onChange={(event) => change({ routeId: event.target.value || null })}
          >
            <option value="">chosen when it is weighed</option>
            {view.routes.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
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
