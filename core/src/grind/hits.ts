/** A forecast that was made of a grind, by running hours. */
export interface Foretold {
  p10: number;
  p90: number;
}

/** Between which readings a grind passed its target, by running hours. */
export interface Passed {
  notBeforeH: number;
  outcomeH: number;
}

/** Whether a forecast held: the target was passed between two readings, and its hours meet that stretch. */
export const held = ({ p10, p90 }: Foretold, { notBeforeH, outcomeH }: Passed): boolean =>
  p90 >= notBeforeH && p10 <= outcomeH;

/** How many forecasts of some grinds held. */
export function countHeld(grinds: readonly (Passed & { told: readonly Foretold[] })[]): { held: number; of: number } {
  const all = grinds.flatMap((grind) => grind.told.map((told) => held(told, grind)));
  return { held: all.filter(Boolean).length, of: all.length };
}
