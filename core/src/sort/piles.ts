import { DomainError } from '../errors/domain-error';
import { REJECT_REASONS } from '../ledger/types';
import type { SortCommand } from './commands';

/**
 * Piles are the usual ones, the workshop's own, or those of the version that is corrected.
 *
 * @param own piles that the workshop added; @param old the version before, if there is one
 * @throws DomainError `sort/unknown-pile`
 */
export function checkPiles({ rejects }: SortCommand, own: readonly string[], old: SortCommand | null): void {
  const before = old?.rejects.map(({ reason }) => reason) ?? [];
  const known: readonly string[] = [...REJECT_REASONS, ...own, ...before];
  rejects.forEach(({ reason }, index) => {
    if (!known.includes(reason))
      throw new DomainError('sort/unknown-pile', `There is no pile called “${reason}” here.`, [
        { path: `rejects.${index}.reason`, message: 'is none of the usual piles, nor one of the workshop’s own' },
      ]);
  });
}
