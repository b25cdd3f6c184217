import type { GateContext } from '@wunsch/core/gates/gate';
import type { Position } from '@wunsch/core/ledger/entries';
import type { Material } from '@wunsch/core/ledger/types';
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
