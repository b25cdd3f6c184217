import type { StationFacts } from '../workshop/station';

/** What can be taken to this bench, what comes through, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['roasted', 'beans'],
  ends: 'winnow',
  yields: {
    step: 'winnow',
    usual: [0.78, 0.88],
    gives: 'nibs',
    whenLow: 'Nib may be leaving with the husk. Pick over one scoop of husk, weigh the nib in it, turn the air down.',
    whenHigh: 'Shell may be staying in the nibs. Pick over a hundred grams of nibs and weigh the shell.',
    whenWorse:
      'Pick a sample of husk: if it holds more nib than before, look at belt, fan, slide and seals of the winnower, then turn the air down.',
    whenMissing: 'Empty the cyclone and the hoses, weigh what comes, and check the scale with a known weight.',
  },
};
