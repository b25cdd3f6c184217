import type { HoldingView } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/ledger/commands';

type Stock = Pick<HoldingView, 'id' | 'kind' | 'materialId' | 'name' | 'pieces'>;

/** One component of packaging, whatever purchases it came in. */
export interface Component {
  materialId: string;
  name: string;
  pieces: number;
}

/** What packaging there is, by component. */
export function componentsOf(pantry: readonly Stock[]): Component[] {
  const rows = new Map<string, Component>();
  for (const { kind, materialId, name, pieces } of pantry) {
    if (kind !== 'packaging' || materialId === null) continue;
    const row = rows.get(materialId);
    if (row) row.pieces += pieces;
    else rows.set(materialId, { materialId, name, pieces });
  }
  return [...rows.values()];
}

/** How many of each component the last packing took for a piece, by material. */
export function perPiece(past: CommandOf<'pack'> | undefined, pantry: readonly Stock[]): Map<string, number> {
  const ratios = new Map<string, number>();
  for (const { holdingId, pieces } of past?.packaging ?? []) {
    const materialId = pantry.find(({ id }) => id === holdingId)?.materialId;
    if (materialId != null && past) ratios.set(materialId, (ratios.get(materialId) ?? 0) + pieces / past.pieces);
  }
  return ratios;
}

/** So many of one component, the oldest purchase first, over as many purchases as it takes. */
export function takeComponents(purchases: readonly Stock[], wanted: number): { holdingId: string; pieces: number }[] {
  const lines: { holdingId: string; pieces: number }[] = [];
  let left = wanted;
  for (const { id, pieces } of purchases) {
    if (left <= 0) break;
    const taken = Math.min(left, pieces);
    lines.push({ holdingId: id, pieces: taken });
    left -= taken;
  }
  const [first] = lines;
  // More than there are: ask for them all the same, so that the refusal names what is missing.
  if (left > 0 && first) first.pieces += left;
  return lines;
}
