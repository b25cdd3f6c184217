import {
  trayClumping,
  cutShares,
  hitsOf,
  judgeCut,
  standing,
  type CutVerdict,
  type Limited,
  LIMITED,
  beansIn,
} from './cut-test';
import { judgeCounts, judgeMoisture } from './readings';
import type { ContractLimits, Inspection } from './records';
import type { CountCheck } from './sacks';
import { ACTIONS, FAULTY_SMELLS, type Action } from './words';

export interface Reason {
  action: Action;
  /** What was found, with its figure. */
  text: string;
  /** Whether more looking could change it. */
  sure: boolean;
}

export interface ClaimLine {
  what: string;
  foundPct: number;
  limitPct: number;
  lowPct: number;
  highPct: number;
  /** Surely over, over by the counts only, or within. */
  word: 'over, sure' | 'over, not sure' | 'within';
}

export interface ArrivalVerdict {
  action: Action;
  sentence: string;
  reasons: Reason[];
  /** What speaks for taking it, once nothing stands against it. */
  good: string[];
  missing: string[];
  cut: CutVerdict | null;
  claims: ClaimLine[];
  /** Grams to claim for, and what they cost: short weight, and shares over the contract's limits. */
  claimG: number;
}

const CLAIM_NAMES: Record<Limited, string> = {
  mouldy: 'Mouldy beans',
  slaty: 'Slaty beans',
  defective: 'Insect-damaged, germinated and flat beans',
};

const LIMIT_FIELDS: Record<Limited, 'mouldyPct' | 'slatyPct' | 'defectivePct'> = {
  mouldy: 'mouldyPct',
  slaty: 'slatyPct',
  defective: 'defectivePct',
};

/** Past this multiple of the limit, surely, an allowance mends nothing. */
const GROSS = 3;

/** The cut test's shares against the contract's limits, each with its 95 % Wilson interval. */
export function claimLines(found: Inspection['cut'], limits: ContractLimits): ClaimLine[] {
  if (!found) return [];
  const n = beansIn(found.tally);
  if (n === 0) return [];
  const shares = cutShares(found.tally);
  return LIMITED.flatMap((what) => {
    const limitPct = limits[LIMIT_FIELDS[what]];
    if (limitPct === null) return [];
    const { share, low, high } = shares[what];
    const where =
      limitPct <= 0
        ? share > 0
          ? 'over'
          : 'open'
        : standing(hitsOf(found.tally, what), n, limitPct / 100, found.planned, trayClumping(found.trays ?? [], what));
    return [
      {
        what: CLAIM_NAMES[what],
        foundPct: 100 * share,
        limitPct,
        lowPct: 100 * low,
        highPct: 100 * high,
        word: 100 * share <= limitPct ? 'within' : where === 'over' ? 'over, sure' : 'over, not sure',
      },
    ];
  });
}

/**
 * What to do with an arrival, from what was found: the gravest reason decides.
 *
 * @param found the inspection; @param count sacks against the invoice, if weighed; @param netG of the whole lot
 */
export function judgeArrival(
  found: Inspection,
  limits: ContractLimits,
  count: CountCheck | null,
  netG: number,
): ArrivalVerdict {
  const reasons: Reason[] = [];
  const good: string[] = [];
  const missing: string[] = [];
  const because = (action: Action, text: string, sure = true): void => void reasons.push({ action, text, sure });
  pests(found, because, good, missing);
  smell(found, because, good, missing);
  wetness(found, limits, because, good, missing);
  const claims = claimLines(found.cut, limits);
  for (const line of claims) {
    if (line.word === 'within') continue;
    const text = `${line.what}: ${line.foundPct.toFixed(1)} % against ${line.limitPct} % in the contract (95 % interval ${line.lowPct.toFixed(1)} to ${line.highPct.toFixed(1)} %).`;
    const gross = line.word === 'over, sure' && line.lowPct > GROSS * line.limitPct;
    because(gross ? 'refuse' : 'allowance', text, line.word === 'over, sure');
  }
  const cut =
    found.cut && beansIn(found.cut.tally) > 0 ? judgeCut(found.cut.tally, found.cut.planned, found.cut.trays) : null;
  if (!cut) missing.push('a cut test');
  const size = judgeCounts(found.per100g);
  if (size) good.push(size.sentence);
  else missing.push('a bean count');
  if (!count) missing.push('the sacks weighed one by one');
  else if (count.shortG > 0) because('allowance', count.sentence);
  else good.push(count.sentence);
  const action = reasons.reduce<Action>(
    (worst, reason) => (ACTIONS.indexOf(reason.action) > ACTIONS.indexOf(worst) ? reason.action : worst),
    'take-in',
  );
  reasons.sort((a, b) => ACTIONS.indexOf(b.action) - ACTIONS.indexOf(a.action));
  const overG = claims.reduce(
    (sum, line) => (line.word === 'over, sure' ? sum + ((line.foundPct - line.limitPct) / 100) * netG : sum),
    0,
  );
  return {
    action,
    sentence: sentenceFor(action, reasons, missing),
    reasons,
    good,
    missing,
    cut,
    claims,
    claimG: Math.round(overG + (count?.shortG ?? 0)),
  };
}

