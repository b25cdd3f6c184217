import { exactBounds, wilson, type Interval } from '../stats/intervals';
import { clumping } from '../stats/spread';
import { surelyBeside } from '../stats/sequential';

/** What a cut bean can show (ISO 1114). A bean with several faults counts once, under the gravest. */
export const CUT_CLASSES = ['brown', 'partly', 'purple', 'slaty', 'mouldy', 'insect', 'germinated', 'flat'] as const;
export type CutClass = (typeof CUT_CLASSES)[number];
export type Tally = Record<CutClass, number>;

export const NO_BEANS: Tally = {
  brown: 0,
  partly: 0,
  purple: 0,
  slaty: 0,
  mouldy: 0,
  insect: 0,
  germinated: 0,
  flat: 0,
};

export const CUT_NAMES: Record<CutClass, string> = {
  brown: 'Brown',
  partly: 'Partly purple',
  purple: 'Purple',
  slaty: 'Slaty',
  mouldy: 'Mouldy',
  insect: 'Insect-damaged',
  germinated: 'Germinated',
  flat: 'Flat',
};

/** How many beans can be planned: the standard's 300, or smaller samples with their wider intervals. */
export const CUT_PLANS = [50, 100, 150, 300] as const;

/** Grade limits, shares of 1 by count (ISO 2451). `defective` is insect-damaged, germinated and flat together. */
export interface GradeLimits {
  mouldy: number;
  slaty: number;
  defective: number;
}
export const GRADE_LIMITS: Record<'I' | 'II', GradeLimits> = {
  I: { mouldy: 0.03, slaty: 0.03, defective: 0.03 },
  II: { mouldy: 0.04, slaty: 0.08, defective: 0.06 },
};
export const LIMITED = ['mouldy', 'slaty', 'defective'] as const;
export type Limited = (typeof LIMITED)[number];

export const beansIn = (tally: Tally): number => CUT_CLASSES.reduce((sum, name) => sum + tally[name], 0);

export const hitsOf = (tally: Tally, what: Limited): number =>
  what === 'defective' ? tally.insect + tally.germinated + tally.flat : tally[what];

export interface Share extends Interval {
  hits: number;
  share: number;
}

/** Each class with its share and 95 % Wilson interval. */
export function cutShares(tally: Tally): Record<CutClass | 'defective', Share> {
  const n = beansIn(tally);
  const one = (hits: number): Share => ({ hits, share: n === 0 ? 0 : hits / n, ...wilson(hits, n) });
  return {
    ...(Object.fromEntries(CUT_CLASSES.map((name) => [name, one(tally[name])])) as Record<CutClass, Share>),
    defective: one(hitsOf(tally, 'defective')),
  };
}

/** Of the 5 % risk of a wrong word, half is spent at the planned count and half on every other moment. */
const HALF_RISK = 0.025;

/** How many beans lie on a tray. */
export const TRAY = 50;
/** What is taken of faults that lie together before the trays have shown it. */
const USUAL_CLUMPING = { effect: 1.2, worth: 4, safe: 0.2 };
/** Whoever may stop at any bean may stop on the very tray that is best, or worst. */
const BEST_TRAY = 2;
const WORST_TRAY = 4;

/**
 * How many beans of a fault count as one: mould and insects come by the sack, so the trays of one test differ by more
 * than chance.
 *
 * @param trays counts of each tray in the order cut; without any, 1: every bean is taken as drawn by itself
 * @returns at least 1
 */
export function trayClumping(trays: readonly Tally[], what: Limited): number {
  if (trays.length === 0) return 1;
  const full = trays.filter((tray) => beansIn(tray) >= TRAY / 2);
  return clumping(
    full.map((tray) => ({ hits: hitsOf(tray, what), of: beansIn(tray) })),
    (expected, share) => expected * (1 - share),
    USUAL_CLUMPING,
  );
}

export type Standing = 'within' | 'over' | 'open';

/**
 * Whether a share is surely within or surely over a limit.
 *
 * At exactly the planned count exact bounds decide: the stop was fixed before looking. At any other count the maker
 * may have stopped because of what was seen, so evidence that holds at all moments at once decides (see
 * `surelyBeside`). Together the risk of a false "within" stays at or below 5 %; being over any of the three limits is
 * a claim, so its 5 % are shared out among them.
 *
 * @param planned how many beans it was decided to cut before the first one
 * @param clumped how many beans count as one, where faults lie together (see `trayClumping`)
 */
export function standing(hits: number, n: number, limit: number, planned: number, clumped = 1): Standing {
  const [h, m] = [hits / clumped, n / clumped];
  const each = HALF_RISK / LIMITED.length;
  const [best, worst] = clumped > 1 ? [BEST_TRAY, WORST_TRAY] : [1, 1];
  if (surelyBeside(h / best, m / best, limit, HALF_RISK) === 'below') return 'within';
  if (surelyBeside(h / worst, m / worst, limit, each) === 'above') return 'over';
  if (n !== planned) return 'open';
  if (exactBounds(h, m, HALF_RISK).high < limit) return 'within';
  return exactBounds(h, m, each).low > limit ? 'over' : 'open';
}

export type Grade = 'I' | 'II' | 'below';

export interface CutVerdict {
  n: number;
  planned: number;
  /** What the counts say, taken as they are. */
  grade: Grade | null;
  /** Whether more beans could still change the grade. */
  sure: boolean;
  standings: { what: Limited; limit: number; grade: 'I' | 'II'; standing: Standing }[];
  /** About how many more beans would settle it if the shares stay as they are; null when more than 5,000 would not. */
  more: number | null;
  /** The grade and whether it is sure, without what to do. */
  short: string;
  sentence: string;
  why: string;
}

