import type { StationFacts } from '../workshop/station';
import { madeOf, oneThing } from '../workshop/things';
import type { RoastCommand } from './commands';
import { elapsedS } from '../run/clock';
import { beginRoast, finishRoast, roastClock } from './live';

/** A load that was forgotten has been in for a day. */
const DAY_S = 86_400;

/**
 * What can be taken to this bench, what comes through, and the step that work here becomes: one that was followed live with
 * all that was logged.
 */
export const station: StationFacts = {
  accepts: ['beans', 'nibs', 'lot'],
  ends: 'roast',
  things: { roast: oneThing('load', madeOf) },
  begins: ({ roast }, { speed, curveId }) => (roast ? { roast: beginRoast(roast, speed, curveId) } : {}),
  finishes: ({ roast, startedAt }, command, { now, curveId }) =>
    roast
      ? {
          ...command,
          ...finishRoast(roast, command as RoastCommand, Math.min(DAY_S, elapsedS(roastClock(roast, startedAt), now))),
          curveId,
        }
      : { ...command, curveId: null },
  yields: {
    step: 'roast',
    usual: [0.92, 0.96],
    whenLow: 'More weight went than usual: hotter, longer or wetter beans. Break one and taste before cracking.',
    whenHigh: 'Less weight went than usual: a short or cool load, or drier beans. Check for raw, vinegary centres.',
    whenWorse: 'Check the thermometer against boiling water and the seal of the door; weigh a load in and out twice.',
  },
};
