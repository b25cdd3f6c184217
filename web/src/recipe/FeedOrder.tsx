import type { RecipeLine } from '@wunsch/core/recipe/records';
import { Quantity } from './Quantity';

/** When each ingredient goes in, and in how many portions; empty: as usual for its kind. */
export function FeedOrder({
  lines,
  nameOf,
  change,
}: {
  lines: readonly RecipeLine[];
  nameOf: (id: string) => string;
  change: (lines: RecipeLine[]) => void;
}) {
  const set = (index: number, part: Partial<RecipeLine>): void =>
    change(lines.map((line, i) => (i === index ? { ...line, ...part } : line)));
  return (
    <details className="mt-5">
      <summary className="link inline-flex min-h-11 cursor-pointer items-center">When each goes into the bowl</summary>
      <p className="text-sm text-soft">
        Left empty, as usual: a little butter first, nibs in portions over an hour, sugar after three, milk after four,
        lecithin at the end.
      </p>
      <ul>
        {lines.map((line, index) => (
          <li
            key={line.ingredient}
            className="grid grid-cols-[minmax(0,1fr)_7rem_7rem] items-end gap-x-4 border-t border-rule py-2"
          >
            <span className="truncate pb-3">{nameOf(line.ingredient)}</span>
            <Quantity
              label="After"
              unit="h"
              placeholder="usual"
              value={line.atMinutes === null ? null : line.atMinutes / 60}
              onValue={(hours) => set(index, { atMinutes: hours === null ? null : Math.round(hours * 60) })}
            />
            <Quantity
              label="Portions"
              placeholder="usual"
              value={line.portions}
              onValue={(portions) =>
                set(index, { portions: portions === null || portions < 1 ? null : Math.round(portions) })
              }
            />
          </li>
        ))}
      </ul>
    </details>
  );
}
