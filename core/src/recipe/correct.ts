import { formatMass, type MassSystem } from '../units/mass';
import type { Pricing } from '../units/price';
import type { Ingredient } from './ingredient';
import type { LinearSolver } from './linear';
import type { Limit } from './records';
import { solveRecipe, type Answer, type Choice } from './solve';

/** What is in a bowl that grinds. */
export interface Bowlful {
  /** As one ingredient: what it really is, from the ledger. */
  ingredient: Ingredient;
  grams: number;
  minG: number | null;
  maxG: number | null;
  machine: string;
}

/**
 * What to add to a bowl so that it becomes what is wanted: nothing is ever taken out, and the least that does it is added.
 *
 * @param additions what may be added, with what there is of it
 */
export const correctBowl = (
  bowl: Bowlful,
  additions: readonly Choice[],
  limits: readonly Limit[],
  stepG: number,
  pricing: Pricing,
  solver: LinearSolver,
): Answer =>
  solveRecipe(
    {
      choices: [{ ingredient: bowl.ingredient, stockG: null, fixedG: bowl.grams }, ...additions],
      limits,
      leastG: bowl.minG,
      mostG: bowl.maxG,
      machine: bowl.machine,
      size: 'least',
      stepG,
      currency: pricing.currency,
      massSystem: pricing.massSystem,
    },
    solver,
  );

/** How far below what it says a label may be: what rounding to a whole percent hides, and no more. */
const LABEL_SLACK = 0.05;

export interface LabelVerdict {
  tone: 'good' | 'watch';
  sentence: string;
  todo: string | null;
}

/**
 * Whether a label may still say its cocoa percent. A lower number than the true one is fine, a higher one is not.
 *
 * @param labelPct what it says; @param truePct what the ledger says it is
 */
export function judgeLabel(labelPct: number, truePct: number): LabelVerdict {
  const is = `${truePct.toFixed(1)} %`;
  if (truePct < labelPct - LABEL_SLACK)
    return {
      tone: 'watch',
      sentence: `The label would say ${labelPct} %, and it is ${is}.`,
      todo: `Bring it back to ${labelPct} %, or call it ${Math.floor(truePct + LABEL_SLACK)} %: a label may say less than there is, not more. Your local code decides.`,
    };
  if (truePct >= labelPct + 1)
    return {
      tone: 'good',
      sentence: `It is ${is}: the label’s ${labelPct} % is kept, and ${Math.floor(truePct + LABEL_SLACK)} % would be true.`,
      todo: null,
    };
  return { tone: 'good', sentence: `It is ${is}: the label may say ${labelPct} %.`, todo: null };
}

/** What nibs of a lot that is not in the bowl yet do to its being of one origin. */
export function originAfter(
  inBowl: readonly { lotId: string; share: number }[],
  bowlCacaoG: number,
  added: readonly { lotId: string; name: string; grams: number }[],
  massSystem: MassSystem = 'metric',
): string | null {
  const known = new Set(inBowl.map(({ lotId }) => lotId));
  const foreign = added.filter(({ lotId, grams }) => grams > 0 && !known.has(lotId));
  if (foreign.length === 0 || inBowl.length === 0) return null;
  const all = bowlCacaoG + added.reduce((sum, { grams }) => sum + grams, 0);
  const parts = foreign.map(
    ({ name, grams }) =>
      `${name} (${formatMass(grams * 1000, massSystem)}, ${((100 * grams) / all).toFixed(1)} % of its cacao)`,
  );
  return `With ${parts.join(' and ')} it is no longer of one lot: single-origin holds only if both come from one origin, and the label has to say so.`;
}
