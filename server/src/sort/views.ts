import type { SortView } from '@wunsch/core/api/beans';
import { beansIn, hitsOf } from '@wunsch/core/beans/cut-test';
import { newestOf } from '@wunsch/core/beans/records';
import type { Step } from '@wunsch/core/ledger/types';
import {
  adviseSort,
  costOfOnePercent,
  projectRest,
  rejectedG,
  summarise,
  type SortSession,
} from '@wunsch/core/sort/judge';
import { wilson } from '@wunsch/core/stats/intervals';
import { majorFromMilli } from '@wunsch/core/units/money';
import type { Views } from '../ledger/views';
import { expectedFrom, usualBar } from '../ledger/expected';
import { papersOf } from '@wunsch/core/beans/papers';

const FAMILY_SESSIONS = 60;

/** One sorting step as a session. */
function sessionOf(step: Step): SortSession {
  const rejectsG: Record<string, number> = {};
  let inG = 0;
  let goodG = 0;
  for (const p of step.postings) {
    const grams = p.massMg / 1000;
    if (p.holdingId !== null && grams < 0) inG -= grams;
    else if (p.holdingId !== null) goodG += grams;
    else if (p.loss === 'reject' && p.reason !== null) {
      rejectsG[p.reason] = (rejectsG[p.reason] ?? 0) + grams;
    }
  }
  return { stepId: step.id, at: step.at, personId: step.personId, inG, goodG, rejectsG, minutes: step.minutes };
}

const sessions = (rows: readonly { step: Step | undefined }[]): SortSession[] =>
  rows.flatMap(({ step }) => (step ? [sessionOf(step)] : []));

/** What sorting has found on a lot, what the rest of it will give and cost, and what to do. */
export function sortView(views: Views, lotId: string): SortView {
  const { workshop } = views;
  const family = views.family(lotId);
  const own = sessions(views.yields.ofLot('sort', lotId));
  // Sessions on other lots count as earlier ones only if they were.
  const until = own.at(-1)?.at ?? workshop.now();
  const others = sessions(
    views.yields
      .ofFamily('sort', family)
      .filter((row) => row.lotId !== lotId && row.at <= until)
      .slice(-FAMILY_SESSIONS),
  );
  const summary = summarise(own);
  const records = workshop.beans.of(lotId);
  const { limits } = papersOf(records);
  const cut = newestOf(records, 'inspection')?.value.cut ?? null;
  const n = cut ? beansIn(cut.tally) : 0;
  const faulty = cut ? hitsOf(cut.tally, 'defective') + cut.tally.mouldy : 0;
  const leftG = workshop.book.balance(lotId).massMg / 1000;
  const perKg = majorFromMilli(workshop.valuation.perKgMilli(lotId));
  const rest = projectRest(own, others, leftG, perKg, workshop.settings.wagePerHour);
  const familyShares = others.map((row) => rejectedG(row) / row.inG);
  const bar = usualBar(views, family);
  // What a kilogram of sorted beans becomes: bars' cacao over sorted beans.
  const hundred = expectedFrom(views, lotId, 100_000);
  const sortYield = hundred.basis.find(({ station }) => station === 'sort')?.mean ?? 1;
  const afterSorting = (hundred.bars.mean * bar.barG * bar.cacao) / (100_000 * sortYield);
  return {
    summary,
    speeds: summary.speeds.map((row) => ({ ...row, person: views.person(row.personId) })),
    rest,
    familyShares,
    family,
    flatShare: summary.reasons.find(({ reason }) => reason === 'flat')?.share ?? 0,
    onePercentPerBar: costOfOnePercent(rest.costPerGoodKg, summary.rejectShare, afterSorting, bar.cacao, bar.barG),
    advice: adviseSort(summary, {
      inspected: n > 0 ? { share: faulty / n, ...wilson(faulty, n) } : null,
      familyShares,
      family,
      rejectPct: limits.rejectPct,
      flatPct: limits.flatPct,
      massSystem: workshop.settings.massSystem,
    }),
  };
}
