import { milligrams, type StationWork } from '../entry/station-work';

export const WINNOW_WORK: StationWork = {
  kind: 'winnow',
  verbs: { start: 'Begin winnowing', finish: 'Save nibs and husk', oneGo: 'Enter winnowing that is done' },
  sum: {
    parts: (v) => [
      { name: 'nibs', mg: milligrams(v['nibsG']), tone: 'good' },
      { name: 'husk', mg: milligrams(v['huskG']), tone: 'by' },
      { name: 'dust', mg: milligrams(v['dustG']), tone: 'loss' },
    ],
    restName: 'missing',
    restTone: 'missing',
  },
  keeps: [{ name: 'setting' }],
};
