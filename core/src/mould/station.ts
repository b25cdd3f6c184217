import type { StationFacts } from '../workshop/station';
import { oneThing } from '../workshop/things';

/**
 * What can be taken to this bench, what comes through, and the step that work here becomes, with what single pieces weighed.
 */
export const station: StationFacts = {
  accepts: ['tempered', 'mass'],
  ends: 'mould',
  things: { mould: oneThing('moulding', ({ id }) => id) },
  stopMarks: { 'mould/out-of-temper': { id: 'out-of-temper', label: 'not in temper' } },
  finishes: ({ mould }, command) =>
    mould && mould.weightsG.length > 0 ? { weightsG: mould.weightsG, ...command } : command,
  yields: {
    step: 'mould',
    usual: [0.93, 0.99],
    whenLow: 'Check bowl, hoses and depositor for what stayed behind, and weigh ten bars against the declared weight.',
    whenHigh: 'Bars may run heavy: weigh ten against the declared weight.',
    whenWorse: 'Weigh ten bars against the declared weight, and what stays in hoses and depositor.',
  },
};
