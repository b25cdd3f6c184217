import { Link } from 'react-router';
import type { RecipeRow } from '@wunsch/core/api/recipe';
import { READY_MADE_RECIPES } from '@wunsch/core/recipe/ready-made';
import { RECIPE_KINDS } from '@wunsch/core/recipe/words';
import { send, useApi } from '../parts/api';
import { Empty, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { RecipeNav } from './RecipeNav';

/** The workshop's recipes, what is on the scale now, and the ones to start from. */
export function RecipesPage() {
  const answer = useApi('/api/recipe/recipes');
  const weighings = useApi('/api/recipe/weighings').data?.weighings ?? [];
  const show = useShow();
  if (!answer.data) return <Loading error={answer.error} />;
  const used = answer.data.recipes.filter(({ shelved }) => !shelved);
  const aside = answer.data.recipes.filter(({ shelved }) => shelved);
  return (
    <>
      <div className="mb-5 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-4xl">Recipes</h1>
        <RecipeNav />
      </div>
      {weighings.length > 0 && (
        <Section title="On the scale now">
          <ul className="rows">
            {weighings.map((row) => (
              <li key={row.id} className="flex flex-wrap items-center gap-x-4 py-2">
                <Link className="link text-lg" to={`/weighing/${row.id}`}>
                  {row.name}
                </Link>
                <span className="text-sm text-soft">
                  {show.mass(row.weighedG * 1000)} of {show.mass(row.plannedG * 1000)} weighed, begun{' '}
                  {show.moment(row.startedAt)} by {row.person}
                </span>
              </li>
            ))}
          </ul>
        </Section>
      )}
      <div className="mt-7 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div>
          <Section title="Yours">
            {used.length === 0 ? (
              <Empty title="No recipe is kept yet.">
                Begin with one of these, or{' '}
                <Link className="link" to="/recipe/new">
                  with nothing
                </Link>
                : say what it should be, and the grams follow.
              </Empty>
            ) : (
              <ul className="rows">
                {used.map((row) => (
                  <Own key={row.id} row={row} />
                ))}
              </ul>
            )}
          </Section>
          {aside.length > 0 && (
            <Section title="Put aside">
              <ul className="rows">
                {aside.map((row) => (
                  <Own key={row.id} row={row} />
                ))}
              </ul>
            </Section>
          )}
        </div>
        <div>
          <Section
            title="To start from"
            aside={
              <Link className="link" to="/recipe/new">
                with nothing
              </Link>
            }
          >
            <ul className="rows">
              {READY_MADE_RECIPES.map(({ name, reason }, index) => (
                <li key={name} className="py-2">
                  <Link className="group block" to={`/recipe/new?from=${index}`}>
                    <span className="link text-lg">{name}</span>
                    <span className="block text-sm text-soft">{reason}</span>
                  </Link>
                </li>
              ))}
            </ul>
          </Section>
        </div>
      </div>
    </>
  );
}

function Own({ row }: { row: RecipeRow }) {
  const show = useShow();
  const { personId } = useHere();
  const { error, run, fail } = useSave();
  const says = row.labelPct !== null && row.cocoaPct > 0 && row.cocoaPct < row.labelPct - 0.05;
  const shelve = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(() => send('POST', `/api/recipe/recipes/${row.id}/shelve`, { personId, shelved: !row.shelved }));
  };
  return (
    <li className="py-3">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-1">
        <span className="figure w-24 text-3xl">{row.cocoaPct.toFixed(1)}&nbsp;%</span>
        <span className="min-w-0 flex-1 basis-56">
          <Link className="link text-lg" to={`/recipe/${row.id}`}>
            {row.name}
          </Link>
          <span className="block text-sm text-soft">
            {RECIPE_KINDS[row.kind]}, version {row.version}; {row.withoutButterPct.toFixed(1)}&nbsp;% without added
            butter
          </span>
          {says && (
            <strong className="block text-sm text-crimson">
              The label says {row.labelPct}&nbsp;%, by the arithmetic it is {row.cocoaPct.toFixed(1)}&nbsp;%.
            </strong>
          )}
        </span>
        <span className="ml-auto text-right text-sm text-soft">
          <span className="figure block text-xl text-ink">{row.score === null ? '–' : row.score.toFixed(1)}</span>
          {row.batches === 0
            ? 'not made yet'
            : `${count(row.batches)} ${row.batches === 1 ? 'batch' : 'batches'}, last ${show.day(row.lastAt ?? 0)}`}
          <button type="button" className="button button-quiet ml-auto block pr-0!" onClick={shelve}>
            {row.shelved ? 'Take it back' : 'Put aside'}
          </button>
        </span>
      </div>
      <Refusal error={error} />
    </li>
  );
}
