import type { Part } from '../entry/MassBar';
import { milligrams, type StationWork } from '../entry/station-work';

export const SORT_WORK: StationWork = {
  kind: 'sort',
  verbs: { start: 'Begin sorting', finish: 'Save the sorting', oneGo: 'Enter sorting that is done' },
  sum: {
    parts: (v) => [
      { name: 'good', mg: milligrams(v['goodG']), tone: 'good' },
      ...((v['rejects'] ?? []) as { reason: string; massG: number }[]).map(({ reason, massG }): Part => ({
        name: reason,
        mg: massG * 1000,
        tone: 'loss',
      })),
    ],
    restName: 'missing',
    restTone: 'missing',
  },
};
