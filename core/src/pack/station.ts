import type { StationFacts } from '../workshop/station';
import { oneThing } from '../workshop/things';

/** What can be taken to this bench, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['bars', 'block', 'mass', 'remelt'],
  things: {
    pack: {
      ...oneThing('packing', ({ id }) => id),
      takes: ({ postings }, book) =>
        postings.flatMap(({ holdingId }) =>
          holdingId !== null && book.holding(holdingId).kind === 'packaging'
            ? [{ kind: 'packaging', id: holdingId }]
            : [],
        ),
      wraps: true,
    },
  },
};
