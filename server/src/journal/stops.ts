import { DomainError } from '@wunsch/core/errors/domain-error';
import type { GateContext } from '@wunsch/core/gates/gate';
import type { Position } from '@wunsch/core/ledger/entries';
import { REJECT_REASONS, type Material, type Step } from '@wunsch/core/ledger/types';
import type { Settings } from '@wunsch/core/workshop/schemas';
import type { Composition } from '@wunsch/core/composition/composition';
import type { Kept } from './kept';

/** Months that goods with an ingredient keep, where the maker said so, by its name. */
export const keepsOf = (materials: Iterable<Material>): Map<string, number> =>
  new Map([...materials].flatMap(({ name, keepsMonths }) => (keepsMonths == null ? [] : [[name, keepsMonths]])));

/** What the stations may look at to say stop. */
export const gateContext = (
  workshop: Kept & { compositions: { of(id: string): Composition } },
  moment: Position,
): GateContext => ({
  ...moment,
  book: workshop.book,
  lots: workshop.lots,
  settings: workshop.settings,
  route: (id) => (id === null ? undefined : workshop.routes.get(id)),
  batch: (id) => workshop.batches.get(id),
  composition: (id) => workshop.compositions.of(id),
  keeps: keepsOf(workshop.materials.values()),
});

/**
 * Piles are the usual ones, the workshop's own, or those of the version that is corrected.
 *
 * @throws DomainError `sort/unknown-pile`
 */
export function checkPiles(rejects: readonly { reason: string }[], settings: Settings, old: Step | undefined): void {
  const before = (old?.command as { rejects?: { reason: string }[] } | undefined)?.rejects ?? [];
  const known: readonly string[] = [...REJECT_REASONS, ...settings.rejectReasons, ...before.map((row) => row.reason)];
  rejects.forEach(({ reason }, index) => {
    if (!known.includes(reason))
      throw new DomainError('sort/unknown-pile', `There is no pile called “${reason}” here.`, [
        { path: `rejects.${index}.reason`, message: 'is none of the usual piles, nor one of the workshop’s own' },
      ]);
  });
}
