import type { ProductView } from '@wunsch/core/api/products';
import type { HoldingView } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import { keepsUntil } from '@wunsch/core/pack/best-before';
import { dayText } from '@wunsch/core/units/zone';

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

/** Spoilt pieces are told apart from those on goods: taken from the last purchase first. */
export function withSpoilt(
  lines: readonly { holdingId: string; pieces: number }[],
  spoilt: number,
): { holdingId: string; pieces: number; damaged?: number }[] {
  let left = spoilt;
  return [...lines]
    .reverse()
    .map(({ holdingId, pieces }) => {
      // One piece at the least stays as used: a line of spoilt ones alone is none of a packing.
      const damaged = Math.min(left, Math.max(0, pieces - 1));
      left -= damaged;
      return { holdingId, pieces: pieces - damaged, ...(damaged > 0 ? { damaged } : {}) };
    })
    .reverse();
}

/** Pieces may weigh so much more than is declared, as a share, and still be that product. */
const HEAVIER = 0.15;

/** Products that bars can be packed as: those of about their weight, the nearest first. */
export function fittingProducts(
  products: readonly ProductView[],
  { pieces, massMg, name }: Pick<HoldingView, 'pieces' | 'massMg' | 'name'>,
): ProductView[] {
  if (pieces === 0) return [];
  const meanG = massMg / pieces / 1000;
  const off = ({ facts }: ProductView): number => Math.abs(meanG / facts.declaredG - 1);
  const named = ({ facts }: ProductView): boolean => name.toLowerCase().includes(facts.name.toLowerCase());
  return products
    .filter((row) => meanG >= row.facts.declaredG * 0.98 && off(row) <= HEAVIER)
    .sort((a, b) => Number(named(b)) - Number(named(a)) || off(a) - off(b));
}

/** The date of a product's own rule, or the usual one. @param made UTC ms */
export const keepsTo = ({ facts }: ProductView, made: number, usual: string, timeZone: string): string =>
  facts.keepsMonths === null ? usual : dayText(keepsUntil(made, { months: facts.keepsMonths }).getTime(), timeZone);
