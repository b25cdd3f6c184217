import { milligrams, type StationWork } from '../entry/station-work';

export const ROAST_WORK: StationWork = {
  kind: 'roast',
  verbs: { start: 'Start the roast', finish: 'Save the load', oneGo: 'Enter a load that is done' },
  sum: {
    parts: (v) => [{ name: 'roasted', mg: milligrams(v['outG']), tone: 'good' }],
    restName: 'water and volatiles',
    restTone: 'loss',
  },
  mostMinutes: 20,
};
