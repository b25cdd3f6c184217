import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Book } from '@wunsch/core/ledger/book';
import type { Source } from '@wunsch/core/fields/sources';
import { formatMassBeside, toMg, type MassSystem } from '@wunsch/core/units/mass';
import type { Work } from '@wunsch/core/workshop/work';

/**
 * What a piece of work takes, as milligrams of holdings that are free.
 *
 * @param reserved milligrams that other work has taken, by holding; what is taken here is added
 * @param massSystem in which a refusal says what is there
 * @throws DomainError `ledger/unknown-holding`, `ledger/short` with the source at fault
 */
export function takeForWork(
  book: Book,
  asked: readonly Source[],
  startedAt: number,
  reserved: Map<string, number>,
  massSystem: MassSystem,
): Work['sources'] {
  return asked.map((source, index) => {
    const holding = book.holdings.get(source.holdingId);
    if (!holding)
      throw new DomainError('ledger/unknown-holding', 'There is no such tub.', [
        { path: `sources.${index}.holdingId`, message: 'is not known here' },
      ]);
    const there = book.balanceAt(holding.id, startedAt + 1);
    const massMg =
      source.massG === undefined
        ? Math.round((there.massMg * (source.pieces ?? 0)) / Math.max(1, there.pieces))
        : toMg(source.massG);
    const free = Math.min(there.massMg, book.balance(holding.id).massMg) - (reserved.get(holding.id) ?? 0);
    if (massMg > free) {
      throw new DomainError(
        'ledger/short',
        `${holding.code} has ${formatMassBeside(free, massMg, massSystem)} free; ${formatMassBeside(massMg, free, massSystem)} asked for.`,
        [{ path: `sources.${index}.massG`, message: 'is more than there is' }],
      );
    }
    reserved.set(holding.id, (reserved.get(holding.id) ?? 0) + massMg);
    return { holdingId: holding.id, massMg, pieces: source.pieces ?? 0 };
  });
}
