import { studentQuantile } from '../stats/distributions';
import { groupBy } from '../stats/group';
import { sum } from '../stats/spread';
import { standingOfTasters, type PanelScore, type TasterStanding } from './palates';
import { fitPanel, placesOf, roundOf } from './panel-fit';

/*
 * What a panel says of bars: score = bar + taster in a session + first place + later places + what one taster makes of one bar + error.
 * Bars are compared within each taster's own round, so that who scores high or tires does not matter; where somebody
 * tasted a bar again, what they make of that bar counts once and not each time (a random interaction, by
 * restricted likelihood; C. E. McCulloch, S. R. Searle, Generalized, Linear, and Mixed Models, ch. 6). All tasters weigh
 * alike: weights for steadiness would be guessed from a handful of scores each, and made intervals too narrow.
 */

export interface BarStanding {
  bar: string;
  n: number;
  /** Adjusted for who tasted it when. */
  mean: number;
  /** Nine in ten such intervals hold the bar's own mean over the bars of the panel. */
  low: number;
  high: number;
  /** What to expect if it is tasted again: pulled towards the others by how unsure it is. */
  expected: number;
}

export interface BarPair {
  a: string;
  b: string;
  /** How much better a is than b. */
  difference: number;
  low: number;
  high: number;
}

export interface PlaceEffect {
  value: number;
  low: number;
  high: number;
}

export interface PanelVerdict {
  bars: BarStanding[];
  pairs: BarPair[];
  tasters: TasterStanding[];
  /** What standing first brings, points; null: places do not tell. */
  first: PlaceEffect | null;
  /** What each place later brings, as tongues tire, points a place; null: places do not tell. */
  later: PlaceEffect | null;
  /** Standard deviation of a score that nothing explains. */
  scatter: number;
  /** Tasters that it would still take until the two best are told apart; 0: more would change nothing; null: cannot be said. */
  moreTasters: number | null;
  /** Bars that were never in one round with the others, directly or through third ones. */
  apart: string[];
  sentence: string;
}

/** Nine in ten. */
const LEVEL = 0.9;
/** Points that nobody would act on. */
const NO_MATTER = 0.3;

/**
 * Compares bars over all that a panel scored.
 *
 * @param scores 0 to 10, in any order; a bar may be missing for anybody, and tasted again by others
 */
export function judgePanel(scores: readonly PanelScore[]): PanelVerdict {
  const { rows, apart } = connected(scores);
  const bars = [...new Set(rows.map(({ bar }) => bar))];
  const none = (sentence: string): PanelVerdict => ({
    bars: [],
    pairs: [],
    tasters: [],
    first: null,
    later: null,
    scatter: 0,
    moreTasters: null,
    apart,
    sentence,
  });
  if (bars.length < 2) return none('Fewer than two bars were scored side by side: nothing can be compared.');
  const fit = fitPanel(rows, bars);
  if (fit === null)
    return none(`${rows.length} scores of ${bars.length} bars: too few to tell the bars from the tasters.`);
  const t = studentQuantile(0.5 + LEVEL / 2, fit.dof);
  const at = (index: number): number => (index === 0 ? 0 : (fit.beta[index - 1] ?? 0));
  const cov = (i: number, j: number): number => (i === 0 || j === 0 ? 0 : (fit.cov[i - 1]?.[j - 1] ?? 0)) * fit.s2;
  const k = bars.length;
  const level = rows.reduce((sum, { score }) => sum + score, 0) / rows.length;
  const middle = bars.reduce((sum, _, i) => sum + at(i), 0) / k;
  // Variance of a bar over the mean of all: of e_i − 1/k.
  const varOver = (i: number): number => {
    const weight = (j: number): number => (i === j ? 1 : 0) - 1 / k;
    let sum = 0;
    for (let a = 0; a < k; a += 1) for (let b = 0; b < k; b += 1) sum += weight(a) * weight(b) * cov(a, b);
    return Math.max(0, sum);
  };
  const effects = bars.map((_, i) => at(i) - middle);
  const errors = bars.map((_, i) => varOver(i));
  const real = Math.max(0, sum(effects.map((x) => x * x)) / (k - 1) - sum(errors) / k);
  const standings = bars.map((bar, i): BarStanding => {
    const [effect, error] = [effects[i] ?? 0, errors[i] ?? 0];
    const half = t * Math.sqrt(error);
    return {
      bar,
      n: rows.filter((row) => row.bar === bar).length,
      mean: level + effect,
      low: level + effect - half,
      high: level + effect + half,
      expected: level + effect * (real + error > 0 ? real / (real + error) : 0),
    };
  });
  standings.sort((a, b) => b.mean - a.mean);
  const index = new Map(bars.map((bar, i) => [bar, i]));
  const pairs = standings.flatMap(({ bar: a }, rank) =>
    standings.slice(rank + 1).map(({ bar: b }): BarPair => {
      const [i, j] = [index.get(a) ?? 0, index.get(b) ?? 0];
      const difference = at(i) - at(j);
      const half = t * Math.sqrt(Math.max(0, cov(i, i) + cov(j, j) - 2 * cov(i, j)));
      return { a, b, difference, low: difference - half, high: difference + half };
    }),
  );
  const places = placesOf(rows);
  const effect = (of: (typeof places)[number]): PlaceEffect | null => {
    const at = places.indexOf(of);
    if (at < 0) return null;
    const column = k - 1 + at;
    const half = t * Math.sqrt((fit.cov[column]?.[column] ?? 0) * fit.s2);
    const value = fit.beta[column] ?? 0;
    return { value, low: value - half, high: value + half };
  };
  const tasters = new Set(rows.map(({ taster }) => taster)).size;
  const lead = pairs.find(({ a, b }) => a === standings[0]?.bar && b === standings[1]?.bar);
  return {
    bars: standings,
    pairs,
    tasters: standingOfTasters(rows, new Map(bars.map((bar, i) => [bar, level + (effects[i] ?? 0)]))),
    first: effect('first'),
    later: effect('later'),
    scatter: Math.sqrt(fit.s2),
    moreTasters: lead ? moreTasters(lead, tasters) : null,
    apart,
    sentence: words(standings, pairs, tasters),
  };
}

