import { DomainError } from '../errors/domain-error';
import { formatMass, formatMassBeside, type MassSystem } from '../units/mass';
import type { Book } from './book';
import { checkPostings, movements, upperBound, type Balance, type Entry } from './entries';
import type { Holding, Step } from './types';

/* The laws of the book: what may enter it, and whether one that was read keeps them. */

/**
 * Whether steps may enter the book together (a correction can bring others with it).
 *
 * @param reserved milligrams in work that is under way, by holding: they are there but not free
 * @param massSystem what a refusal says masses in
 * @throws DomainError `ledger/unbalanced`, `ledger/not-whole`, `ledger/not-yet`, `ledger/short`,
 *   `ledger/used-since` (naming the steps that need what would be gone), `ledger/reserved`,
 *   `ledger/superseded`, `ledger/unknown-step`
 */
export function checkEntering(
  book: Book,
  steps: readonly Step[],
  reserved: ReadonlyMap<string, number> = new Map(),
  massSystem: MassSystem = 'metric',
): void {
  const replaced = new Set<string>();
  const touched = new Set<string>();
  for (const step of steps) {
    checkPostings(step.postings);
    for (const holdingId of movements(step.postings).keys()) touched.add(holdingId);
    if (step.supersedes === null) continue;
    const old = book.steps.get(step.supersedes);
    if (!old) throw new DomainError('ledger/unknown-step', 'The step to correct does not exist.');
    if (!book.isCurrent(old)) {
      throw new DomainError(
        'ledger/superseded',
        'Somebody has corrected this step already. Open the newest version and correct that one.',
        [],
        { stepId: old.id, by: book.successorOf(old.id) },
      );
    }
    replaced.add(old.id);
    for (const holdingId of movements(old.postings).keys()) touched.add(holdingId);
  }
  for (const holdingId of touched)
    checkHolding(book, holdingId, steps, replaced, reserved.get(holdingId) ?? 0, massSystem);
}

function checkHolding(
  book: Book,
  holdingId: string,
  steps: readonly Step[],
  replaced: ReadonlySet<string>,
  reservedMg: number,
  massSystem: MassSystem,
): void {
  const holding = book.holding(holdingId);
  const all = book.entriesOf(holdingId);
  const rows = all.filter((entry) => !replaced.has(entry.stepId));
  const shrunk = rows.length < all.length;
  const fresh = new Set<string>();
  let taken = 0;
  for (const step of steps) {
    const change = movements(step.postings).get(holdingId);
    if (!change) continue;
    const key = { at: step.at, order: step.order };
    rows.splice(upperBound(rows, key), 0, { ...key, stepId: step.id, kind: step.kind, ...change });
    fresh.add(step.id);
    taken += Math.min(0, change.massMg);
  }
  const show = (balance: Balance, beside: Balance): string =>
    holding.kind === 'packaging'
      ? `${balance.pieces} pieces`
      : formatMassBeside(balance.massMg, beside.massMg, massSystem);
  let sum: Balance = { massMg: 0, pieces: 0 };
  rows.forEach((row, index) => {
    const had = sum;
    sum = { massMg: sum.massMg + row.massMg, pieces: sum.pieces + row.pieces };
    if (sum.massMg >= 0 && sum.pieces >= 0) return;
    if (fresh.has(row.stepId)) {
      const later = rows.slice(index + 1).find((entry) => entry.massMg > 0 || entry.pieces > 0);
      if (index === 0 && later) {
        throw new DomainError('ledger/not-yet', `${holding.code} did not exist yet at that time.`, [], {
          holdingId,
          since: later.at,
        });
      }
      const want = { massMg: -row.massMg, pieces: -row.pieces };
      throw new DomainError(
        'ledger/short',
        `${holding.code} held ${show(had, want)} then; ${sum.massMg < 0 || holding.kind === 'packaging' ? show(want, had) : `${want.pieces} pieces`} asked for.`,
        [],
        { holdingId, haveMg: had.massMg, havePieces: had.pieces },
      );
    }
    throw usedSince(book, holding, rows, fresh);
  });
  if (reservedMg > 0 && taken === 0 && shrunk && sum.massMg < reservedMg) {
    throw new DomainError(
      'ledger/reserved',
      `${holding.code} is in work under way: finish that or put it back first.`,
      [],
      { holdingId },
    );
  }
  if (reservedMg > 0 && taken < 0 && sum.massMg < reservedMg) {
    throw new DomainError(
      'ledger/reserved',
      `${holding.code} has ${formatMass(Math.max(0, sum.massMg - taken - reservedMg), massSystem)} free; the rest is in work under way.`,
      [],
      { holdingId },
    );
  }
}

function usedSince(book: Book, holding: Holding, rows: readonly Entry[], fresh: ReadonlySet<string>): DomainError {
  const stepIds = rows
    .filter((entry) => (entry.massMg < 0 || entry.pieces < 0) && !fresh.has(entry.stepId))
    .map((entry) => entry.stepId);
  const names = stepIds.slice(-4).map((id) => {
    const user = book.steps.get(id);
    return user ? `${user.kind} of ${new Date(user.at).toISOString().slice(0, 10)}` : id;
  });
  return new DomainError(
    'ledger/used-since',
    `That would leave less than nothing in ${holding.code}, which was used by: ${names.join(', ')}. Correct those first.`,
    [],
    { holdingId: holding.id, stepIds },
  );
}

/**
 * Whether the whole book holds its laws, whatever way it came about: for books that are read, not entered. In turns:
 * whoever asks for the next lets others have theirs between.
 *
 * @throws DomainError as `check` does, with the holding or step in `facts`
 */
export function* checkWhole(book: Book, atOnce = 500): Generator<void> {
  let count = 0;
  for (const step of book.steps.values()) {
    if ((count += 1) % atOnce === 0) yield;
    checkPostings(step.postings);
    if (step.supersedes !== null && !book.steps.has(step.supersedes))
      throw new DomainError('ledger/unknown-step', 'A correction names a step that does not exist.', [], {
        stepId: step.id,
      });
    for (const { holdingId } of step.postings) if (holdingId !== null) book.holding(holdingId);
  }
  for (const holdingId of book.holdings.ids()) {
    if ((count += 1) % atOnce === 0) yield;
    const rows = book.entriesOf(holdingId);
    const sum = { massMg: 0, pieces: 0 };
    for (const row of rows) {
      sum.massMg += row.massMg;
      sum.pieces += row.pieces;
      if (sum.massMg < 0 || sum.pieces < 0) throw usedSince(book, book.holding(holdingId), rows, new Set());
    }
  }
}
