import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { Posting, Step } from '@wunsch/core/ledger/types';

/** A posting without its field names: most of a ten-year start is reading these. */
type Line = [
  holdingId: Posting['holdingId'],
  loss: Posting['loss'],
  outside: Posting['outside'],
  reason: Posting['reason'],
  massMg: number,
  pieces: number,
];

/** A step as the text of its row. */
export const packStep = (step: Step): string =>
  JSON.stringify({
    ...plainStep(step),
    postings: step.postings.map((p): Line => [p.holdingId, p.loss, p.outside, p.reason, p.massMg, p.pieces]),
  });

export type PackedStep = Omit<Step, 'postings'> & { postings: Line[] };

/** The same back again; the row itself becomes the step, as there are many. */
export function unpackStep(row: PackedStep): Step {
  const postings = row.postings.map(([holdingId, loss, outside, reason, massMg, pieces]): Posting => ({
    holdingId,
    loss,
    outside,
    reason,
    massMg,
    pieces,
  }));
  return Object.assign(row, { postings });
}
