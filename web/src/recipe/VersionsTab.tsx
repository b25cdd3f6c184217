import { Link } from 'react-router';
import type { RecipeBatch, RecipeVersionView, RecipeView } from '@wunsch/core/api/recipe';
import { meanScore } from '@wunsch/core/recipe/compare';
import { Listing, type Column } from '../parts/listing';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { useColumns } from '../parts/columns';

/** What changed from version to version, what that did, and what each batch was called and really is. */
export function VersionsTab({ view }: { view: RecipeView }) {
  return (
    <div className="max-w-4xl">
      {view.versions.map((version) => (
        <One key={version.version} version={version} />
      ))}
    </div>
  );
}

function One({ version }: { version: RecipeVersionView }) {
  const show = useShow();
  const { recipe, figures, changes, effects, batches } = version;
  const score = meanScore(batches);
  return (
    <Section title={`Version ${version.version}`} aside={`${version.person}, ${show.day(version.at)}`}>
      <p>
        {figures.cocoaPct.toFixed(1)}&nbsp;% cocoa, {figures.fatPct.toFixed(1)}&nbsp;% fat,{' '}
        {figures.sugarPct.toFixed(1)}&nbsp;% sugar
        {figures.milkPct > 0.05 && `, ${figures.milkPct.toFixed(1)}\u00a0% milk solids`};{' '}
        {show.price(figures.perKgMilli)} a {show.heavyWord}
        {figures.flow !== null && `; ${figures.flow.toFixed(1)} times as thick as its fat`}
        {score !== null && `; scored ${score.mean.toFixed(1)} over ${score.of} ${score.of === 1 ? 'batch' : 'batches'}`}
        .
      </p>
      {version.why !== '' && <p className="text-soft">“{version.why}”</p>}
      {changes.length > 0 && (
        <p className="mt-1 text-sm">
          <span className="text-soft">Changed:</span> {changes.join('; ')}.
        </p>
      )}
      {effects.length > 0 && (
        <p className="text-sm">
          <span className="text-soft">That did:</span> {effects.map(({ words }) => words).join('; ')}.
        </p>
      )}
      {recipe.note !== '' && <p className="text-sm text-soft">{recipe.note}</p>}
      {batches.length > 0 && <BatchTable batches={batches} prefix={`v${version.version}-`} />}
    </Section>
  );
}

/** What batches were called, and what they are by the arithmetic. */
export function BatchTable({ batches, prefix }: { batches: readonly RecipeBatch[]; prefix: string }) {
  const show = useShow();
  const column = useColumns(show);
  const columns: Column<RecipeBatch>[] = [
    {
      id: 'batch',
      head: 'Batch',
      value: ({ code, name }) => `${code} ${name}`,
      show: ({ code, name }) => (
        <>
          <Link className="code link" to={`/batch/${code}`}>
            {code}
          </Link>{' '}
          {name}
        </>
      ),
    },
    column.day('on', 'On', ({ startedAt }) => startedAt),
    {
      id: 'called',
      head: 'Called',
      unit: '%',
      right: true,
      value: ({ calledPct }) => calledPct,
      show: ({ calledPct }) => (calledPct === null ? '–' : `${calledPct}\u00a0%`),
    },
    {
      id: 'is',
      head: 'It is',
      unit: '%',
      right: true,
      value: ({ cocoaPct }) => Number(cocoaPct.toFixed(2)),
      show: ({ calledPct, cocoaPct }) => (
        <span className={calledPct !== null && cocoaPct < calledPct - 0.05 ? 'font-bold text-crimson' : ''}>
          {cocoaPct.toFixed(1)}&nbsp;%
        </span>
      ),
    },
    {
      id: 'thickness',
      head: 'Thickness',
      right: true,
      value: ({ flow }) => flow,
      show: ({ flow }) => (flow === null ? '–' : `${flow.toFixed(1)}×`),
    },
    column.price('cost', ({ perKgMilli }) => perKgMilli),
    {
      id: 'score',
      head: 'Score',
      right: true,
      value: ({ score }) => score,
      show: ({ score, scores }) => (score === null ? '–' : `${score.toFixed(1)} (${scores})`),
    },
  ];
  return (
    <Listing
      label="Batches of this recipe"
      prefix={prefix}
      rows={batches}
      columns={columns}
      rowId={({ id }) => id}
      sort="-on"
      pageSize={20}
      minWidth="32rem"
    />
  );
}
