import type { Book } from '../ledger/book';
import type { CommandOf } from '../commands';
import type { HoldingKind, LossCause } from '../ledger/types';
import { newestVersion } from '../ledger/versions';
import { downstream } from './flow';

/** What of a recalled thing is still in the house. */
export interface HereStill {
  holdingId: string;
  kind: HoldingKind;
  pieces: number;
  massMg: number;
  /** Share of it that is concerned, 0 to 1. */
  share: number;
}

/** What of it went to a buyer. */
export interface WentTo {
  stepId: string;
  holdingId: string;
  at: number;
  to: string;
  pieces: number;
  massMg: number;
}

/** What of it became nothing: samples, losses. */
export interface BecameLoss {
  cause: LossCause;
  massMg: number;
}

export interface Recall {
  /** Everything that has something of it, the subjects with it. */
  affected: string[];
  here: HereStill[];
  sold: WentTo[];
  lost: BecameLoss[];
  /** mg of the subjects' own that were followed into finished goods, into the house, to buyers and into losses. */
  hereMg: number;
  soldMg: number;
  lostMg: number;
  /** Share of what left the subjects that was found again, 0 to 1. */
  foundShare: number;
}

/** What buyers sent back of the goods, by sale and holding: it is not with them any more. */
function sentBack(book: Book, affected: ReadonlySet<string>): Map<string, { pieces: number; massMg: number }> {
  const rows = new Map<string, { pieces: number; massMg: number }>();
  for (const step of book.timeline) {
    if (step.kind !== 'return' || step.withdrawn) continue;
    const { saleId, holdingId } = step.command as CommandOf<'return'>;
    if (!affected.has(holdingId)) continue;
    // A sale that was corrected since goes by its newest version.
    const key = `${newestVersion(book, saleId)?.id ?? saleId} ${holdingId}`;
    const row = rows.get(key) ?? { pieces: 0, massMg: 0 };
    for (const { outside, pieces, massMg } of step.postings) {
      if (outside !== 'customer') continue;
      row.pieces -= pieces;
      row.massMg -= massMg;
    }
    rows.set(key, row);
  }
  return rows;
}

/** Wrappers weigh nothing, so no grams lead on from them: what was packed in them is meant as well. */
function withPacked(book: Book, subjects: readonly string[]): string[] {
  const wrappers = new Set(subjects.filter((id) => book.holding(id).kind === 'packaging'));
  if (wrappers.size === 0) return [...subjects];
  const packed = book.timeline
    .filter(({ postings }) =>
      postings.some(({ holdingId, pieces }) => pieces < 0 && holdingId !== null && wrappers.has(holdingId)),
    )
    .flatMap(({ postings }) =>
      postings.flatMap(({ holdingId, massMg }) => (holdingId !== null && massMg > 0 ? [holdingId] : [])),
    );
  return [...new Set([...subjects, ...packed])];
}

/**
 * Everything that has something of some goods in it: where it is, who bought it, what is gone.
 *
 * @param named holdings that are recalled; of wrappers, what was packed in them too
 */
export function recallOf(book: Book, named: readonly string[]): Recall {
  const subjects = withPacked(book, named);
  const forward = downstream(book, subjects, 'mass');
  const affected = new Set([...subjects, ...forward.holdings.keys()]);
  const here: HereStill[] = [];
  const sold: WentTo[] = [];
  const lost = new Map<LossCause, number>();
  for (const id of affected) {
    const { massMg, pieces } = book.balance(id);
    if (massMg === 0 && pieces === 0) continue;
    here.push({ holdingId: id, kind: book.holding(id).kind, pieces, massMg, share: forward.holdings.get(id) ?? 1 });
  }
  const back = sentBack(book, affected);
  let cameMg = 0;
  for (const id of subjects) for (const entry of book.entriesOf(id)) if (entry.massMg > 0) cameMg += entry.massMg;
  for (const [stepId, taken] of forward.taken) {
    const step = book.steps.get(stepId);
    if (!step) continue;
    const isSale = step.postings.some(({ outside }) => outside === 'customer');
    const mine = forward.steps.get(stepId) ?? 0;
    for (const { holdingId, massMg, pieces, loss } of step.postings) {
      if (loss !== null && massMg > 0) lost.set(loss, (lost.get(loss) ?? 0) + massMg * mine);
      if (!isSale || holdingId === null || massMg > 0 || !taken.has(holdingId)) continue;
      const { to } = step.command as { to?: string };
      const returned = back.get(`${stepId} ${holdingId}`) ?? { pieces: 0, massMg: 0 };
      const out = { pieces: -pieces - returned.pieces, massMg: -massMg - returned.massMg };
      if (out.pieces <= 0 && out.massMg <= 0) continue;
      sold.push({ stepId, holdingId, at: step.at, to: to ?? '', ...out });
    }
  }
  const shareOf = (id: string): number => forward.holdings.get(id) ?? 1;
  const hereMg = here.reduce((sum, row) => sum + row.massMg * row.share, 0);
  const soldMg = sold.reduce(
    (sum, row) => sum + row.massMg * (forward.taken.get(row.stepId)?.get(row.holdingId) ?? shareOf(row.holdingId)),
    0,
  );
  const lostMg = [...lost.values()].reduce((a, b) => a + b, 0);
  return {
    affected: [...affected],
    here: here.sort((a, b) => b.massMg * b.share - a.massMg * a.share),
    sold: sold.sort((a, b) => b.at - a.at),
    lost: [...lost].map(([cause, massMg]) => ({ cause, massMg })).sort((a, b) => b.massMg - a.massMg),
    hereMg,
    soldMg,
    lostMg,
    foundShare: cameMg > 0 ? Math.min(1, (hereMg + soldMg + lostMg) / cameMg) : 0,
  };
}
