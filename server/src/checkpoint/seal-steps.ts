import { silentAbout } from '@wunsch/core/ledger/entries';
import { notedIn } from '@wunsch/core/ledger/noted';
import type { Step } from '@wunsch/core/ledger/types';
import { columnSections, Growing } from './columns';
import { movedIn, movedSections } from './moved';
import type { SealedSteps } from './sealed-steps';
import type { Sections } from './sections';
import {
  HAS_OVERRIDES,
  HAS_REASON,
  HAS_TAKINGS,
  POSTING,
  QUIET,
  SLOT,
  STEP,
  TAKING,
  WITHDRAWN,
  type Account,
  type Rest,
} from './step-columns';
import type { Words } from './words';

const accountText = ({ loss, outside, reason }: Account): string | null =>
  loss === null && outside === null && reason === null ? null : JSON.stringify([loss, outside, reason]);

/**
 * Steps as the sections of a checkpoint: those that were sealed before as they are, and others behind them.
 *
 * @param words grows by what the others say
 * @param fresh in the order of recording, each after every one that was sealed
 * @param rowOf the row of a step, among all of them in that order
 * @returns the columns of all, and the texts of the others
 */
export function sealSteps(
  words: Words,
  before: SealedSteps | null,
  fresh: readonly Step[],
  rowOf: (stepId: string) => number,
): { sections: Sections; texts: Uint8Array } {
  const old = before?.tables ?? null;
  const steps = new Growing(STEP, old?.steps ?? null);
  const postings = new Growing(POSTING, old?.postings ?? null);
  const slots = new Growing(SLOT, old?.slots ?? null);
  const takings = new Growing(TAKING, old?.takings ?? null);
  const texts: Buffer[] = [];
  let textEnd = old ? old.steps.textEnd.at(old.steps.textEnd.length - 1) : 0;
  for (const step of fresh) {
    const { money, overrides } = step;
    for (const posting of step.postings)
      postings.add({
        holding: words.number(posting.holdingId),
        account: words.number(accountText(posting)),
        mass: posting.massMg,
        pieces: posting.pieces,
      });
    for (const [name, holdingId] of Object.entries(step.slots))
      slots.add({ name: words.number(name), holding: words.number(holdingId) });
    for (const [holdingId, milli] of Object.entries(money.takingsMilli ?? {}))
      takings.add({ holding: words.number(holdingId), milli });
    const rest: Rest = {
      command: step.command,
      reason: step.reason,
      ...(overrides === undefined ? {} : { overrides }),
    };
    const text = Buffer.from(JSON.stringify(rest));
    texts.push(text);
    textEnd += text.length;
    steps.add({
      seq: step.seq,
      order: step.order,
      at: step.at,
      recordedAt: step.recordedAt,
      kind: words.number(step.kind),
      station: words.number(step.station),
      person: words.number(step.personId),
      batch: words.number(step.batchId),
      machine: words.number(step.machineId),
      supersedes: step.supersedes === null ? 0 : rowOf(step.supersedes) + 1,
      flags:
        (step.withdrawn ? WITHDRAWN : 0) |
        (money.takingsMilli ? HAS_TAKINGS : 0) |
        (step.reason === null ? 0 : HAS_REASON) |
        (overrides === undefined ? 0 : HAS_OVERRIDES) |
        (notedIn(step) === '' ? QUIET : 0),
      minutes: step.minutes,
      energy: step.energyKwh,
      purchase: money.purchaseMilli,
      labour: money.labourMilli,
      power: money.energyMilli,
      revenue: money.revenueMilli,
      about: words.number(silentAbout(step)),
      textEnd,
      postingEnd: postings.length,
      slotEnd: slots.length,
      takingEnd: takings.length,
    });
  }
  const tables = { steps: steps.whole(), postings: postings.whole() };
  const sections = {
    ...columnSections('step', tables.steps),
    ...columnSections('posting', tables.postings),
    ...columnSections('slot', slots.whole()),
    ...columnSections('taking', takings.whole()),
    ...movedSections(movedIn(tables, words.length)),
  };
  return { sections, texts: Buffer.concat(texts) };
}
