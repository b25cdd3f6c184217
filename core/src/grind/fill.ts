import { normalCumulative } from '../stats/distributions';

/** A bowl on a machine: what was in it at its fullest, and what it did. */
export interface FillFact {
  massG: number;
  /** It stalled or spilled: too full. It ran stone on stone: too empty. Null: it went well. */
  trouble: 'stalled' | 'spilled' | 'starved' | null;
}

export interface Bound {
  p10: number;
  p50: number;
  p90: number;
}

/** What a machine really takes. */
export interface RealFill {
  /** g; null where nothing is known of it. */
  most: Bound | null;
  least: Bound | null;
  /** In words, against its plate; null where its bowls say nothing beyond the plate. */
  sentence: string | null;
  /** Which of the two its own bowls speak of. */
  said: { most: boolean; least: boolean };
  of: number;
}

/** Plates promise a little more than there is; how far they can be off, in the logarithm. */
const PLATE = { share: 0.93, sd: 0.18 };
const UNKNOWN_SD = 0.45;
/** Within so much of its limit, in the logarithm, a machine sometimes takes a bowl and sometimes not. */
const SOFT = 0.05;
/** Troubles that have nothing to do with the fill, and limits that were passed without any. */
const BY_CHANCE = 0.01;
const GRID = 240;

/**
 * What a machine really takes, from its bowls: a limit that is not known, with the plate as what is believed before; each
 * bowl that went well says that it is higher, each that stalled or spilled that it is lower (on a grid).
 *
 * @param plate g, as the maker of the machine says; null: it says nothing
 */
export function realFill(
  facts: readonly FillFact[],
  plate: { minG: number | null; maxG: number | null },
  mass: (mg: number) => string = (mg) => `${(mg / 1e6).toFixed(1)} kg`,
): RealFill {
  const over = facts.filter(({ trouble }) => trouble === 'stalled' || trouble === 'spilled');
  const under = facts.filter(({ trouble }) => trouble === 'starved');
  const largest = Math.max(0, ...facts.map(({ massG }) => massG));
  const smallest = Math.min(Infinity, ...facts.map(({ massG }) => massG));
  const most =
    plate.maxG === null && over.length === 0
      ? null
      : limit(facts, plate.maxG === null ? null : plate.maxG * PLATE.share, largest, (trouble) =>
          trouble === 'stalled' || trouble === 'spilled' ? 1 : 0,
        );
  const least =
    plate.minG === null && under.length === 0
      ? null
      : limit(facts, plate.minG, smallest, (trouble) => (trouble === 'starved' ? 1 : 0), -1);
  const kg = (g: number): string => mass(Math.round(g / 100) * 100_000);
  const said: string[] = [];
  if (over.length > 0 && most)
    said.push(
      `By its own bowls it takes about ${kg(most.p50)} (${kg(most.p10)} to ${kg(most.p90)})${plate.maxG !== null && most.p90 < plate.maxG ? `, not the ${kg(plate.maxG)} of its plate` : ''}: ${over.length} of ${facts.length} stalled or spilled.`,
    );
  if (under.length > 0 && least)
    said.push(
      `Under about ${kg(least.p50)} (${kg(least.p10)} to ${kg(least.p90)}) its stones run on each other: ${under.length} of ${facts.length} did.`,
    );
  return {
    most,
    least,
    sentence: said.length > 0 ? said.join(' ') : null,
    said: { most: over.length > 0, least: under.length > 0 },
    of: facts.length,
  };
}

function limit(
  facts: readonly FillFact[],
  plateG: number | null,
  seenG: number,
  troubled: (trouble: FillFact['trouble']) => 0 | 1,
  /** 1: trouble over it; −1: under it. */
  side: 1 | -1 = 1,
): Bound {
  const centre = Math.log(plateG ?? Math.max(1, Number.isFinite(seenG) ? seenG : 1));
  const sd = plateG === null ? UNKNOWN_SD : PLATE.sd;
  const at = Array.from({ length: GRID }, (_, i) => centre + sd * (8 * (i / (GRID - 1)) - 4));
  const logs = at.map((x) => {
    const off = (x - centre) / sd;
    return facts.reduce(
      (sum, { massG, trouble }) => {
        const chance = BY_CHANCE + (1 - 2 * BY_CHANCE) * normalCumulative((side * (Math.log(massG) - x)) / SOFT);
        return sum + Math.log(troubled(trouble) === 1 ? chance : 1 - chance);
      },
      -0.5 * off * off,
    );
  });
  const top = Math.max(...logs);
  const weights = logs.map((value) => Math.exp(value - top));
  const total = weights.reduce((a, b) => a + b, 0);
  const quantile = (share: number): number => {
    let sum = 0;
    for (const [i, weight] of weights.entries()) {
      sum += weight / total;
      if (sum >= share) return Math.exp(at[i] ?? centre);
    }
    return Math.exp(at.at(-1) ?? centre);
  };
  return { p10: quantile(0.1), p50: quantile(0.5), p90: quantile(0.9) };
}
