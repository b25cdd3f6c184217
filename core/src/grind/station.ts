import type { StationFacts } from '../workshop/station';
import { oneThing } from '../workshop/things';
import { dischargeMarks, readingMarks } from './marks';

/** What can be taken to this bench, what comes through, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['nibs', 'lot', 'mass', 'block', 'remelt'],
  machines: ['mass'],
  things: { charge: oneThing('fill', ({ batchId }) => batchId ?? '') },
  marks: { reading: readingMarks, discharge: dischargeMarks },
  yields: {
    step: 'discharge',
    usual: [0.96, 0.995],
    whenLow: 'Scrape bowl and stones and weigh what comes: it is hold-up, not loss. Check the last charge was weighed.',
    whenHigh: 'More came out than usual: check that the last additions were weighed and entered.',
    whenWorse: 'Scrape bowl and stones and weigh it: hold-up grows when the mass is poured cool.',
  },
};
