import type { RecipeFigures } from './ingredient';
import { valueOf } from './limits';
import { limit, type Limit } from './records';
import type { FigureId } from './words';

/** What makes a chocolate what it is, for the tongue and for the label. */
export const CHARACTER: readonly FigureId[] = ['cocoa', 'fat', 'sugar', 'milk', 'lecithin'];
/** Percent points below which there is none of it. */
const NONE = 0.01;

/**
 * Aims that keep a chocolate what it is, as far as what is asked for lets them.
 *
 * @param but figures that may change; @param weight of each aim, small against what is asked for
 * @example keepLimits(figures, ['cocoa'], 0.1).map(({ of }) => of) // ['fat', 'sugar']
 */
export const keepLimits = (figures: RecipeFigures, but: readonly string[], weight: number): Limit[] =>
  CHARACTER.filter((of) => !but.includes(of)).flatMap((of) => {
    const value = valueOf(of, figures, () => 0);
    return value > NONE ? [limit.parse({ of, aim: Number(value.toFixed(3)), weight })] : [];
  });
