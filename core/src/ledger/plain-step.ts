import type { PlainStep, Step } from './types';

/** A step with all its fields its own: one of the past has them from elsewhere, and loses them where it is spread. */
export const plainStep = (step: Step): PlainStep => ({
  id: step.id,
  seq: step.seq,
  order: step.order,
  kind: step.kind,
  station: step.station,
  at: step.at,
  recordedAt: step.recordedAt,
  personId: step.personId,
  batchId: step.batchId,
  machineId: step.machineId,
  supersedes: step.supersedes,
  reason: step.reason,
  withdrawn: step.withdrawn,
  command: step.command,
  slots: step.slots,
  minutes: step.minutes,
  energyKwh: step.energyKwh,
  money: step.money,
  postings: step.postings,
  ...(step.overrides === undefined ? {} : { overrides: step.overrides }),
});
