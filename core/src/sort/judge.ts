import { percent } from '../ledger/yields';
import { projectMean, type Interval } from '../stats/intervals';
import { formatHeavy, type MassSystem } from '../units/mass';

/** One sorting of some grams, as logged. */
export interface SortSession {
  stepId: string;
  at: number;
  personId: string;
  inG: number;
  goodG: number;
  /** By pile: the usual ones and the workshop's own. */
  rejectsG: Readonly<Record<string, number>>;
  minutes: number;
}

export const rejectedG = (session: SortSession): number =>
  Object.values(session.rejectsG).reduce((sum, grams) => sum + grams, 0);

export interface ReasonShare {
  reason: string;
  grams: number;
  /** Of beans in, 0 to 1. */
  share: number;
}

export interface Speed {
  personId: string;
  kgPerHour: number;
  sessions: number;
  inG: number;
}

export interface SortSummary {
  sessions: number;
  inG: number;
  goodG: number;
  rejectG: number;
  /** Neither good nor in a pile: shows bad weighing. */
  unaccountedG: number;
  rejectShare: number;
  reasons: ReasonShare[];
  speeds: Speed[];
}

/** All sessions on a lot added up: reject piles by reason, largest first, and who sorts how fast. */
export function summarise(sessions: readonly SortSession[]): SortSummary {
  const inG = total(sessions, (s) => s.inG);
  const goodG = total(sessions, (s) => s.goodG);
  const rejectG = total(sessions, rejectedG);
  const people = [...new Set(sessions.map(({ personId }) => personId))];
  return {
    sessions: sessions.length,
    inG,
    goodG,
    rejectG,
    unaccountedG: inG - goodG - rejectG,
    rejectShare: inG > 0 ? rejectG / inG : 0,
    reasons: [...new Set(sessions.flatMap((s) => Object.keys(s.rejectsG)))]
      .map((reason) => {
        const grams = total(sessions, (s) => s.rejectsG[reason] ?? 0);
        return { reason, grams, share: inG > 0 ? grams / inG : 0 };
      })
      .filter(({ grams }) => grams > 0)
      .sort((a, b) => b.grams - a.grams),
    speeds: people
      .flatMap((personId) => {
        const own = sessions.filter((s) => s.personId === personId && s.minutes >= TIMED_MIN);
        const minutes = total(own, (s) => s.minutes);
        const grams = total(own, (s) => s.inG);
        return minutes > 0
          ? [{ personId, kgPerHour: grams / 1000 / (minutes / 60), sessions: own.length, inG: grams }]
          : [];
      })
      .sort((a, b) => b.kgPerHour - a.kgPerHour),
  };
}

/** A session entered with less is not timed: nobody sorts a load in seconds. */
const TIMED_MIN = 1;

const total = <T>(rows: readonly T[], pick: (row: T) => number): number =>
  rows.reduce((sum, row) => sum + pick(row), 0);

export interface Estimate extends Interval {
  mean: number;
}

export interface RestOfLot {
  leftG: number;
  goodG: Estimate;
  hours: Estimate;
  /** Landed beans, hands and rejects, in major units a kilogram of good beans. */
  costPerGoodKg: number;
  level: number;
  basis: string;
}

const ENOUGH = 3;
/** Without a past: hand sorting of ordinary beans. */
const USUAL = { rejectShare: [0.01, 0.1], hoursPerKg: [0.06, 0.2] } as const;

/**
 * What the rest of a lot will give and take, with a prediction interval of the mean of the sessions to come.
 *
 * @param own sessions on this lot; @param family earlier sessions on lots like it
 * @param leftG grams still to sort; @param perKg landed price, @param wagePerHour, both in major units
 */
export function projectRest(
  own: readonly SortSession[],
  family: readonly SortSession[],
  leftG: number,
  perKg: number,
  wagePerHour: number,
  level = 0.8,
): RestOfLot {
  const mine = own.length >= ENOUGH;
  const rows = mine ? own : [...family, ...own];
  const loadG = rows.length > 0 ? total(rows, (s) => s.inG) / rows.length : 20_000;
  const next = Math.max(1, Math.round(leftG / loadG));
  const pick = (values: number[], usual: readonly [number, number]): Estimate => {
    const found = values.length >= ENOUGH ? projectMean(values, next, level) : null;
    return found ?? { mean: (usual[0] + usual[1]) / 2, low: usual[0], high: usual[1] };
  };
  const reject = pick(
    rows.map((s) => 1 - s.goodG / s.inG),
    USUAL.rejectShare,
  );
  const pace = pick(
    rows.filter((s) => s.minutes > 0).map((s) => s.minutes / 60 / (s.inG / 1000)),
    USUAL.hoursPerKg,
  );
  const clamp = (value: number): number => Math.min(1, Math.max(0, value));
  const kg = leftG / 1000;
  const goodShare = 1 - clamp(reject.mean);
  return {
    leftG,
    goodG: { mean: leftG * goodShare, low: leftG * (1 - clamp(reject.high)), high: leftG * (1 - clamp(reject.low)) },
    hours: { mean: kg * pace.mean, low: kg * Math.max(0, pace.low), high: kg * pace.high },
    costPerGoodKg: goodShare > 0 ? (perKg + pace.mean * wagePerHour) / goodShare : 0,
    level,
    basis:
      rows.length < ENOUGH
        ? 'usual ranges of the trade, until three sessions are logged'
        : mine
          ? `${own.length} sessions on this lot`
          : `${rows.length} sessions on this lot and lots like it`,
  };
}

