import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { RestCommand } from './commands';
import { apportion } from '../units/apportion';
import { toMg } from '../units/mass';

/**
 * Blocks come off the shelf, on to the next station; what was cut away is trimmings. Each keeps the code that is
 * written on it, with a number behind: K012 goes on as K012-2.
 */
export function planRest(command: RestCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const mg = planner.take(command.sources, ['block', 'mass']);
  const took = planner.postings.map((posting) => ({ id: posting.holdingId ?? '', massMg: -posting.massMg }));
  const out = apportion(
    command.outG === undefined ? mg : toMg(command.outG),
    took.map(({ massMg }) => massMg),
  );
  const slotOf = (index: number): string => (index === 0 ? 'good' : `good${index + 1}`);
  // Older versions of a step made one tub of all its blocks: their corrections do so too.
  const asOne = context.first !== null && took.length > 1 && context.oldSlots['good2'] === undefined;
  const groups = asOne
    ? [{ ids: took.map(({ id }) => id), massMg: out.reduce((a, b) => a + b, 0) }]
    : took.map(({ id }, i) => ({ ids: [id], massMg: out[i] ?? 0 }));
  groups.forEach(({ ids, massMg }, index) => {
    const origin = planner.origin(ids.map((holdingId) => ({ holdingId, massG: 1 })));
    planner.make(
      slotOf(index),
      {
        kind: 'block',
        letter: CODE_LETTERS.block,
        name: origin.name,
        place: planner.after('rest', origin.routeId, 'temper'),
        routeId: origin.routeId,
        batchId: origin.batchId,
        ...(asOne || context.oldSlots[slotOf(index)] !== undefined ? {} : { code: planner.nextCodeOf(ids[0] ?? '') }),
      },
      massMg,
    );
  });
  planner.explainRest('trimming', 'outG');
  const [first] = command.sources;
  return planner.plan('rest', planner.origin(first ? [first] : []).batchId);
}
