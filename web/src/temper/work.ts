import { milligrams, type StationWork, type WorkSum } from '../entry/station-work';

export const TEMPER_WORK: StationWork = {
  kind: 'temper',
  verbs: { start: 'Begin the pour', finish: 'Save the temper', oneGo: 'Enter a pour that is done' },
  sum: {
    parts: (v) => (v['outG'] === undefined ? [] : [{ name: 'in temper', mg: milligrams(v['outG']), tone: 'good' }]),
    restName: 'in temper or left behind',
    restTone: 'missing',
  },
  keeps: [{ name: 'method' }],
  begins: (work) => ({ method: { text: work?.school ?? 'slab' }, test: { text: 'none' } }),
  pantry: 'joins, and is worked',
};

/** Silk that is held: what comes out of what went in. */
export const SILK_SUM: WorkSum = {
  parts: (v) => (v['outG'] === undefined ? [] : [{ name: 'silk', mg: milligrams(v['outG']), tone: 'good' }]),
  restName: 'silk or left behind',
  restTone: 'missing',
};
