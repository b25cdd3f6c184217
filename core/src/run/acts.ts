/*
 * A run is any work that goes on for minutes to weeks: what it is of does not matter here. Its acts are due by the clock,
 * after so much running, when a reading crosses a line, when a sign is noticed, or after another act; where an act has
 * several causes, the first of them that happens.
 *
 * All times are of one kind, the caller's: UTC ms, or seconds into the run.
 */

/** From below, or from above. */
export type Way = 'up' | 'down';

/** What makes an act due. `after`: it counts only from when that act was done, and not before. */
export type Cause =
  | { by: 'clock'; at: number }
  /** Running hours since the run began. */
  | { by: 'running'; hours: number }
  /** A channel is read at a line or beyond it, and `then` so long after. */
  | { by: 'reading'; channel: string; way: Way; line: number; after?: string; then?: number }
  | { by: 'sign'; sign: string; after?: string }
  /** So long after another act. */
  | { by: 'act'; actId: string; then: number };

export interface Act {
  id: string;
  causes: readonly Cause[];
  /** When it was done; null: to come. */
  doneAt: number | null;
  /** It is over once it is due: nobody has to say so. */
  endsItself?: boolean;
}

/** What is known of a run. Left out: nothing of that kind is. */
export interface RunState {
  now: number;
  /** The moment at which so many running hours were or will be reached; null: not foreseen. */
  momentOf?: (hours: number) => number | null;
  /** The first moment from `since` on at which a channel was at a line, or is expected to be; null: neither. */
  crossed?: (channel: string, way: Way, line: number, since: number) => { at: number; seen: boolean } | null;
  /** The first moment from `since` on at which a sign was noticed; null: it was not. */
  noticed?: (sign: string, since: number) => number | null;
}

/** When an act is due. */
export interface Due {
  /** Null: nobody can say yet. */
  at: number | null;
  /** What makes it due has happened, or will by the clock alone; otherwise the time is expected. */
  sure: boolean;
}

const NOT_YET: Due = { at: null, sure: false };

/**
 * When each of some acts is due.
 *
 * An act that waits for one that is not done yet stands as long after it as it was planned to. Acts that wait for each
 * other in a circle, or for one that is dropped, are due at no time: who plans has to look.
 *
 * @returns by the act's id
 * @example
 * duesOf([
 *   { id: 'set', causes: [{ by: 'clock', at: 0 }], doneAt: 0 },
 *   { id: 'out', causes: [{ by: 'act', actId: 'set', then: 600 }], doneAt: null },
 * ], { now: 60 }).get('out') // { at: 600, sure: true }
 */
export function duesOf(acts: readonly Act[], state: RunState): Map<string, Due> {
  const byId = new Map(acts.map((act) => [act.id, act]));
  const found = new Map<string, Due>();
  const look = (act: Act, through: ReadonlySet<string>): Due => {
    const before = found.get(act.id);
    if (before) return before;
    const done = (actId: string): Due => {
      const other = byId.get(actId);
      if (!other || through.has(actId)) return NOT_YET;
      if (other.doneAt !== null) return { at: other.doneAt, sure: true };
      const due = look(other, new Set([...through, actId]));
      const isOver = other.endsItself === true && due.sure && due.at !== null && due.at <= state.now;
      return { at: due.at, sure: isOver };
    };
    const due = act.causes.map((cause) => causeDue(cause, state, done)).reduce(sooner, NOT_YET);
    found.set(act.id, due);
    return due;
  };
  for (const act of acts) look(act, new Set([act.id]));
  return found;
}

const sooner = (a: Due, b: Due): Due => (a.at === null ? b : b.at === null || a.at <= b.at ? a : b);

function causeDue(cause: Cause, state: RunState, done: (actId: string) => Due): Due {
  /** From when on a cause counts; null: what it follows is not done. */
  const since = (after: string | undefined): number | null => {
    if (after === undefined) return -Infinity;
    const { at, sure } = done(after);
    return sure ? at : null;
  };
  switch (cause.by) {
    case 'clock':
      return { at: cause.at, sure: true };
    case 'running':
      return { at: state.momentOf?.(cause.hours) ?? null, sure: false };
    case 'reading': {
      const from = since(cause.after);
      const crossed = from === null ? null : state.crossed?.(cause.channel, cause.way, cause.line, from);
      return crossed ? { at: crossed.at + (cause.then ?? 0), sure: crossed.seen } : NOT_YET;
    }
    case 'sign': {
      const from = since(cause.after);
      const at = from === null ? null : (state.noticed?.(cause.sign, from) ?? null);
      return at === null ? NOT_YET : { at, sure: true };
    }
    case 'act': {
      const { at, sure } = done(cause.actId);
      return at === null ? NOT_YET : { at: at + cause.then, sure };
    }
  }
}
