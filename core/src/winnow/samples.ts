import { percent } from '../ledger/yields';
import { studentQuantile } from '../stats/distributions';
import { meanInterval, projectMean, type Interval, type MeanInterval } from '../stats/intervals';
import { formatMass, type MassSystem } from '../units/mass';

/** Most shell in nibs, by weight: the usual reference (21 CFR 163.110; Codex CXS 141); the local code decides. */
export const SHELL_CEILING = 0.0175;

export interface PickedSample {
  sampleG: number;
  foundG: number;
}

/**
 * Share found over the samples of one session: all that was found over all that was picked, so that a large sample
 * counts for what it weighs; with the 95 % t-interval of a ratio (Cochran, Sampling Techniques, ch. 6), clipped to 0…1.
 *
 * @returns null without samples
 */
export function sampleShare(samples: readonly PickedSample[]): MeanInterval | null {
  const rows = samples.filter(({ sampleG }) => sampleG > 0);
  const each = meanInterval(rows.map(({ sampleG, foundG }) => foundG / sampleG));
  if (!each) return null;
  const grams = rows.reduce((sum, { sampleG }) => sum + sampleG, 0);
  const mean = rows.reduce((sum, { foundG }) => sum + foundG, 0) / grams;
  const { n, min, max } = each;
  if (n === 1) return { ...each, mean, low: 0, high: 1 };
  const squares = rows.reduce((sum, { sampleG, foundG }) => sum + (foundG - mean * sampleG) ** 2, 0);
  const error = Math.sqrt((n * squares) / (n - 1)) / grams;
  const half = studentQuantile(0.975, n - 1) * error;
  return { n, mean, sd: each.sd, min, max, low: Math.max(0, mean - half), high: Math.min(1, mean + half) };
}

export interface SecondPass {
  /** Nib that running the husk again would bring, g. */
  recoverG: Interval & { mean: number };
  /** What it is worth less what the minutes cost, in major units. */
  net: Interval & { mean: number };
  worth: number;
  cost: number;
  minutes: number;
  verdict: 'run it' | 'leave it' | 'not sure';
  sentence: string;
}

export interface PassFacts {
  huskG: number;
  /** Nib in the husk, from samples. */
  nibInHusk: Pick<MeanInterval, 'mean' | 'low' | 'high' | 'n'>;
  /** Share of that nib which another pass brings, 0 to 1. */
  efficiency: number;
  /** What a kilogram of nibs is worth, and an hour of hands costs, in major units. */
  nibPerKg: number;
  wagePerHour: number;
  minutes: number;
  /** In which its sentence says what comes of it; left out, grams. */
  massSystem?: MassSystem;
}

/** Whether running the husk again pays: husk × share of nib × efficiency × price, against the minutes. */
export function secondPass({
  huskG,
  nibInHusk,
  efficiency,
  nibPerKg,
  wagePerHour,
  minutes,
  massSystem = 'metric',
}: PassFacts): SecondPass {
  const grams = (share: number): number => huskG * share * efficiency;
  const cost = (minutes / 60) * wagePerHour;
  const net = (share: number): number => (grams(share) / 1000) * nibPerKg - cost;
  const result = {
    recoverG: { mean: grams(nibInHusk.mean), low: grams(nibInHusk.low), high: grams(nibInHusk.high) },
    net: { mean: net(nibInHusk.mean), low: net(nibInHusk.low), high: net(nibInHusk.high) },
    worth: (grams(nibInHusk.mean) / 1000) * nibPerKg,
    cost,
    minutes,
  };
  const verdict = result.net.low > 0 ? 'run it' : result.net.high < 0 ? 'leave it' : 'not sure';
  const recovered = formatMass(Math.round(1000 * result.recoverG.mean), massSystem);
  const about = `About ${recovered} of nib for ${minutes.toFixed(0)} minutes`;
  return {
    ...result,
    verdict,
    sentence:
      verdict === 'run it'
        ? `Run the husk again: ${about.toLowerCase()}, and it pays even at the low end.`
        : verdict === 'leave it'
          ? `Leave the husk: ${about.toLowerCase()} does not pay, even at the high end.`
          : `${about}: ${result.net.mean >= 0 ? 'it may pay' : 'it may not pay'}, but ${nibInHusk.n < 2 ? 'one sample says little' : 'the samples differ too much to say'}. Pick another sample of husk.`,
  };
}

export interface AirAdvice {
  tone: 'good' | 'watch' | 'unknown';
  turn: 'up' | 'down' | 'crack' | 'leave' | null;
  sentence: string;
  evidence: string;
  sure: boolean;
}

/**
 * Which way to turn the air, from what is left in nibs and husk.
 *
 * @param shell shell in nibs; @param nib nib in husk; @param past shares of earlier sessions of the same family
 */
export function airAdvice(
  shell: MeanInterval | null,
  nib: MeanInterval | null,
  past: { shell: readonly number[]; nib: readonly number[] },
): AirAdvice {
  if (!shell && !nib)
    return {
      tone: 'unknown',
      turn: null,
      sentence: 'Pick a sample of nibs and one of husk before the next fill.',
      evidence: 'Without them the yield alone cannot tell shell left in from nib thrown out.',
      sure: false,
    };
  const usualShell = projectMean(past.shell, 1, 0.9);
  const usualNib = projectMean(past.nib, 1, 0.9);
  const shellLimit = Math.min(SHELL_CEILING, usualShell ? Math.max(0, usualShell.high) : SHELL_CEILING);
  const shellHigh = shell !== null && shell.mean > shellLimit;
  const nibHigh = nib !== null && usualNib !== null && nib.mean > usualNib.high;
  const evidence = [
    shell
      ? `Shell in nibs ${percent(shell.mean)}${shell.n > 1 ? ` (${percent(shell.low)} to ${percent(shell.high)})` : ', one sample'}; reference at most ${percent(SHELL_CEILING)}${usualShell ? `, here usually up to ${percent(Math.max(0, usualShell.high))}` : ''}.`
      : '',
    nib
      ? `Nib in husk ${percent(nib.mean)}${nib.n > 1 ? ` (${percent(nib.low)} to ${percent(nib.high)})` : ', one sample'}${usualNib ? `; here usually up to ${percent(usualNib.high)}` : '; no past of your own to compare with yet'}.`
      : '',
  ]
    .filter((text) => text !== '')
    .join(' ');
  const sure = (!shellHigh || shell.low > shellLimit) && (!nibHigh || nib.low > usualNib.high);
  const say = (turn: AirAdvice['turn'], sentence: string): AirAdvice => ({
    tone: turn === 'leave' ? 'good' : 'watch',
    turn,
    sentence,
    evidence,
    sure,
  });
  if (shellHigh && nibHigh)
    return say(
      'crack',
      'Shell in the nibs and nib in the husk: air mends neither. Crack more evenly, narrower or slower, and sieve before the air.',
    );
  if (shellHigh) return say('up', 'Turn the air up a little, or feed slower: shell stays in the nibs.');
  if (nibHigh) return say('down', 'Turn the air down a little: nib leaves with the husk.');
  return { ...say('leave', 'Leave the air as it is.'), sure: shell !== null && shell.high <= shellLimit };
}