type Because = (action: Action, text: string, sure?: boolean) => void;

function pests({ signs }: Inspection, because: Because, good: string[], missing: string[]): void {
  const seen = [
    signs.webbing ? 'webbing' : '',
    signs.droppings ? 'droppings' : '',
    signs.larvae > 0 ? `${signs.larvae} ${signs.larvae === 1 ? 'larva' : 'larvae'}` : '',
    signs.moths > 0 ? `${signs.moths} live ${signs.moths === 1 ? 'insect' : 'insects'}` : '',
  ].filter((text) => text !== '');
  if (seen.length > 0)
    because(
      'hold',
      `Moth or beetle: ${seen.join(', ')}. Keep it away from everything finished; freeze, heat, or plan the roast as kill step.`,
    );
  if (signs.rodents) because('refuse', 'Gnawed sacks or rodent droppings: not to be cleaned out of food.');
  if (signs.wetSacks > 0)
    because(
      'hold',
      `${signs.wetSacks} wet ${signs.wetSacks === 1 ? 'sack' : 'sacks'}: open each, measure in the middle, keep apart until dry and free of mould.`,
    );
  if (signs.tornSacks > 0) because('take-in', `${signs.tornSacks} torn: weigh and re-bag before they go to the store.`);
  const nothing = seen.length === 0 && !signs.rodents && signs.wetSacks === 0;
  if (nothing && signs.looked === false) missing.push('the sacks, for moth and wet');
  else if (nothing) good.push('No webbing, droppings or larvae, no wet sack.');
}

function smell({ smells }: Inspection, because: Because, good: string[], missing: string[]): void {
  const faulty = smells.filter((name) => FAULTY_SMELLS.includes(name));
  if (smells.length === 0) missing.push('the smell');
  else if (faulty.length === 0) good.push(`Smells of ${smells.join(', ')}.`);
  if (faulty.includes('fuel or chemical'))
    because('refuse', 'Smells of fuel or chemicals: no roast takes that out, and it may not be fit to eat.');
  else if (faulty.length > 0)
    because(
      'hold',
      `Smells of ${faulty.join(', ')}: roast and taste a kilogram of the worst sack before deciding.`,
      false,
    );
}

function wetness(found: Inspection, limits: ContractLimits, because: Because, good: string[], missing: string[]): void {
  const wet = judgeMoisture(found.moisturePct);
  const limit = limits.moisturePct;
  if (!wet) missing.push('the moisture');
  else if (wet.interval.mean > 10) because('refuse', wet.sentence);
  else if (wet.tone === 'bad') because('hold', wet.sentence, wet.interval.low > 8);
  else if (limit !== null && wet.interval.mean > limit)
    because(
      'allowance',
      `Moisture ${wet.interval.mean.toFixed(1)} % against ${limit} % in the contract.`,
      wet.interval.low > limit,
    );
  else if (wet.tone === 'watch') because('take-in', wet.sentence, false);
  else good.push(`Moisture ${wet.sentence}`);
}

function sentenceFor(action: Action, reasons: readonly Reason[], missing: readonly string[]): string {
  const open = missing.length > 0 ? ` Not looked at yet: ${missing.join(', ')}.` : '';
  const main = reasons.find((reason) => reason.action === action);
  const unsure = main && !main.sure ? ' That is not sure yet.' : '';
  const lead: Record<Action, string> = {
    'take-in': 'Take it in.',
    allowance: 'Take it in, and ask for an allowance.',
    hold: 'Hold it.',
    refuse: 'Refuse it.',
  };
  return `${lead[action]}${unsure}${open}`;
}
