import type { Stretch } from '../run/stretches';

/* Stones run, stop and run again: what grinds is counted in running hours, what people do by the clock. */

/** What happens to a bowl: the stones stop or run, are lifted or let down, or it goes into another machine. */
export type RunEvent = { at: number } & (
  | { what: 'stop' | 'run' | 'up' | 'down' }
  /** @property conches it keeps the mass warm and moving, and grinds nothing */
  | { what: 'into'; machineId: string; conches: boolean }
);

/** How a bowl stands. */
export interface RunState {
  running: boolean;
  /** The stones are lifted: the mass is moved, nothing is ground. */
  lifted: boolean;
  /** It is in a conche. */
  conches: boolean;
  machineId: string | null;
}

/** A bowl's life: how it stood from when to when. */
export type Life = (Stretch & RunState)[];

/**
 * How a bowl stood from its first charge on.
 *
 * @param first the machine it began in; @param endedAt when the bowl was emptied; null: it is not
 */
export function lifeOf(
  startedAt: number,
  events: readonly RunEvent[],
  endedAt: number | null,
  first: { machineId: string | null; conches: boolean } = { machineId: null, conches: false },
): Life {
  let now: RunState = { running: true, lifted: false, machineId: first.machineId, conches: first.conches };
  let from = startedAt;
  const found: Life = [];
  for (const event of [...events].sort((a, b) => a.at - b.at)) {
    if (event.at < startedAt || (endedAt !== null && event.at > endedAt)) continue;
    const next = after(now, event);
    if (event.at > from) found.push(stretchOf(now, from, event.at));
    [now, from] = [next, event.at];
  }
  found.push(stretchOf(now, from, endedAt));
  return found;
}

// Named one by one: with a spread each of many would get a shape of its own, which takes more room than it.
const stretchOf = ({ running, lifted, machineId, conches }: RunState, from: number, to: number | null) => ({
  running,
  lifted,
  machineId,
  conches,
  from,
  to,
});

function after(now: RunState, event: RunEvent): RunState {
  switch (event.what) {
    case 'stop':
      return { ...now, running: false };
    case 'run':
      return { ...now, running: true };
    case 'up':
      return { ...now, lifted: true };
    case 'down':
      return { ...now, lifted: false };
    case 'into':
      // Whoever moves a mass on starts the machine it goes into.
      return { running: true, lifted: false, conches: event.conches, machineId: event.machineId };
  }
}

/** Stretches of a life, those next to each other as one. */
function stretchesWhere(life: Life, is: (state: RunState) => boolean): Stretch[] {
  const found: Stretch[] = [];
  for (const row of life) {
    if (!is(row)) continue;
    const last = found.at(-1);
    if (last && last.to === row.from) last.to = row.to;
    else found.push({ from: row.from, to: row.to });
  }
  return found;
}

/** When the stones ground it. */
export const grinding = (life: Life): Stretch[] =>
  stretchesWhere(life, ({ running, lifted, conches }) => running && !lifted && !conches);

/** When the mass was moved: ground, or only conched. */
export const moving = (life: Life): Stretch[] => stretchesWhere(life, ({ running }) => running);

/** When it kept a machine running. */
export const runningIn = (life: Life, machineId: string): Stretch[] =>
  stretchesWhere(life, (state) => state.running && state.machineId === machineId);
