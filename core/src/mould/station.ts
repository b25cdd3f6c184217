import type { StationFacts } from '../workshop/station';

/** What can be taken to this bench, and the step that work here becomes, with what single pieces weighed. */
export const station: StationFacts = {
  accepts: ['tempered', 'mass'],
  ends: 'mould',
  finishes: ({ mould }, command) =>
    mould && mould.weightsG.length > 0 ? { weightsG: mould.weightsG, ...command } : command,
};
