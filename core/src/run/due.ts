import { z } from 'zod/mini';
import { id } from '../fields/fields';

/*
 * When an act of a run is due: by the clock, after so much running, when a reading crosses a line, or after another act.
 * A run is any work that goes on for minutes to weeks: what it is of does not matter here.
 */

/** What an act waits for beside the clock: running hours since the run began, a reading, an act that was done. */
export const waits = z.discriminatedUnion('by', [
  z.object({
    by: z.literal('running'),
    hours: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1000, 'is more than six weeks')),
  }),
  z.object({
    by: z.literal('reading'),
    /** The first gauge reading at or under so many µm. */
    micron: z.number().check(z.minimum(5, 'is finer than any stone'), z.maximum(300, 'is coarser than grit')),
  }),
  z.object({
    by: z.literal('act'),
    actId: id,
    minutes: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too long')),
  }),
]);
export type Waits = z.infer<typeof waits>;

export interface Waiting {
  id: string;
  /** Null: for the clock. */
  waits: Waits | null;
  /** When it is due by the clock, UTC ms. */
  at: number;
  /** When it was done, UTC ms; null: to come. */
  doneAt: number | null;
}

/** What is known of a run. */
export interface RunState {
  /** The moment at which so many running hours were or will be reached; null: not foreseen. */
  momentOf: (hours: number) => number | null;
  /** The moment at which a reading was first at or under a figure, or is expected to be; null: neither. */
  crossed: (micron: number) => { at: number; seen: boolean } | null;
}

/** When an act is due. */
export interface Due {
  /** UTC ms; null: nobody can say yet. */
  at: number | null;
  /** What it waits for has happened, or will by the clock alone; otherwise the time is expected. */
  sure: boolean;
}

/**
 * When each of some acts is due.
 *
 * An act that waits for one that is not done yet stands as long after it as it was planned to. Acts that wait for each
 * other in a circle, or for one that is dropped, are due at no time: who plans has to look.
 *
 * @returns by the act's id
 */
export function duesOf(acts: readonly Waiting[], state: RunState): Map<string, Due> {
  const byId = new Map(acts.map((act) => [act.id, act]));
  const found = new Map<string, Due>();
  const look = (act: Waiting, through: ReadonlySet<string>): Due => {
    const before = found.get(act.id);
    if (before) return before;
    const due = dueOf(act, state, (actId) => {
      const other = byId.get(actId);
      if (!other || through.has(actId)) return { at: null, sure: false };
      return other.doneAt === null
        ? { ...look(other, new Set([...through, actId])), sure: false }
        : { at: other.doneAt, sure: true };
    });
    found.set(act.id, due);
    return due;
  };
  for (const act of acts) look(act, new Set([act.id]));
  return found;
}

function dueOf({ at: clock, waits: own }: Waiting, state: RunState, other: (actId: string) => Due): Due {
  if (!own) return { at: clock, sure: true };
  switch (own.by) {
    case 'running':
      return { at: state.momentOf(own.hours), sure: false };
    case 'reading': {
      const crossed = state.crossed(own.micron);
      return crossed ? { at: crossed.at, sure: crossed.seen } : { at: null, sure: false };
    }
    case 'act': {
      const { at, sure } = other(own.actId);
      return { at: at === null ? null : at + own.minutes * 60_000, sure };
    }
  }
}