export interface SortAdvice {
  tone: 'good' | 'watch' | 'unknown';
  sentence: string;
  evidence: string;
  todo: string | null;
}

/** What one more percent rejected costs a bar. @param perGoodKg cost of sorted beans, @param beanToBar share, @param cacao share of a bar, @param barG */
export function costOfOnePercent(
  perGoodKg: number,
  rejectShare: number,
  beanToBar: number,
  cacao: number,
  barG: number,
): number {
  const sortedPerBarKg = (barG / 1000) * (cacao / Math.max(0.01, beanToBar));
  const good = 1 - rejectShare;
  return sortedPerBarKg * perGoodKg * (good / Math.max(0.01, good - 0.01) - 1);
}

export interface Measures {
  /** Defects by count that the inspection found, 0 to 1: insect-damaged, germinated, flat and mouldy. */
  inspected: { share: number; low: number; high: number } | null;
  /** Reject shares of earlier sessions of the family. */
  familyShares: readonly number[];
  family: string;
  /** The contract's limits, % by weight. */
  rejectPct: number | null;
  flatPct: number | null;
  /** In which masses are said. */
  massSystem?: MassSystem;
}

/** Whether to sort harder or lighter, which reason drives it, and whether a claim is reached. */
export function adviseSort(summary: SortSummary, measures: Measures): SortAdvice {
  if (summary.sessions === 0 || summary.inG === 0)
    return {
      tone: 'unknown',
      sentence: 'Nothing sorted yet.',
      evidence: measures.inspected
        ? `The cut test found ${percent(measures.inspected.share)} faulty by count.`
        : 'No cut test to compare with either.',
      todo: 'Sort one sack with every pile weighed: the rest of the lot is worked out from it.',
    };
  const driver = summary.reasons[0];
  const driven =
    driver && summary.rejectG > 0
      ? ` ${capital(driver.reason)} beans are ${percent(driver.grams / summary.rejectG)} of it.`
      : '';
  const flat = summary.reasons.find(({ reason }) => reason === 'flat')?.share ?? 0;
  const evidence = [
    `${summary.sessions} ${summary.sessions === 1 ? 'session' : 'sessions'}, ${formatHeavy(summary.inG, measures.massSystem)} in, ${formatHeavy(summary.rejectG, measures.massSystem, 2)} picked out.`,
    ...usualRange(measures),
    measures.inspected
      ? `Cut test: ${percent(measures.inspected.share)} faulty by count (${percent(measures.inspected.low)} to ${percent(measures.inspected.high)}).`
      : '',
    contractWords(measures),
  ]
    .filter((text) => text !== '')
    .join(' ');
  const claims = [
    measures.rejectPct !== null && 100 * summary.rejectShare > measures.rejectPct
      ? `${percent(summary.rejectShare)} rejected against ${measures.rejectPct} % in the contract`
      : '',
    measures.flatPct !== null && 100 * flat > measures.flatPct
      ? `${percent(flat)} flat against ${measures.flatPct} %`
      : '',
  ].filter((text) => text !== '');
  if (claims.length > 0)
    return {
      tone: 'watch',
      sentence: `Claim reached: ${claims.join('; ')}.${driven}`,
      evidence,
      todo: 'Keep the piles and photograph them; print the claim sheet from the lot.',
    };
  // Lots differ among themselves, so the spread of single sessions is the measure, not that of their mean.
  const usual = projectMean([...measures.familyShares], 1, 0.95);
  if (usual && measures.familyShares.length >= 5 && summary.rejectShare > usual.high)
    return {
      tone: 'watch',
      sentence: `${percent(summary.rejectShare)} picked out: more than ${measures.family} usually gives.${driven}`,
      evidence,
      todo:
        measures.inspected && summary.rejectShare > measures.inspected.high + 0.03
          ? 'It is also more than the cut test found: look whether good beans are in the piles, and sort lighter if they are.'
          : 'The beans are worse than usual, not the hand: go on, and tell the supplier.',
    };
  if (usual && measures.familyShares.length >= 5 && summary.rejectShare < Math.max(0, usual.low))
    return {
      tone: 'watch',
      sentence: `${percent(summary.rejectShare)} picked out: less than ${measures.family} usually gives.`,
      evidence,
      todo: 'Look over one good tray again: if it holds faulty beans, sort harder.',
    };
  return {
    tone: 'good',
    sentence: `${percent(summary.rejectShare)} picked out, as usual.${driven}`,
    evidence,
    todo: null,
  };
}

function contractWords({ flatPct, rejectPct }: Measures): string {
  const limits = [
    flatPct === null ? '' : `${flatPct} % flat`,
    rejectPct === null ? '' : `${rejectPct} % rejects in all`,
  ].filter((text) => text !== '');
  return limits.length === 0 ? '' : `The contract lets pass ${limits.join(' and ')}.`;
}

function usualRange({ familyShares, family }: Measures): string[] {
  const past = projectMean([...familyShares], 1, 0.8);
  return past
    ? [
        `${familyShares.length} earlier sessions of ${family}: ${percent(Math.max(0, past.low))} to ${percent(past.high)} (80 % of sessions).`,
      ]
    : [];
}

const capital = (text: string): string => (text[0]?.toUpperCase() ?? '') + text.slice(1);
