import { roastFactors } from '@wunsch/core/roast/trial';
import type { TrialPlan } from '@wunsch/core/trials/records';
import type { Views } from '../ledger/views';

export interface KeptTrial {
  id: string;
  at: number;
  personId: string;
  trial: TrialPlan;
  /** Planned as roasts of one lot: warmth and length. */
  roast: boolean;
  /** Codes of what was made, with the arm of each. */
  made: Map<string, number>;
}

/** Trials with what was made of them, those of roasts first, each oldest first. */
export function trialsOf(views: Views): Map<string, KeptTrial> {
  const { roasts, book, records } = views.workshop;
  const found = new Map<string, KeptTrial>();
  for (const { value, at, personId } of roasts.allTrials()) {
    const { trialId: id, trial: plan } = value;
    const trial: TrialPlan = {
      name: plan.name,
      question: plan.note,
      factors: roastFactors(plan.cells),
      design: 'full',
      arms: plan.cells.map(({ peakC, minutes }) => [peakC, minutes]),
    };
    const loads = roasts
      .loadsOf(id)
      .map(({ value: { cell, loadId } }): [string, number] => [book.holding(loadId).code, cell]);
    found.set(id, { id, at, personId, trial, roast: true, made: new Map(loads) });
  }
  for (const { id, at, personId, value } of records.of('trials')) {
    if (value.kind === 'trial') found.set(id, { id, at, personId, trial: value.trial, roast: false, made: new Map() });
    else if (value.kind === 'made') found.get(value.trialId)?.made.set(value.code, value.arm);
    else found.get(value.trialId)?.made.delete(value.code);
  }
  return found;
}
