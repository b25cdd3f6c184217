import type { StationFacts } from '../workshop/station';
import { madeOf, oneThing } from '../workshop/things';

/** What can be taken to this bench, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: [],
  waits: ['lot'],
  things: { receive: { ...oneThing('lot', madeOf), brings: true } },
};
