import { Tabs } from 'radix-ui';
import { useReducer, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { PantryView, RecipeView } from '@wunsch/core/api/recipe';
import { READY_MADE_RECIPES } from '@wunsch/core/recipe/ready-made';
import { NIBS, recipe as recipeSchema } from '@wunsch/core/recipe/records';
import { ApiError, send, useApi } from '../parts/api';
import { draftOf, useDraft } from '../parts/draft';
import { Box } from '../parts/fields';
import { Loading, Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';
import { usePantry } from './compute';
import { draftFrom, draftOfReadyMade, recipeOf, routeFor, type RecipeDraft } from './draft';
import { LadderTab } from './LadderTab';
import { MakeTab } from './MakeTab';
import { RecipeNav } from './RecipeNav';
import { ScaleTab } from './ScaleTab';
import { SwapTab } from './SwapTab';
import { VersionsTab } from './VersionsTab';
import { limitProblems, useWeighed } from './weighed';

/** One recipe: what it should be, what to weigh, its sizes, swaps, variants and versions. */
export function RecipePage() {
  const { id = 'new' } = useParams();
  const [query] = useSearchParams();
  const [, lookAgain] = useReducer((times: number) => times + 1, 0);
  const pantry = usePantry();
  const kept = useApi(id === 'new' ? null : `/api/recipe/recipes/${encodeURIComponent(id)}`);
  if (!pantry.data || (id !== 'new' && !kept.data)) return <Loading error={pantry.error ?? kept.error} />;
  const from = query.get('from');
  const draftId = `recipe.${id}.${from ?? ''}`;
  return (
    <Writing
      // What is typed stays when somebody saves another version meanwhile; untouched, the newest is shown.
      key={`${draftId}.${draftOf<RecipeDraft>(draftId)?.base ?? kept.data?.versions[0]?.version ?? 0}`}
      draftId={draftId}
      thrown={lookAgain}
      id={id}
      from={from}
      pantry={pantry.data}
      kept={kept.data ?? null}
    />
  );
}

const TABS = [
  ['make', 'Make'],
  ['scale', 'Scale and split'],
  ['swap', 'Swap'],
  ['ladder', 'Ladder'],
  ['versions', 'Versions'],
] as const;

function Writing({
  id,
  draftId,
  thrown,
  from,
  pantry,
  kept,
}: {
  id: string;
  draftId: string;
  /** The draft is gone: the newest version is to be shown. */
  thrown: () => void;
  from: string | null;
  pantry: PantryView;
  kept: RecipeView | null;
}) {
  const { view, personId } = useHere();
  const navigate = useNavigate();
  const newest = kept?.versions[0];
  const [started] = useState(() =>
    newest
      ? { draft: draftFrom(newest.recipe, newest.version), missing: [] }
      : draftOfReadyMade(from === null ? undefined : READY_MADE_RECIPES[Number(from)], pantry),
  );
  const draft = useDraft<RecipeDraft>(draftId, () => started.draft);
  const { value: recipe } = draft;
  const weighed = useWeighed(recipe, pantry, newest !== undefined && !draft.touched);
  const [tab, setTab] = useState<string>('make');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const { busy, error, run, fail } = useSave();
  const grams = weighed.lines.map(({ ingredient, grams: own }) => ({
    ingredient: ingredient.id,
    grams: Number(own.toFixed(3)),
  }));
  const total = grams.reduce((sum, line) => sum + line.grams, 0);
  const whole = {
    ...recipeOf(recipe),
    lines: recipe.lines.map((line) => ({
      ...line,
      grams: grams.find(({ ingredient }) => ingredient === line.ingredient)?.grams ?? line.grams,
    })),
  };

  const save = (): void => {
    const read = recipeSchema.safeParse(whole);
    const found = Object.fromEntries(
      (read.error?.issues ?? []).map((issue) => [
        issue.path.slice(0, issue.path[0] === 'limits' ? 2 : 1).join('.'),
        issue.message,
      ]),
    );
    setProblems(found);
    if (!read.success) {
      setTab('make');
      return fail(found['name'] ? 'Give the recipe a name.' : 'Something in it cannot be: look for the words in red.');
    }
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      try {
        const { data } = await send(
          'POST',
          newest ? `/api/recipe/recipes/${id}/versions` : '/api/recipe/recipes',
          { personId, recipe: read.data, why: recipe.why, ...(newest ? { after: recipe.base } : {}) },
          draft.key,
        );
        draft.clear();
        if (!newest) await navigate(`/recipe/${data.id}`, { replace: true });
      } catch (reason) {
        if (reason instanceof ApiError)
          setProblems(
            Object.fromEntries(
              reason.problem.errors.map(({ path, message }) => [path.replace(/^recipe\./, ''), message]),
            ),
          );
        throw reason;
      }
    });
  };
  const throwAway = (): void => {
    draft.clear();
    thrown();
  };
  const weigh = (): void => {
    if (personId === null) return fail(NOBODY);
    if (!newest || draft.touched) return fail('Save it first: what is weighed keeps the version that it went by.');
    const lots = pantry.rows.filter((row) => row.id.startsWith('lot:') && row.stockG > 0);
    // Nibs of several lots are here: which of them is chosen first.
    if (lots.length > 1 && grams.some((line) => line.ingredient === NIBS && line.grams > 0)) return setTab('scale');
    void run(async () => {
      const { data } = await send('POST', '/api/recipe/weighings', {
        personId,
        recipe: { id, version: newest.version },
        name: recipe.name,
        machineId: recipe.machineId,
        routeId: routeFor(recipe, view.routes),
        targetMicron: recipe.targetMicron,
        stepG: recipe.stepG,
        lines: grams.filter((line) => line.grams > 0),
      });
      await navigate(`/weighing/${data.id}`);
    });
  };
  return (
    <Tabs.Root value={tab} onValueChange={setTab}>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6">
        <div className="min-w-0">
          <h1 className="text-4xl break-words">{newest?.recipe.name ?? (recipe.name || 'A new recipe')}</h1>
        </div>
        <RecipeNav />
      </div>
      {kept && (
        <Tabs.List aria-label="Parts of the recipe" className="mb-5 flex flex-wrap items-center gap-2">
          {TABS.map(([value, label]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="chip data-[state=active]:bg-ink data-[state=active]:text-on-ink"
            >
              {label}
            </Tabs.Trigger>
          ))}
          {newest && (
            <span className="ml-2 text-soft">
              Version {newest.version}
              {draft.touched && ', changed and not saved'}
              {kept.shelved && ', put aside'}
            </span>
          )}
        </Tabs.List>
      )}
      {newest && draft.touched && recipe.base < newest.version && (
        <div role="alert" className="mb-4 rounded-md bg-ripe-wash px-4 py-3">
          <p className="font-semibold">
            {newest.person} saved version {newest.version} meanwhile. What you changed is still here, made from version{' '}
            {recipe.base}.
          </p>
          <div className="mt-2 flex flex-wrap gap-3">
            <button
              type="button"
              className="button"
              onClick={() => draft.set((now) => ({ ...now, base: newest.version }))}
            >
              Mine goes on top, as version {newest.version + 1}
            </button>
            <button type="button" className="button" onClick={throwAway}>
              Throw mine away, show theirs
            </button>
          </div>
        </div>
      )}
      <Tabs.Content value="make">
        <MakeTab
          draft={draft}
          pantry={pantry}
          weighed={weighed}
          problems={{ ...limitProblems(recipe.limits), ...problems }}
          missing={started.missing}
        />
        <div className="sticky bottom-[3.2rem] z-10 mt-6 border-t border-rule bg-paper py-2">
          <div className="flex flex-wrap items-end gap-3">
            <button
              type="button"
              className={`button ${newest && !draft.touched ? '' : 'button-main'}`}
              disabled={busy || weighed.pending}
              onClick={save}
            >
              {newest ? `Save as version ${newest.version + 1}` : 'Save the recipe'}
            </button>
            {newest && (
              <>
                {draft.touched && (
                  <Box
                    className="min-w-40 flex-1"
                    label="Why it changed"
                    value={recipe.why}
                    onChange={(why) => draft.set((now) => ({ ...now, why }))}
                  />
                )}
                <button
                  type="button"
                  className={`button ${draft.touched ? '' : 'button-main'}`}
                  disabled={busy || total <= 0}
                  onClick={weigh}
                >
                  Weigh it now
                </button>
                <a
                  className="button"
                  href={`/api/recipe/recipes/${id}/sheet.pdf?version=${newest.version}${total > 0 ? `&grams=${total}` : ''}`}
                  target="_blank"
                  rel="noreferrer"
                >
                  Sheet to print
                </a>
              </>
            )}
            {draft.touched && (
              <button type="button" className="button button-quiet" onClick={throwAway}>
                Throw the changes away
              </button>
            )}
          </div>
          <Refusal error={error} />
        </div>
      </Tabs.Content>
      {kept && newest && (
        <>
          <Tabs.Content value="scale">
            <ScaleTab recipeId={id} version={newest.version} recipe={whole} pantry={pantry} />
          </Tabs.Content>
          <Tabs.Content value="swap">
            <SwapTab
              lines={weighed.lines}
              pantry={pantry}
              stepG={recipe.stepG}
              take={(lines) => {
                draft.set((now) => ({
                  ...now,
                  by: 'grams',
                  lines: lines.map((line) => ({ ...line, atMinutes: null, portions: null })),
                }));
                setTab('make');
              }}
            />
          </Tabs.Content>
          <Tabs.Content value="ladder">
            <LadderTab recipeId={id} version={newest.version} recipe={whole} pantry={pantry} ladders={kept.ladders} />
          </Tabs.Content>
          <Tabs.Content value="versions">
            <VersionsTab view={kept} />
          </Tabs.Content>
        </>
      )}
    </Tabs.Root>
  );
}
