import type { DueItem } from '@wunsch/core/api/types';
import { nextOfFill, NEXT_WORDS, type MouldFill } from '@wunsch/core/work/moulding';
import type { Work } from '@wunsch/core/workshop/work';

function waitsFor(fill: MouldFill, mould: Work['mould'], code: string): Pick<DueItem, 'text' | 'at'> {
  const { act, at } = nextOfFill(fill, mould?.setMin ?? 0, mould?.shellSec ?? null);
  const words = act === 'none' ? '' : NEXT_WORDS[act];
  return { text: `${words} ${fill.moulds} ${fill.moulds === 1 ? 'mould' : 'moulds'}, ${code}`, at };
}

/** Groups of moulds that set, each with its own clock. */
export const mouldDue = ({ id, mould }: Work, code: string, link: string): DueItem[] =>
  (mould?.fills ?? []).flatMap((fill) =>
    fill.outAt !== null
      ? []
      : [
          {
            id: `${id}-${fill.id}`,
            station: 'mould' as const,
            ...waitsFor(fill, mould, code),
            link,
          },
        ],
  );
