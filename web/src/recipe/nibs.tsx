import { useState, type ReactNode } from 'react';
import type { PantryRow, PantryView } from '@wunsch/core/api/recipe';
import { NIBS, type Recipe } from '@wunsch/core/recipe/records';
import { Chips } from '../parts/fields';

/**
 * A recipe of nibs of whatever lot, made with those of one: which lot is chosen here.
 *
 * @param mass how a weight is shown
 */
export function useNibsOf(
  written: Recipe,
  pantry: PantryView,
  mass: (mg: number) => string,
): { recipe: Recipe; lots: PantryRow[]; chooser: ReactNode } {
  const lots = pantry.rows.filter((row) => row.id.startsWith('lot:') && row.stockG > 0);
  const any = written.lines.some(({ ingredient, grams }) => ingredient === NIBS && grams > 0);
  const [of, setOf] = useState(lots.length === 1 ? (lots[0]?.id ?? NIBS) : NIBS);
  if (!any || lots.length === 0) return { recipe: written, lots, chooser: null };
  const lines = written.lines.map((line) => (line.ingredient === NIBS ? { ...line, ingredient: of } : line));
  return {
    recipe: { ...written, lines },
    lots,
    chooser: (
      <Chips
        legend="Nibs of which lot"
        options={[
          ...lots.map(({ id, name, stockG }) => [id, `${name.replace(/^Nibs /, '')}, ${mass(stockG * 1000)}`] as const),
          [NIBS, 'whatever is oldest'] as const,
        ]}
        chosen={[of]}
        choose={([next]) => setOf(next ?? NIBS)}
      />
    ),
  };
}