/** The largest set of bars that rounds hang together; whoever tasted one bar only compares nothing. */
function connected(scores: readonly PanelScore[]): { rows: PanelScore[]; apart: string[] } {
  const rounds = groupBy(scores, roundOf);
  const useful = [...rounds.values()].filter((round) => new Set(round.map(({ bar }) => bar)).size > 1);
  const parent = new Map<string, string>();
  const root = (bar: string): string => {
    let at = bar;
    while (parent.get(at) !== undefined && parent.get(at) !== at) at = parent.get(at) ?? at;
    return at;
  };
  for (const round of useful)
    for (const { bar } of round) {
      parent.set(root(bar), root(round[0]?.bar ?? bar));
    }
  const bars = [...new Set(scores.map(({ bar }) => bar))];
  const groups = [...groupBy(bars, root).values()].sort((a, b) => b.length - a.length);
  const together = new Set(groups[0]);
  return {
    rows: useful.flat().filter(({ bar }) => together.has(bar)),
    apart: bars.filter((bar) => !together.has(bar)),
  };
}

/** Tasters like these that it would still take to tell the two best apart. */
function moreTasters({ difference, low, high }: BarPair, tasters: number): number | null {
  if (low > 0 || (low > -NO_MATTER && high < NO_MATTER)) return 0;
  const half = (high - low) / 2;
  // The interval shrinks with the root of their number: until it leaves out no difference, or any that matters.
  const target = Math.max(difference, NO_MATTER - difference);
  if (target <= 0.02) return null;
  const needed = Math.ceil(tasters * (half / target) ** 2);
  return needed > 400 ? null : Math.max(1, needed - tasters);
}

function words(standings: readonly BarStanding[], pairs: readonly BarPair[], tasters: number): string {
  const [best, second] = standings;
  if (!best || !second) return '';
  const lead = pairs.find(({ a, b }) => a === best.bar && b === second.bar);
  const people = tasters === 1 ? 'One palate says so, and speaks for itself only.' : `${tasters} tasters.`;
  const by = ({ difference, low, high }: BarPair): string =>
    `${difference.toFixed(1)} points (${low.toFixed(1)} to ${high.toFixed(1)})`.replaceAll('-', '−');
  if (!lead) return '';
  if (lead.low > 0) return `${best.bar} is better than ${second.bar}, by ${by(lead)}. ${people}`;
  if (lead.low > -NO_MATTER && lead.high < NO_MATTER)
    return `${best.bar} and ${second.bar} are as good as each other: what is between them is under ${NO_MATTER} points. ${people}`;
  const worse = pairs.find(({ a, low }) => a === best.bar && low > 0);
  return `${best.bar} leads ${second.bar} by ${by(lead)}: that may be chance.${worse ? ` ${best.bar} is better than ${worse.b}, by ${by(worse)}.` : ''} ${people}`;
}
