import type { TrialPlan } from '@wunsch/core/trials/records';
import type { Views } from '../ledger/views';

export interface KeptTrial {
  id: string;
  at: number;
  personId: string;
  trial: TrialPlan;
  /** Codes of what was made, with the arm of each. */
  made: Map<string, number>;
}

/** Trials with what was made of them, oldest first. */
export function trialsOf(views: Views): Map<string, KeptTrial> {
  const found = new Map<string, KeptTrial>();
  for (const { id, at, personId, value } of views.workshop.records.of('trials')) {
    if (value.kind === 'trial') found.set(id, { id, at, personId, trial: value.trial, made: new Map() });
    else if (value.kind === 'made') found.get(value.trialId)?.made.set(value.code, value.arm);
    else found.get(value.trialId)?.made.delete(value.code);
  }
  return found;
}
