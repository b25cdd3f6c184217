import type { StationFacts } from '../workshop/station';
import type { RoastCommand } from './commands';
import { elapsedS } from '../run/clock';
import { beginRoast, finishRoast, roastClock } from './live';

/** A load that was forgotten has been in for a day. */
const DAY_S = 86_400;

/** What can be taken to this bench, and the step that work here becomes: one that was followed live with all that was logged. */
export const station: StationFacts = {
  accepts: ['beans', 'nibs', 'lot'],
  ends: 'roast',
  begins: ({ roast }, { speed, curveId }) => (roast ? { roast: beginRoast(roast, speed, curveId) } : {}),
  finishes: ({ roast, startedAt }, command, { now, curveId }) =>
    roast
      ? {
          ...command,
          ...finishRoast(roast, command as RoastCommand, Math.min(DAY_S, elapsedS(roastClock(roast, startedAt), now))),
          curveId,
        }
      : { ...command, curveId: null },
};
