import type { CompositionView } from '@wunsch/core/api/types';
import { Code } from './pieces';
import { useShow } from './workshop';

/** `70.6 %`, with the percent without added butter under it, and what is not known said. */
export const cocoaNote = ({ withoutButterPct, butterKnown, unknownShare }: CompositionView): string =>
  [
    butterKnown
      ? `${withoutButterPct.toFixed(1)}\u00a0% without added butter`
      : `at most ${withoutButterPct.toFixed(1)}\u00a0% without added butter: bought chocolate does not say`,
    ...(unknownShare > 0.0005 ? [`of ${(100 * unknownShare).toFixed(0)}\u00a0% of it the cocoa is not known`] : []),
  ].join('; ');

/** Allergens in goods, what brought them, and what the machines can have carried over. */
export function Allergens({ composition }: { composition: CompositionView }) {
  const show = useShow();
  const { allergensFrom, carriedOver } = composition;
  return (
    <div className="mt-3">
      {allergensFrom.length === 0 ? (
        <p className="text-soft">No allergen in what went in, as far as its papers say.</p>
      ) : (
        <p className="font-semibold">
          Contains {allergensFrom.map(({ allergen, from }) => `${allergen} (${from.join(', ')})`).join('; ')}.
        </p>
      )}
      {carriedOver.length > 0 && (
        <p className="mt-1">
          May contain, carried over:{' '}
          {carriedOver
            .map(({ allergen, machine, code, at }) => `${allergen} from ${code} on ${machine}, ${show.day(at)}`)
            .join('; ')}
          .{' '}
          <span className="text-soft">
            No cleaning of allergens is recorded since; what a label has to say, the local authority decides.
          </span>
        </p>
      )}
    </div>
  );
}

/** Fat, sugar, milk and the rest of goods, with how much of it is only as usual or not known at all. */
function MadeOf({ composition: { figures: f } }: { composition: CompositionView }) {
  const rows = [
    ['fat', f.fatPct],
    ['fat-free cocoa', f.dryCocoaPct],
    ['sugar', f.sugarPct],
    ['sweetener', f.polyolsPct],
    ['milk solids', f.milkPct],
    ['lecithin', f.lecithinPct],
    ['salt', f.saltPct],
    ['water', f.waterPct],
  ] as const;
  return (
    <p className="mt-3">
      Made of {rows.flatMap(([name, pct]) => (pct > 0.05 ? [`${pct.toFixed(1)}\u00a0% ${name}`] : [])).join(', ')}
      {f.flow !== null && f.unknownPct < 1 && `; ${f.flow.toFixed(1)} times as thick as its fat alone`}.{' '}
      <span className="text-soft">
        From the compositions of its ingredients
        {f.unknownPct > 0.05 && `; of ${f.unknownPct.toFixed(1)}\u00a0% of it nobody said what it is made of`}.
      </span>
    </p>
  );
}

/** What goods really are: everything in falling order, allergens below. */
export function CompositionTable({
  composition,
  totalMg,
}: {
  composition: CompositionView;
  totalMg?: number | undefined;
}) {
  const show = useShow();
  return (
    <>
      <table className="w-full text-left">
        <thead className="label">
          <tr>
            <th className="py-1 font-normal">Code</th>
            <th className="font-normal">What</th>
            {totalMg !== undefined && <th className="text-right font-normal">Weight</th>}
            <th className="text-right font-normal">Share</th>
          </tr>
        </thead>
        <tbody className="rows">
          {composition.parts.map(({ rootId, code, name, kind, share }) => (
            <tr key={rootId} className="border-t border-rule">
              <td className="py-2 pr-3">
                <Code code={code} kind={kind === 'cacao' ? 'lot' : 'ingredient'} />
              </td>
              <td>{name}</td>
              {totalMg !== undefined && <td className="text-right whitespace-nowrap">{show.mass(share * totalMg)}</td>}
              <td className="text-right whitespace-nowrap">{show.percent(share)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <MadeOf composition={composition} />
      <Allergens composition={composition} />
    </>
  );
}
