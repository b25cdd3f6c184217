import type { StationFacts } from '../workshop/station';
import type { SortCommand } from './commands';

/** What can be taken to this bench, what comes through, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['lot', 'beans'],
  ends: 'sort',
  things: {
    sort: {
      kinds: ['sack'],
      begins: ({ command }) => {
        const { sacks = [], sources } = command as SortCommand;
        return sacks.map((no) => ({ kind: 'sack', id: `${sources[0]?.holdingId ?? ''} ${no}` }));
      },
    },
  },
  yields: {
    step: 'sort',
    usual: [0.9, 0.99],
    levelOf: 'lot',
    whenLow: 'Look at the reject piles by reason: one reason driving it is a claim; all of them is a harder hand.',
    whenHigh: 'Fewer rejects than usual: a good sack, or a hurried table. Look over one tray again.',
    whenWorse: 'Look at the piles by reason: one reason driving it is the lot; all of them is the hand.',
  },
};
