/** One time that a machine had goods in it. */
export interface MachineUse {
  at: number;
  /** What was in it, by the code people know. */
  code: string;
  allergens: readonly string[];
}

/** A machine taken apart or run clean so that allergens are gone, as its maker or the workshop's plan has it. */
export interface Cleaning {
  at: number;
  how: string;
}

/** An allergen that is not in the goods, and can have been carried over by a machine they went through. */
export interface CarriedOver {
  allergen: string;
  machine: string;
  /** What brought it, and when. */
  code: string;
  at: number;
}

/**
 * What a machine can have carried over into goods: allergens that it saw before them and since its last recorded
 * cleaning. Nobody measures here: it names what a label may have to say, and the local authority decides.
 *
 * @param uses of the machine before the goods went in, newest first: it is only read as far as it has to be
 * @param own allergens that are in the goods anyhow
 */
export function carriedOver(
  machine: string,
  uses: Iterable<MachineUse>,
  cleanings: readonly Cleaning[],
  before: number,
  own: readonly string[],
): CarriedOver[] {
  const cleaned = Math.max(-Infinity, ...cleanings.map(({ at }) => at).filter((at) => at <= before));
  const found = new Map<string, CarriedOver>();
  for (const use of uses) {
    if (use.at > before) continue;
    if (use.at < cleaned) break;
    for (const allergen of use.allergens) {
      if (own.includes(allergen) || found.has(allergen)) continue;
      found.set(allergen, { allergen, machine, code: use.code, at: use.at });
    }
  }
  return [...found.values()].sort((a, b) => a.allergen.localeCompare(b.allergen));
}
