import type { Role } from './ingredient';

/** One portion that goes into the bowl. */
export interface Portion {
  ingredient: string;
  name: string;
  role: Role;
  grams: number;
  /** Minutes after the stones start. */
  atMinutes: number;
  /** `2 of 6`; empty where it goes in at once. */
  part: string;
  note: string;
}

export interface OrderLine {
  ingredient: string;
  name: string;
  role: Role;
  grams: number;
  atMinutes: number | null;
  portions: number | null;
}

/** Minutes over which nibs are fed. */
const FEED_MINUTES = 60;
/** Nibs fed by hand at once, g, for a small bowl; a large one takes a twentieth of its nibs. */
const SMALL_PORTION_G = 250;
/** Butter that goes in first, so that the stones do not stand dry: a fiftieth of the nibs, at most half of it. */
const FIRST_BUTTER = 0.02;

const USUAL: Record<Role, { at: number; note: string }> = {
  bowl: { at: 0, note: 'in the bowl already' },
  butter: { at: 0, note: 'melted, into the warm bowl' },
  liquor: { at: 5, note: 'melted, or broken small' },
  nibs: { at: 10, note: 'in portions, more as it turns liquid; lid off' },
  powder: { at: 90, note: 'dry, by the spoon' },
  sugar: { at: 180, note: 'dry, once the nibs run smooth' },
  milk: { at: 240, note: 'dry, in portions' },
  couverture: { at: 30, note: 'melted' },
  other: { at: 240, note: 'dry: nothing with water in it' },
  lecithin: { at: 1200, note: 'late, in the last hours' },
};

/**
 * What goes in when: first a little butter, nibs in portions, the rest of the butter, sugar, milk, and lecithin last.
 *
 * @returns portions in order of time; their grams add up to those of the lines, to the tenth of a gram
 */
export function feedPlan(lines: readonly OrderLine[]): Portion[] {
  const nibsG = lines.reduce((sum, { role, grams }) => (role === 'nibs' ? sum + grams : sum), 0);
  const found = lines
    .filter(({ grams, role }) => grams > 0 && role !== 'bowl')
    .flatMap((line): Portion[] => {
      const { note, at: usual } = USUAL[line.role];
      const at = line.atMinutes ?? usual;
      const one = (grams: number, atMinutes: number, part: string, why = note): Portion => ({
        ingredient: line.ingredient,
        name: line.name,
        role: line.role,
        grams: Math.round(grams * 10) / 10,
        atMinutes,
        part,
        note: why,
      });
      if (line.role === 'butter' && line.atMinutes === null && nibsG > 0) {
        const first = Math.round(Math.min(line.grams / 2, nibsG * FIRST_BUTTER) * 10) / 10;
        return [
          one(first, 0, '1 of 2', 'melted, so that the stones never stand dry'),
          one(line.grams - first, at + 75, '2 of 2', 'melted, when it drags'),
        ];
      }
      const portions = line.portions ?? (line.role === 'nibs' ? nibPortions(line.grams) : line.role === 'milk' ? 3 : 1);
      if (portions === 1) return [one(line.grams, at, '')];
      const each = Math.round((line.grams / portions) * 10) / 10;
      return Array.from({ length: portions }, (_, index) =>
        one(
          index === portions - 1 ? line.grams - each * (portions - 1) : each,
          Math.round(at + (index * FEED_MINUTES) / portions),
          `${index + 1} of ${portions}`,
        ),
      );
    });
  return found.sort((a, b) => a.atMinutes - b.atMinutes);
}

const nibPortions = (grams: number): number =>
  Math.max(1, Math.min(20, Math.ceil(grams / Math.max(SMALL_PORTION_G, grams / 12))));
