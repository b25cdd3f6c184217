import type { StationFacts } from '../workshop/station';
import { oneThing } from '../workshop/things';
import { remeltMarks, temperMarks } from './marks';

/** What can be taken to this bench, and the step that work here becomes, with what was marked of the pour. */
export const station: StationFacts = {
  accepts: ['block', 'mass', 'remelt', 'seconds', 'tempered'],
  ends: 'temper',
  things: { temper: oneThing('pour', ({ id }) => id) },
  marks: { temper: temperMarks, remelt: remeltMarks },
  begins: ({ silk }) => (silk === true ? { silk } : {}),
  finishes: ({ pour, silk }, command) =>
    silk !== true && pour && pour.marks.length > 0 ? { marks: pour.marks, ...command } : command,
};
