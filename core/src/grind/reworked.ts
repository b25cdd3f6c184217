import type { Book } from '../ledger/book';
import type { Step } from '../ledger/types';

const inflow = (step: Step, batchId: string): number =>
  step.postings.reduce((sum, p) => (p.holdingId === batchId && p.massMg > 0 ? sum + p.massMg : sum), 0);

/**
 * When the bowl's content changes behind its emptying (butter entered late, nibs corrected), the emptying
 * is worked out again from what was weighed then: the difference shows as unaccounted.
 *
 * @param step the new or corrected charge; @param old the version it takes the place of
 * @param make id, order of recording and time for the new version of the emptying
 * @returns the emptying's new version, or null when it stays as it was
 */
export function emptyingAgain(
  book: Book,
  step: Step,
  old: Step | undefined,
  make: { id: string; seq: number; recordedAt: number },
): Step | null {
  const batchId = step.kind === 'charge' ? step.batchId : old?.kind === 'charge' ? old.batchId : null;
  if (batchId === null) return null;
  const emptying = book
    .entriesOf(batchId)
    .map((entry) => book.steps.get(entry.stepId))
    .find((row) => row?.kind === 'discharge');
  if (!emptying || emptying.at < step.at) return null;
  const change = inflow(step, batchId) - (old ? inflow(old, batchId) : 0);
  if (change === 0) return null;
  const postings = emptying.postings.map((posting) => ({ ...posting }));
  const bowl = postings.find((posting) => posting.holdingId === batchId);
  if (!bowl) return null;
  bowl.massMg -= change;
  const rest = postings.find((posting) => posting.loss === 'unaccounted');
  if (rest) rest.massMg += change;
  else postings.push({ holdingId: null, loss: 'unaccounted', outside: null, reason: null, massMg: change, pieces: 0 });
  return {
    ...emptying,
    ...make,
    personId: step.personId,
    supersedes: emptying.id,
    reason: 'Worked out again: what was in the bowl changed.',
    postings: postings.filter((posting) => posting.massMg !== 0 || posting.pieces !== 0),
  };
}
