import type { Hold } from '@wunsch/core/beans/records';
import type { Workshop } from '../journal/workshop';

const HOUR_MS = 3_600_000;
const EVERY_MS = HOUR_MS / 2;
/** How long after its hours a hold's probe goes on. */
const LEFT_ON_MS = 30 * 86_400_000;
/** Hours in which the middle of a full sack comes within a third of the room around it. */
const SACK_HOURS = 9;
const ROOM_C = 17;

export interface ProbeMood {
  stuck: boolean;
  unplugged: boolean;
  /** The door was left open: the middle warms instead of cooling. */
  doorOpen: boolean;
}

/**
 * A probe in the middle of a sack on hold. The simulated one follows Newton's law of cooling towards a freezer
 * five degrees under the threshold (or a heat chamber five over it) from the hour the hold began.
 */
export class CoreProbe {
  mood: ProbeMood = { stuck: false, unplugged: false, doorOpen: false };

  /** °C in the middle, or null when nothing is heard. @param since when the hold began, @param at UTC ms */
  read(plan: Pick<Hold, 'method' | 'thresholdC'>, since: number, at: number): number | null {
    if (this.mood.unplugged) return null;
    const around = this.mood.doorOpen ? ROOM_C : plan.thresholdC + (plan.method === 'heat' ? 5 : -5);
    const hours = this.mood.stuck ? 0 : (at - since) / HOUR_MS;
    const wobble = 0.3 * Math.sin((2 * Math.PI * at) / (3 * HOUR_MS));
    return Math.round((around + (ROOM_C - around) * Math.exp(-hours / SACK_HOURS) + wobble) * 10) / 10;
  }
}

/**
 * Writes the core of every hold that has a probe down, each half hour since its last reading.
 *
 * @returns how many readings were added; make them durable with a commit
 */
export function logProbes(workshop: Workshop, probe: CoreProbe): number {
  const now = workshop.now();
  let added = 0;
  for (const lotId of workshop.lots.keys()) {
    const { hold } = workshop.standing(lotId);
    if (!hold || hold.released || !hold.record.value.probe || hold.clock === null) continue;
    // A forgotten probe does not write for ever.
    if (now - hold.record.at > hold.record.value.hours * HOUR_MS + LEFT_ON_MS) continue;
    const last = hold.readings.at(-1)?.at ?? hold.record.at - EVERY_MS;
    if (now - last < EVERY_MS) continue;
    const tempC = probe.read(hold.record.value, hold.record.at, now);
    if (tempC === null) continue;
    workshop.addBeanRecord(lotId, { kind: 'core', tempC, by: 'probe' }, { personId: hold.record.personId });
    added += 1;
  }
  return added;
}

const CORE = 'core-probe';

/** Looks after the probes until stopped; a look that fails is told and tried again. @returns stop */
export function watchProbes(workshop: Workshop, probe: CoreProbe, log: (error: unknown) => void): () => void {
  const look = (): void => {
    workshop
      .exclusively(async () => {
        if (logProbes(workshop, probe) > 0) await workshop.commit();
        workshop.trouble(CORE, null);
      })
      .catch((error: unknown) => {
        workshop.trouble(
          CORE,
          'The core probe’s readings cannot be written to disk: the hold’s hours stand still until they can.',
        );
        log(error);
      });
  };
  look();
  const timer = setInterval(look, 60_000);
  return () => clearInterval(timer);
}
