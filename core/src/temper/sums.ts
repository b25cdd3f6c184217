import { DomainError } from '../errors/domain-error';

/*
 * The arithmetic of tempering by hand: heat that goes from here to there. Specific heats of liquid and solid chocolate,
 * J/gK, and the heat that a gram of fat takes to melt, J (ordinary figures of the trade's textbooks).
 */
const LIQUID = 1.7;
const SOLID = 1.5;
const MELTING = 150;

const need = (holds: boolean, message: string): void => {
  if (!holds) throw new DomainError('temper/impossible', message);
};

/** A bowl that holds the mass and gives its own heat. */
export interface Bowl {
  /** J/K; 0 for one that weighs nothing. */
  heatJperK: number;
  tempC: number;
}

/** J/kgK of steel. */
const STEEL = 500;
export const steelBowl = (kg: number, tempC: number): Bowl => ({ heatJperK: STEEL * kg, tempC });

export interface Slab {
  /** Share of the mass that stays warm in the bowl, and grams of it and of what is spread. */
  share: number;
  warmG: number;
  spreadG: number;
}

/**
 * How much of a bowl stays warm while the rest is worked cold on the slab, so that both together come out at a
 * temperature: f·m·c·T_h + (1 − f)·m·c·T_c + C_b·T_b = (m·c + C_b)·T, solved for f.
 *
 * @param massG the whole mass; @param warmC what stays; @param coldC what comes back from the slab; @param wantedC together
 * @throws DomainError `temper/impossible` where no share does it
 * @example slab(3000, 40, 27, 31.5, { heatJperK: 0, tempC: 40 }).share // 0.346: 4.5 of 13 degrees
 */
export function slab(massG: number, warmC: number, coldC: number, wantedC: number, bowl: Bowl): Slab {
  need(massG > 0, 'There is nothing to spread.');
  need(bowl.heatJperK >= 0, 'A bowl does not weigh less than nothing.');
  need(coldC < warmC, 'What comes back from the slab is not colder than what stays in the bowl.');
  const heat = massG * LIQUID;
  const share =
    ((heat + bowl.heatJperK) * wantedC - heat * coldC - bowl.heatJperK * bowl.tempC) / (heat * (warmC - coldC));
  need(
    share >= 0 && share <= 1,
    share < 0
      ? 'The bowl alone keeps it warmer than is meant: let it cool, or work it colder on the slab.'
      : 'Even all of it kept warm comes out colder than is meant: warm it more.',
  );
  return { share, warmG: massG * share, spreadG: massG * (1 - share) };
}

/**
 * Grams of seed that bring a melted mass down to a temperature: m = M·c_l·(T_0 − T) / (c_s·(T − T_s) + w·L).
 *
 * @param fatShare of the seed, 0 to 1; @param melts share of the seed that melts, 0 to 1
 * @example seed(2000, 40, 33, 20, 0.35, 0.7) // 23 800 J over 56.25 J a gram: 423.1 g
 */
export function seed(
  massG: number,
  fromC: number,
  toC: number,
  seedC: number,
  fatShare: number,
  melts: number,
): { seedG: number; thirdsG: [number, number, number] } {
  need(massG > 0, 'There is nothing to seed.');
  need(melts >= 0 && melts <= 1, 'Of the seed there melts nothing at the least, and all of it at the most.');
  need(fromC > toC, 'It is not warmer than it is meant to become: it needs no seed to cool.');
  need(seedC < toC, 'The seed is not colder than what it is to cool.');
  const each = SOLID * (toC - seedC) + melts * fatShare * MELTING;
  const seedG = (massG * LIQUID * (fromC - toC)) / each;
  const third = Math.round((10 * seedG) / 3) / 10;
  return { seedG, thirdsG: [third, third, Math.round(10 * (seedG - 2 * third)) / 10] };
}

/** Silk for a mass: one in a hundred of a dark one, up to two where other fats are in it; it goes in at 33.5 °C. */
export interface Silk {
  pct: number;
  silkG: number;
  atC: Silk33;
}
type Silk33 = 33.5;

/** Soft fat, as a share of all fat, at which two in a hundred are wanted. */
const SOFT_FULL = 0.3;

/** @param softShare milk, nut and oat fat in all of its fat, 0 to 1 */
export function silk(massG: number, softShare: number): Silk {
  need(massG > 0, 'There is nothing to put silk into.');
  const pct = Math.round(10 * (1 + Math.min(1, Math.max(0, softShare) / SOFT_FULL))) / 10;
  return { pct, silkG: (massG * pct) / 100, atC: 33.5 };
}
