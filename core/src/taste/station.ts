import type { StationFacts } from '../workshop/station';
import { tasteMarks } from './marks';

/** What can be taken to this bench, and the step that work here becomes. */
export const station: StationFacts = {
  accepts: ['packed', 'bars', 'seconds'],
  waits: ['packed'],
  marks: { taste: tasteMarks },
};
