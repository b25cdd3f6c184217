import type { DueItem } from '@wunsch/core/api/types';
import type { Area } from '../ledger/area';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** Blocks on the shelf: each is to come off when it has rested as long as was meant, or as is usual. */
function blocksDue({ workshop: { book, batches, settings } }: Views): DueItem[] {
  return book.standing.flatMap(({ id, place, code, batchId }): DueItem[] => {
    if (place !== 'rest') return [];
    const since = book.firstEntry(id)?.at ?? 0;
    return [
      {
        id: `rest-${id}`,
        station: 'rest',
        text: `Block ${code} has rested`,
        link: `/station/rest?holding=${code}`,
        at: batches.get(batchId ?? '')?.restUntil ?? since + settings.restDays * DAY_MS,
        together: true,
      },
    ];
  });
}

export const area: Area = { due: blocksDue };