function gradeByCounts(tally: Tally): Grade {
  const n = beansIn(tally);
  const within = (limits: GradeLimits): boolean => LIMITED.every((what) => hitsOf(tally, what) / n <= limits[what]);
  return within(GRADE_LIMITS.I) ? 'I' : within(GRADE_LIMITS.II) ? 'II' : 'below';
}

/** Whether the counts prove their own grade: all limits of it kept, and one of the next better broken. */
function isSure(
  hits: Record<Limited, number>,
  n: number,
  planned: number,
  grade: Grade,
  clumped: Record<Limited, number>,
): boolean {
  const at = (limits: GradeLimits, wanted: Standing): boolean[] =>
    LIMITED.map((what) => standing(hits[what], n, limits[what], planned, clumped[what]) === wanted);
  const keeps = (which: 'I' | 'II'): boolean => at(GRADE_LIMITS[which], 'within').every(Boolean);
  const breaks = (which: 'I' | 'II'): boolean => at(GRADE_LIMITS[which], 'over').some(Boolean);
  if (grade === 'I') return keeps('I');
  return grade === 'II' ? breaks('I') && keeps('II') : breaks('II');
}

const MOST_MORE = 5000;

function moreToSettle(tally: Tally, grade: Grade, planned: number, clumped: Record<Limited, number>): number | null {
  const n = beansIn(tally);
  const sureAt = (total: number, plan: number): boolean => {
    const grown = (what: Limited): number => (hitsOf(tally, what) * total) / n;
    const hits = { mouldy: grown('mouldy'), slaty: grown('slaty'), defective: grown('defective') };
    return isSure(hits, total, plan, grade, clumped);
  };
  const toPlan = planned > n && sureAt(planned, planned) ? planned - n : null;
  for (let more = 10; more <= MOST_MORE; more += Math.max(10, 10 * Math.floor(more / 100))) {
    if (toPlan !== null && more >= toPlan) return toPlan;
    if (sureAt(n + more, -1)) return more;
  }
  return toPlan;
}

const NAMES: Record<Limited, string> = {
  mouldy: 'mouldy',
  slaty: 'slaty',
  defective: 'insect-damaged, germinated and flat',
};

/** What was taken of faults that lie together, in words. */
function clumpWords(n: number, trays: readonly Tally[], clumped: Record<Limited, number>): string {
  if (trays.length === 0)
    return 'Every bean is taken as drawn by itself: faults that come together from one sack make it less sure.';
  const most = LIMITED.reduce((a, b) => (clumped[b] > clumped[a] ? b : a));
  return `Faults lie together: for ${NAMES[most]} beans the ${n} on ${trays.length} trays count as ${Math.round(n / clumped[most])} loose ones.`;
}

/**
 * The grade of a cut test and how sure it is (ISO 1114, ISO 2451).
 *
 * @param planned beans, decided before the first cut
 * @param trays counts tray by tray, where they are known: they show whether faults lie together
 */
export function judgeCut(tally: Tally, planned: number, trays: readonly Tally[] = []): CutVerdict {
  const n = beansIn(tally);
  const clumped = Object.fromEntries(LIMITED.map((what) => [what, trayClumping(trays, what)])) as Record<
    Limited,
    number
  >;
  const standings = (['I', 'II'] as const).flatMap((grade) =>
    LIMITED.map((what) => ({
      what,
      limit: GRADE_LIMITS[grade][what],
      grade,
      standing: standing(hitsOf(tally, what), n, GRADE_LIMITS[grade][what], planned, clumped[what]),
    })),
  );
  if (n === 0) {
    return {
      n,
      planned,
      grade: null,
      sure: false,
      standings,
      more: null,
      short: 'not cut',
      sentence: 'No bean cut yet.',
      why: 'Cut beans lengthwise, fifty to a tray, from several sacks.',
    };
  }
  const grade = gradeByCounts(tally);
  const hits = { mouldy: tally.mouldy, slaty: tally.slaty, defective: hitsOf(tally, 'defective') };
  const sure = isSure(hits, n, planned, grade, clumped);
  const more = sure ? 0 : moreToSettle(tally, grade, planned, clumped);
  const name = grade === 'below' ? 'Below grade II' : `Grade ${grade}`;
  const open = standings.filter(
    (row) =>
      row.standing === 'open' && (grade === 'I' ? row.grade === 'I' : grade === 'below' ? row.grade === 'II' : true),
  );
  const worst = LIMITED.filter((what) => hits[what] / n > GRADE_LIMITS.I[what]);
  return {
    n,
    planned,
    grade,
    sure,
    standings,
    more,
    short: `${grade === 'below' ? 'below grade II' : `grade ${grade}`}${sure ? '' : ', not sure'}`,
    sentence: sure
      ? `${name}, sure.`
      : `${name} by the counts, not sure yet${more === null ? ': too near a limit for any number of beans worth cutting' : `: about ${more} more beans would settle it`}.`,
    why: [
      worst.length > 0
        ? `Over grade I: ${worst.map((what) => `${NAMES[what]} ${hits[what]} of ${n}`).join('; ')}.`
        : `All shares of ${n} beans lie within grade I.`,
      sure || open.length === 0 ? '' : `Still open: ${[...new Set(open.map(({ what }) => NAMES[what]))].join('; ')}.`,
      n === planned
        ? `Stopped at the ${planned} that were planned, so exact 95 % bounds decide.`
        : `${n < planned ? 'Before' : 'After'} the ${planned} that were planned the stricter rule decides, which holds however often one looks and whenever one stops.`,
      clumpWords(n, trays, clumped),
    ]
      .filter((text) => text !== '')
      .join(' '),
  };
}
