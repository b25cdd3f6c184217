import type { Book } from '../ledger/book';
import type { LotFacts } from '../ledger/types';

/**
 * Whether some of what is in a holding has never been through a roast, as far as the book knows: a lot that nobody
 * called roasted is raw. What has been in a bowl is not asked again.
 *
 * @param lots papers by lot
 */
export function isRaw(book: Book, lots: ReadonlyMap<string, LotFacts>, holdingId: string): boolean {
  const known = new Map<string, boolean>();
  const ask = (id: string): boolean => {
    const before = known.get(id);
    if (before !== undefined) return before;
    // A holding that is filled from itself adds nothing.
    known.set(id, false);
    const { kind } = book.holding(id);
    let raw = false;
    if (kind === 'lot') raw = lots.get(id)?.roasted !== true;
    else if (kind === 'beans' || kind === 'nibs' || kind === 'husk') {
      raw = book.entriesOf(id).some(({ stepId, massMg }) => {
        const step = book.steps.get(stepId);
        if (!step || massMg <= 0 || step.kind === 'roast' || step.kind === 'adjust') return false;
        if (step.kind === 'open') return (step.command as { roasted?: boolean | null }).roasted !== true;
        return step.postings.some((p) => p.holdingId !== null && p.massMg < 0 && ask(p.holdingId));
      });
    }
    known.set(id, raw);
    return raw;
  };
  return ask(holdingId);
}
