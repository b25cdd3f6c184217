import { DomainError } from '../errors/domain-error';
import type { Batch, PlannedAct } from '../ledger/types';

/** As many as anybody plans for one bowl. */
const MOST = 100;

/** Plans an act for a batch; acts stand in the order in which they are due. @throws DomainError `grind/too-many-acts` */
export function planAct(batch: Batch, act: Omit<PlannedAct, 'doneAt'>): Batch {
  const acts = [...(batch.acts ?? []), { ...act, doneAt: null }].sort((a, b) => a.at - b.at);
  if (acts.length > MOST) throw new DomainError('grind/too-many-acts', `That is more than ${MOST} acts for one batch.`);
  return { ...batch, acts };
}

/**
 * What is to be fed when, as acts: one a portion.
 *
 * @param startedAt when the stones began, UTC ms; @param scale of this bowl against the plan; @param mass how mg are shown
 */
export const actsOfFeed = (
  portions: readonly { name: string; grams: number; atMinutes: number; part: string }[],
  startedAt: number,
  scale: number,
  mass: (mg: number) => string,
): { what: string; at: number }[] =>
  portions.map(({ name, grams, atMinutes, part }) => ({
    what: `${name} ${mass(Math.round(grams * scale) * 1000)}${part === '' ? '' : `, ${part}`}`.slice(0, 80),
    at: startedAt + atMinutes * 60_000,
  }));

/** What is said of a planned act: it was done (or not after all), it is due at another time, it is dropped. */
export interface ActChange {
  done?: boolean | undefined;
  at?: number | undefined;
  dropped?: boolean | undefined;
}

/**
 * Changes a planned act.
 *
 * @param now when it is said, UTC ms
 * @throws DomainError `http/not-found` when it is not planned any more
 */
export function changeAct(batch: Batch, actId: string, { done, at, dropped }: ActChange, now: number): Batch {
  const acts = batch.acts ?? [];
  if (!acts.some(({ id }) => id === actId))
    throw new DomainError('http/not-found', 'That act is not planned any more, perhaps at another screen.');
  const changed = (act: PlannedAct): PlannedAct => ({
    ...act,
    at: at ?? act.at,
    // Pressed at two screens it was done when it was pressed first.
    doneAt: done === undefined ? act.doneAt : done ? (act.doneAt ?? now) : null,
  });
  return {
    ...batch,
    acts: acts
      .filter(({ id }) => !(dropped === true && id === actId))
      .map((act) => (act.id === actId ? changed(act) : act))
      .sort((a, b) => a.at - b.at),
  };
}
