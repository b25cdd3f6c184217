import type { CommandOf } from '@wunsch/core/commands';
import type { Views } from './views';

/**
 * Cocoa percent of the chocolate of bars that have something else in or on them: what went into their moulds beside
 * cacao's own ingredients is left out. Null: they are chocolate from end to end.
 */
export function chocolatePct(views: Views, holdingId: string): number | null {
  const { book, compositions, materials } = views.workshop;
  const maker = book.steps.get(book.firstEntry(holdingId)?.stepId ?? '');
  const moulding =
    maker?.kind === 'pack'
      ? book.steps.get(book.firstEntry((maker.command as CommandOf<'pack'>).holdingId)?.stepId ?? '')
      : maker;
  if (moulding?.kind !== 'mould') return null;
  const taken = moulding.postings.filter((row) => row.holdingId !== null && row.massMg < 0);
  const isPart = (id: string): boolean => {
    const { kind, materialId } = book.holding(id);
    return kind === 'ingredient' && (materials.get(materialId ?? '')?.cocoa ?? 'none') === 'none';
  };
  const chocolate = taken.filter(({ holdingId: id }) => !isPart(id ?? ''));
  if (chocolate.length === taken.length || chocolate.length === 0) return null;
  const massMg = chocolate.reduce((sum, row) => sum - row.massMg, 0);
  return chocolate.reduce((sum, row) => sum - row.massMg * compositions.of(row.holdingId ?? '').cocoaPct, 0) / massMg;
}
