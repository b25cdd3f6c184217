import type { StationFacts } from '../workshop/station';

/** What can be taken to this bench, what comes through, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['lot', 'beans'],
  ends: 'sort',
  yields: {
    step: 'sort',
    usual: [0.9, 0.99],
    levelOf: 'lot',
    whenLow: 'Look at the reject piles by reason: one reason driving it is a claim; all of them is a harder hand.',
    whenHigh: 'Fewer rejects than usual: a good sack, or a hurried table. Look over one tray again.',
    whenWorse: 'Look at the piles by reason: one reason driving it is the lot; all of them is the hand.',
  },
};
