import type { DueItem } from '@wunsch/core/api/types';
import type { Work } from '@wunsch/core/workshop/work';

/** Groups of moulds that set, each with its own clock. */
export const mouldDue = ({ id, mould }: Work, code: string, link: string): DueItem[] =>
  (mould?.fills ?? []).flatMap((fill) =>
    fill.outAt !== null
      ? []
      : [
          {
            id: `${id}-${fill.id}`,
            station: 'mould' as const,
            text: `Turn out ${fill.moulds} ${fill.moulds === 1 ? 'mould' : 'moulds'}, ${code}`,
            link,
            at: fill.at + (mould?.setMin ?? 0) * 60_000,
          },
        ],
  );
