import { numberFormat } from '../units/formats';
import { formatHeavy, type MassSystem } from '../units/mass';
import type { ContractLimits } from './records';
import type { ArrivalVerdict } from './verdict';
import type { CountCheck } from './sacks';

export interface ClaimRow {
  what: string;
  found: string;
  limit: string;
  interval: string;
  word: string;
}

export interface ClaimSheet {
  rows: ClaimRow[];
  /** What is claimed, each with its weight as sacks are weighed. */
  items: { what: string; weight: string; money: string }[];
  totalG: number;
  totalMajor: number;
  total: string;
  sentence: string;
}

interface Facts {
  netG: number;
  /** Invoice price a kilogram, in the workshop's currency. */
  perKg: number;
  currency: string;
  massSystem: MassSystem;
  arrival: ArrivalVerdict | null;
  count: CountCheck | null;
  limits: ContractLimits;
  /** All sorting of the lot so far. */
  sort: { sessions: number; inG: number; rejectShare: number; flatShare: number };
}

const percent = (value: number): string => `${value.toFixed(1)} %`;

/**
 * What the supplier is shown: each measure against the contract's limit, what is over, and what it comes to.
 * The screen and the printed sheet both read from here. Beans over a limit are claimed at the invoice price;
 * what the cut test and the sorting table found is the same beans twice, so the larger of the two counts.
 */
export function claimSheet(facts: Facts): ClaimSheet {
  const { arrival, count, limits, sort, netG } = facts;
  const heavy = (grams: number): string => formatHeavy(grams, facts.massSystem);
  const rows: ClaimRow[] = (arrival?.claims ?? []).map((line) => ({
    what: `${line.what}, by count`,
    found: percent(line.foundPct),
    limit: percent(line.limitPct),
    interval: `${line.lowPct.toFixed(1)} to ${percent(line.highPct)}`,
    word: line.word,
  }));
  const items: { what: string; grams: number }[] = [];
  if (count && count.differencePct !== null) {
    rows.push({
      what: 'Short weight',
      found: percent(Math.max(0, -count.differencePct)),
      limit: percent(limits.weightPct ?? 0),
      interval: 'weighed',
      word: count.shortG > 0 ? 'over, sure' : 'within',
    });
    if (count.shortG > 0) items.push({ what: 'Short weight', grams: count.shortG });
  }
  let sortedG = 0;
  for (const [what, share, limitPct] of [
    ['Flat beans, by weight', sort.flatShare, limits.flatPct],
    ['All rejects, by weight', sort.rejectShare, limits.rejectPct],
  ] as const) {
    if (limitPct === null || sort.sessions === 0) continue;
    const over = 100 * share > limitPct;
    rows.push({
      what,
      found: percent(100 * share),
      limit: percent(limitPct),
      interval: `of ${heavy(sort.inG)} sorted`,
      word: over ? 'over, sure' : 'within',
    });
    if (over) sortedG = Math.max(sortedG, (share - limitPct / 100) * netG);
  }
  const cutG = (arrival?.claimG ?? 0) - (count?.shortG ?? 0);
  if (Math.max(sortedG, cutG) > 0)
    items.push(
      sortedG >= cutG
        ? { what: 'Beans over the limit, as the sorting table found them', grams: sortedG }
        : { what: 'Beans over the limit, as the cut test found them', grams: cutG },
    );
  const money = (grams: number): string =>
    numberFormat({ style: 'currency', currency: facts.currency }).format((grams / 1000) * facts.perKg);
  const totalG = items.reduce((sum, { grams }) => sum + grams, 0);
  const unproven = rows.some(({ word }) => word === 'over, not sure');
  return {
    rows,
    items: items.map(({ what, grams }) => ({ what, weight: heavy(grams), money: money(grams) })),
    totalG,
    totalMajor: (totalG / 1000) * facts.perKg,
    total: money(totalG),
    sentence:
      totalG > 0
        ? `${heavy(totalG)} claimed, ${money(totalG)} at the invoice price.`
        : unproven
          ? 'Over a limit by the counts, but not surely: cut more beans before you claim.'
          : 'Nothing is over the contract’s limits.',
  };
}
