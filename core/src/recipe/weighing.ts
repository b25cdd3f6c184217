import type { RecipeRecord } from './records';

type Of<K extends RecipeRecord['value']['kind']> = Extract<RecipeRecord['value'], { kind: K }>;
export type WeighingPlan = Of<'weighing'>;

/** One weighing that stands. */
export interface Weighed {
  recordId: string;
  at: number;
  personId: string;
  ingredient: string;
  holdingId: string;
  massG: number;
  by: 'scale' | 'hand';
}

export interface WeighingLine {
  ingredient: string;
  plannedG: number;
  weighedG: number;
  /** How far off is still right, g. */
  toleranceG: number;
  state: 'open' | 'begun' | 'done' | 'over';
}

/** Where a weighing run stands, from what was written down of it. */
export interface WeighingState {
  id: string;
  plan: WeighingPlan;
  startedAt: number;
  personId: string;
  lines: WeighingLine[];
  weighed: Weighed[];
  /** What the plan was changed for, newest last. */
  replanned: string[];
  endedAt: number | null;
  stepId: string | null;
}

/** A hundredth of a step is rounding of the scale. */
const NOTHING_G = 1e-6;

/**
 * Reads a weighing run from its records, oldest first.
 *
 * @returns null where none of them begins one
 */
export function weighingOf(records: readonly RecipeRecord[]): WeighingState | null {
  const [first] = records;
  if (first?.value.kind !== 'weighing') return null;
  const plan = first.value;
  let lines = plan.lines;
  const weighed: Weighed[] = [];
  const replanned: string[] = [];
  let [endedAt, stepId]: [number | null, string | null] = [null, null];
  for (const { id, at, personId, value } of records.slice(1)) {
    if (value.kind === 'weighed') {
      const { ingredient, holdingId, massG, by } = value;
      weighed.push({ recordId: id, at, personId, ingredient, holdingId, massG, by });
    } else if (value.kind === 'unweighed') {
      const index = weighed.findIndex(({ recordId }) => recordId === value.recordId);
      if (index >= 0) weighed.splice(index, 1);
    } else if (value.kind === 'replanned') {
      lines = value.lines;
      replanned.push(value.why);
    } else if (value.kind === 'weighing-ended') [endedAt, stepId] = [at, value.stepId];
  }
  const names = [
    ...new Set([...lines.map(({ ingredient }) => ingredient), ...weighed.map(({ ingredient }) => ingredient)]),
  ];
  return {
    id: plan.weighingId,
    plan,
    startedAt: first.at,
    personId: first.personId,
    lines: names.map((ingredient) => lineOf(ingredient, lines, weighed, plan)),
    weighed,
    replanned,
    endedAt,
    stepId,
  };
}

function lineOf(
  ingredient: string,
  planned: WeighingPlan['lines'],
  weighed: readonly Weighed[],
  plan: WeighingPlan,
): WeighingLine {
  const plannedG = planned.find((row) => row.ingredient === ingredient)?.grams ?? 0;
  const weighedG = weighed.reduce((sum, row) => (row.ingredient === ingredient ? sum + row.massG : sum), 0);
  const toleranceG = Math.max(plan.stepG, (plannedG * plan.tolerancePct) / 100);
  const state =
    weighedG > plannedG + toleranceG + NOTHING_G
      ? 'over'
      : weighedG >= plannedG - toleranceG - NOTHING_G && weighedG > 0
        ? 'done'
        : weighedG > 0
          ? 'begun'
          : 'open';
  return { ingredient, plannedG, weighedG, toleranceG, state };
}

/** Grams of each holding that stand on the bench, weighed and not yet in a bowl. */
export function weighedOut(states: Iterable<WeighingState>): Map<string, number> {
  const sums = new Map<string, number>();
  for (const { endedAt, weighed } of states)
    if (endedAt === null)
      for (const { holdingId, massG } of weighed) sums.set(holdingId, (sums.get(holdingId) ?? 0) + massG);
  return sums;
}
