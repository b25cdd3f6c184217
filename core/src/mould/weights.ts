import { normalCumulative, normalQuantile, studentQuantile } from '../stats/distributions';

/** Systems of weight control of packs, as references: the local authority decides which holds, and how. */
export const WEIGHT_SYSTEMS = ['eu', 'us'] as const;
export type WeightSystem = (typeof WEIGHT_SYSTEMS)[number];

export const WEIGHT_WORDS: Readonly<Record<WeightSystem, { name: string; source: string }>> = {
  eu: { name: 'by average', source: '76/211/EEC, annex I' },
  us: { name: 'by maximum allowable variation', source: 'NIST Handbook 133, table 2-5' },
};

/** To so many grams (included) the error is a share of the nominal weight, or grams. */
type Row = readonly [upToG: number, error: { pct: number } | { g: number }];

const EU: readonly Row[] = [
  [50, { pct: 9 }],
  [100, { g: 4.5 }],
  [200, { pct: 4.5 }],
  [300, { g: 9 }],
  [500, { pct: 3 }],
  [1000, { g: 15 }],
  [10_000, { pct: 1.5 }],
];
const US: readonly Row[] = [
  [36, { pct: 10 }],
  [54, { g: 3.6 }],
  [81, { g: 5.4 }],
  [117, { g: 7.2 }],
  [154, { g: 9 }],
  [208, { g: 10.8 }],
  [263, { g: 12.7 }],
  [317, { g: 14.5 }],
];
/** Packs under it have no error of their own. */
const LEAST_G: Readonly<Record<WeightSystem, number>> = { eu: 5, us: 0 };

/**
 * Grams by which one pack may be short.
 *
 * 76/211/EEC, annex I, 2.4 (an error that is a share is rounded up to a tenth of a gram); NIST Handbook 133, table 2-5.
 *
 * @returns null where the table has no row for that weight
 * @example tolerableErrorG(70, 'eu') // 4.5
 */
export function tolerableErrorG(nominalG: number, system: WeightSystem): number | null {
  if (!(nominalG > 0) || nominalG < LEAST_G[system]) return null;
  const row = (system === 'eu' ? EU : US).find(([upToG]) => nominalG <= upToG);
  if (!row) return null;
  const [, error] = row;
  return 'g' in error ? error.g : Math.ceil(Number(((nominalG * error.pct) / 10).toFixed(6))) / 10;
}

/** What a row of weighed pieces says. */
export interface WeightStudy {
  n: number;
  meanG: number;
  /** Standard deviation; null with one piece. */
  sdG: number | null;
  /** Where the true mean lies, nineteen times in twenty; null with one piece. */
  meanLowG: number | null;
  meanHighG: number | null;
  /** Shares of all such pieces under the declared weight, short by more than the error, and by more than twice it. */
  underShare: number | null;
  shortShare: number | null;
  twiceShare: number | null;
  /** Pieces of these that are short by more than the error, and by more than twice it. */
  short: number;
  twice: number;
  errorG: number | null;
  /** The mean to aim at with this spread, so that both rules hold. */
  aimG: number | null;
  tone: 'good' | 'watch' | 'quiet';
  sentence: string;
  todo: string;
}

/** At most so many of a lot may be short by more than the error. */
const MAY_BE_SHORT = 0.025;
/** Fewer pieces say little of the spread. */
const FEWEST = 5;

/**
 * Weights of pieces against the declared one: mean, spread, how many would be short, and the mean to aim at.
 *
 * The share of short pieces is that of a normal curve with these pieces' mean and spread; with few pieces it is a guess,
 * and said so.
 *
 * @param weightsG in the order in which they were weighed; @param declaredG as the label says
 */
