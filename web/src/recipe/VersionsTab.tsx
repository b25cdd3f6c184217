import { Link } from 'react-router';
import type { RecipeBatch, RecipeVersionView, RecipeView } from '@wunsch/core/api/recipe';
import { meanScore } from '@wunsch/core/recipe/compare';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';

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
        {figures.cocoaPct.toFixed(1)} % cocoa, {figures.fatPct.toFixed(1)} % fat, {figures.sugarPct.toFixed(1)} % sugar
        {figures.milkPct > 0.05 && `, ${figures.milkPct.toFixed(1)} % milk solids`}; {show.money(figures.perKgMilli)} a
        kilogram
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
      {batches.length > 0 && <BatchTable batches={batches} />}
    </Section>
  );
}

/** What batches were called, and what they are by the arithmetic. */
export function BatchTable({ batches }: { batches: readonly RecipeBatch[] }) {
  const show = useShow();
  return (
    <div className="mt-2 overflow-x-auto">
      <table className="w-full min-w-[30rem] text-sm">
        <thead className="text-left text-soft">
          <tr>
            <th className="py-1 font-normal">Batch</th>
            <th className="font-normal">On</th>
            <th className="text-right font-normal">Called</th>
            <th className="text-right font-normal">It is</th>
            <th className="text-right font-normal">Thickness</th>
            <th className="text-right font-normal">A kilogram</th>
            <th className="text-right font-normal">Score</th>
          </tr>
        </thead>
        <tbody>
          {batches.map((row) => {
            const off = row.calledPct !== null && row.cocoaPct < row.calledPct - 0.05;
            return (
              <tr key={row.id} className="border-t border-rule">
                <td className="py-1.5">
                  <Link className="code link" to={`/batch/${row.code}`}>
                    {row.code}
                  </Link>{' '}
                  {row.name}
                </td>
                <td>{show.day(row.startedAt)}</td>
                <td className="text-right">{row.calledPct === null ? '–' : `${row.calledPct} %`}</td>
                <td className={`text-right ${off ? 'font-bold text-crimson' : ''}`}>{row.cocoaPct.toFixed(1)} %</td>
                <td className="text-right">{row.flow === null ? '–' : `${row.flow.toFixed(1)}×`}</td>
                <td className="text-right">{row.perKgMilli === null ? '–' : show.money(row.perKgMilli)}</td>
                <td className="text-right">{row.score === null ? '–' : `${row.score.toFixed(1)} (${row.scores})`}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