export function studyWeights(weightsG: readonly number[], declaredG: number, system: WeightSystem): WeightStudy {
  const n = weightsG.length;
  const errorG = tolerableErrorG(declaredG, system);
  const meanG = n > 0 ? weightsG.reduce((sum, value) => sum + value, 0) / n : 0;
  const sdG = n > 1 ? Math.sqrt(weightsG.reduce((sum, value) => sum + (value - meanG) ** 2, 0) / (n - 1)) : null;
  const half = sdG === null ? null : (studentQuantile(0.975, n - 1) * sdG) / Math.sqrt(n);
  const under = (limitG: number): number | null =>
    sdG === null || n < FEWEST ? null : sdG === 0 ? Number(meanG < limitG) : normalCumulative((limitG - meanG) / sdG);
  const shortShare = errorG === null ? null : under(declaredG - errorG);
  const twiceShare = errorG === null ? null : under(declaredG - 2 * errorG);
  const short = errorG === null ? 0 : weightsG.filter((value) => value < declaredG - errorG).length;
  const twice = errorG === null ? 0 : weightsG.filter((value) => value < declaredG - 2 * errorG).length;
  const aimG = sdG === null || n < FEWEST || errorG === null ? null : aimOf(declaredG, errorG, sdG);
  const base = {
    n,
    meanG,
    sdG,
    meanLowG: half === null ? null : meanG - half,
    meanHighG: half === null ? null : meanG + half,
    underShare: under(declaredG),
    shortShare,
    twiceShare,
    short,
    twice,
    errorG,
    aimG,
  };
  return { ...base, ...verdictOf(base, declaredG) };
}

/** The mean at which not more than one in forty is short by the error, and none to speak of under the declared mean. */
const aimOf = (declaredG: number, errorG: number, sdG: number): number =>
  Math.max(declaredG, declaredG - errorG + normalQuantile(1 - MAY_BE_SHORT) * sdG);

function verdictOf(
  study: Omit<WeightStudy, 'tone' | 'sentence' | 'todo'>,
  declaredG: number,
): Pick<WeightStudy, 'tone' | 'sentence' | 'todo'> {
  const { n, meanG, meanLowG, meanHighG, shortShare, short, twice, aimG } = study;
  const g = (value: number): string => `${value.toFixed(1)} g`;
  const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
  const more = FEWEST - n;
  if (twice > 0)
    return {
      tone: 'watch',
      sentence: `${twice} of ${n} short by more than twice the error: such a piece is not sold under this weight.`,
      todo: 'Take it out; look at the depositor, at air under the mould and at the fill before.',
    };
  if (n < FEWEST || meanLowG === null || meanHighG === null)
    return {
      tone: 'quiet',
      sentence: n === 0 ? 'Nothing weighed yet.' : `${n} weighed, ${g(meanG)} on the mean.`,
      todo: `Weigh ${more} more from other cavities: then the spread says something.`,
    };
  if (meanHighG < declaredG)
    return {
      tone: 'watch',
      sentence: `Too light: ${g(meanG)} on the mean, surely under ${g(declaredG)}.`,
      todo: `Aim at ${g(aimG ?? declaredG)}: ${g((aimG ?? declaredG) - meanG)} more a piece.`,
    };
  if (short > Math.max(1, MAY_BE_SHORT * n) || (shortShare ?? 0) > MAY_BE_SHORT)
    return {
      tone: 'watch',
      sentence: `Uneven: of all such pieces ${percent(shortShare ?? short / n)} would be short by more than the error, of which one in forty may be.`,
      todo: `Fill more evenly, or aim at ${g(aimG ?? declaredG)} on the mean.`,
    };
  const over = aimG === null ? 0 : meanG - aimG;
  if (over > 0.5)
    return {
      tone: 'good',
      sentence: `Heavy enough: ${g(meanG)} on the mean, ${g(over)} more than this spread needs.`,
      todo: `Down to ${g(aimG ?? declaredG)} it would still hold.`,
    };
  return {
    tone: 'good',
    sentence: `${g(meanG)} on the mean: as it should be.`,
    todo:
      meanLowG < declaredG
        ? 'Weigh some more now and then: it is close to the declared weight.'
        : 'Weigh some now and then.',
  };
}

/**
 * What giving away a gram costs in a year.
 *
 * @param overG grams a piece over the declared weight; @param piecesAYear; @param perKgMilli cost of a kilogram
 * @returns milli of the workshop's currency
 */
export const giveawayMilli = (overG: number, piecesAYear: number, perKgMilli: number): number =>
  (Math.max(0, overG) * piecesAYear * perKgMilli) / 1000;
