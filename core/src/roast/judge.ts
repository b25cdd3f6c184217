import { forNext, type Individuals } from '../stats/individuals';
import type { Range } from './band';
import type { CleanCurve } from './curve';
import type { Deviation } from './deviation';
import type { Jump, Stall } from './events';
import type { RoastFigures } from './figures';
import type { RoasterFacts, SignMark } from './records';
import { degreesTo, fixedTemperature, formatDegrees, type TemperatureUnit } from '../units/temperature';
import { clock } from './words';

export interface RoastEvidence {
  /** Null where no bean temperature was logged. */
  figures: RoastFigures | null;
  clean: CleanCurve | null;
  stalls: readonly Stall[];
  jumps: readonly Jump[];
  deviation: Deviation | null;
  /** How far the fit misses loads it has not seen, °C; null with too few. */
  heldOutC: number | null;
  /** Weight out over weight in, with what the model expects of the plan and of this very curve, and the own past. */
  weight: { left: number; planned: Range | null; model: Range | null; past: Individuals | null };
  signs: readonly SignMark[];
  stirs: { wantedEveryMin: number | null; done: number };
  /** Seconds in the roaster, and as planned; null where nobody said. */
  time: { tookS: number | null; planS: number | null };
  /** What a thermometer in the hand said at the end, °C; null where none was held in. */
  handC: number | null;
  /** Decimal reductions, and what the plan asks for; null without validated values. */
  kill: { reductions: number; values: NonNullable<RoasterFacts['kill']> } | null;
}

export interface RoastJudgement {
  tone: 'good' | 'watch' | 'unknown';
  headline: string;
  /** One paragraph. */
  why: string[];
  todo: string | null;
}

type Lean = 'more' | 'less' | 'as planned';

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
/** Nobody turns a dial finer than this. */
const LEAST_C = 3;
const LEAST_WEIGHT = 0.006;

/** Whether the beans were roasted more or less than planned, by their temperature. */
function byTemperature({ deviation, heldOutC }: RoastEvidence): Lean | null {
  if (deviation === null) return null;
  const allowed = Math.max(LEAST_C, 2 * (heldOutC ?? LEAST_C));
  const byC = Math.abs(deviation.endByC) > Math.abs(deviation.meanC) ? deviation.endByC : deviation.meanC;
  return byC > allowed ? 'more' : byC < -allowed ? 'less' : 'as planned';
}

/** The same by what left with the water. */
function byWeight({ weight: { left, planned, model, past: all } }: RoastEvidence): Lean | null {
  const past = all && forNext(all);
  // The curve's own expectation would call a load that was too hot from end to end as planned.
  const expected = planned ?? model;
  const limits =
    past !== null && past.n >= 6
      ? { low: Math.min(past.lower, past.mean - LEAST_WEIGHT), high: Math.max(past.upper, past.mean + LEAST_WEIGHT) }
      : expected !== null
        ? {
            low: Math.min(expected.low, expected.mid - LEAST_WEIGHT),
            high: Math.max(expected.high, expected.mid + LEAST_WEIGHT),
          }
        : null;
  if (limits === null) return null;
  return left < limits.low ? 'more' : left > limits.high ? 'less' : 'as planned';
}

/** A load in for this much less or more than planned was another roast: a share of the plan, at least a minute. */
const TIME_SHARE = 0.2;
const LEAST_TIME_S = 60;
/** Under half of its time, or over double, no other sign outweighs it. */
const FAR = 2;

type Late = 'shorter' | 'longer';

/** Whether it was in as long as planned. */
function byTime({ time: { tookS, planS } }: RoastEvidence): { lean: Late | 'as planned'; far: boolean } | null {
  if (tookS === null || planS === null || !(planS > 0)) return null;
  const off = tookS - planS;
  if (Math.abs(off) <= Math.max(LEAST_TIME_S, TIME_SHARE * planS)) return { lean: 'as planned', far: false };
  return { lean: off < 0 ? 'shorter' : 'longer', far: tookS * FAR < planS || tookS > planS * FAR };
}

const TIME_TODO: Record<Late, string> = {
  shorter:
    'Check the clock of the entry. If it is right: break some beans; pale or raw in the middle goes back in. Until then it is no kill step.',
  longer: 'Check the clock of the entry. If it is right: taste a few nibs before they join the others.',
};

const HEADLINES: Record<string, string> = {
  'more more': 'Roasted further than planned.',
  'more as planned': 'Warmer than planned, but the weight is as usual.',
  'more less': 'Warm on the probe, heavy on the scale: the probe and the weight do not agree.',
  'less less': 'Under-roasted against the plan.',
  'less as planned': 'Cooler than planned, but the weight is as usual.',
  'less more': 'Cool on the probe, light on the scale: the probe and the weight do not agree.',
  'as planned more': 'On the line, but it lost more weight than it should.',
  'as planned less': 'On the line, but it lost less weight than it should.',
  'as planned as planned': 'As planned.',
};

const TODO: Record<string, string> = {
  'more more': 'Taste a few nibs before they join the others; bitter or ashy ones stay apart.',
  'more as planned': 'Look at where the probe sits, and taste before it joins the others.',
  'less less': 'Break some beans: pale or raw in the middle goes back in. Until then it is no kill step.',
  'less as planned': 'Look at where the probe sits; break some beans before it joins the others.',
  'as planned more': 'Look for burnt beans at the edges; weigh again, tare off.',
  'as planned less': 'Weigh again, tare off; the beans may have been drier going in. Break some of them.',
  'more less': 'Weigh again, and read the probe in ice water and in boiling water.',
  'less more': 'Weigh again, and read the probe in ice water and in boiling water.',
};

/** What a roast means: a headline, its reasons, what to do. @param unit that the maker reads */
export function judgeRoast(evidence: RoastEvidence, unit: TemperatureUnit = 'C'): RoastJudgement {
  const [temperature, weight] = [byTemperature(evidence), byWeight(evidence)];
  const key = `${temperature ?? 'as planned'} ${weight ?? 'as planned'}`;
  const time = byTime(evidence);
  const late = time && time.lean !== 'as planned' ? time.lean : null;
  const known = temperature !== null || weight !== null || time !== null;
  const trouble = evidence.stalls.length + evidence.jumps.length > 0;
  const broken = (evidence.clean?.gaps.length ?? 0) + (evidence.clean?.stuck.length ?? 0) > 0;
  const off = key !== 'as planned as planned';
  const clocks = `${clock(evidence.time.tookS ?? 0)} in the roaster, ${clock(evidence.time.planS ?? 0)} planned`;
  const headline = !known
    ? 'Nothing to hold it against yet.'
    : late && (time?.far || (temperature === null && !off))
      ? `${time?.far ? `Much ${late}` : late === 'shorter' ? 'Shorter' : 'Longer'} than planned: ${clocks}.`
      : off
        ? (HEADLINES[key] ?? '')
        : trouble
          ? 'As planned in the end, but not all the way.'
          : late
            ? `On the line and on the scale, but ${late} than planned: ${clocks}.`
            : (HEADLINES[key] ?? '');
  const todo =
    late && (time?.far || !off)
      ? TIME_TODO[late]
      : off
        ? (TODO[key] ?? null)
        : trouble
          ? 'Look at the door, the element or flame, and how the load lay.'
          : broken
            ? 'Look at the probe’s lead and plug before the next load.'
            : null;
  return {
    tone: !known ? 'unknown' : off || trouble || late ? 'watch' : 'good',
    headline,
    why: [
      ...temperatureWords(evidence, unit),
      ...timeWords(evidence),
      ...weightWords(evidence),
      ...eventWords(evidence, unit),
      ...probeWords(evidence),
      ...killWords(evidence),
    ],
    todo,
  };
}

function timeWords({ time: { tookS, planS }, deviation }: RoastEvidence): string[] {
  // Along a curve the time stands with it.
  if (tookS === null || (deviation !== null && planS !== null)) return [];
  return [`It was in for ${clock(tookS)}${planS === null ? '' : `, ${clock(planS)} were planned`}.`];
}

function temperatureWords({ figures, deviation, handC }: RoastEvidence, unit: TemperatureUnit): string[] {
  if (figures === null)
    return [
      handC === null
        ? 'No bean temperature was logged, so only times, signs and weights speak.'
        : `The beans had ${fixedTemperature(handC, unit)} at the end, read by hand; no curve was logged, so the way there is not known.`,
    ];
  const words: string[] = [];
  if (figures.peak !== null)
    words.push(
      `The beans came to ${fixedTemperature(figures.peak.tempC, unit)} at ${clock(figures.peak.second)} and were ${figures.minutesAboveBase.toFixed(1)} min above ${fixedTemperature(figures.baseC, unit, 0)} (${Math.round(degreesTo(figures.areaAboveBase, unit))} °${unit}·min).`,
    );
  if (deviation !== null) {
    const side = deviation.meanC >= 0 ? 'over' : 'under';
    const time =
      Math.abs(deviation.minutes) < 0.5
        ? ''
        : `, and ${Math.abs(deviation.minutes).toFixed(1)} min ${deviation.minutes > 0 ? 'longer' : 'shorter'} in`;
    words.push(
      `Against the plan they ran ${formatDegrees(deviation.meanC, unit)} ${side} it on the mean, at most ${formatDegrees(deviation.most.byC, unit)} ${deviation.most.byC >= 0 ? 'over' : 'under'} at ${clock(deviation.most.second)}${time}.`,
    );
  }
  return words;
}

function weightWords({ weight: { left, model, past } }: RoastEvidence): string[] {
  const words = [`It lost ${percent(1 - left)} of its weight.`];
  if (model !== null)
    words.push(`The model expects ${percent(1 - model.high)} to ${percent(1 - model.low)} from that curve.`);
  if (past !== null && past.n >= 2)
    words.push(
      `Earlier loads like it lost ${percent(1 - past.mean)} on the mean of ${past.n}${past.n >= 6 ? ` (limits ${percent(1 - past.upper)} to ${percent(1 - past.lower)})` : ''}.`,
    );
  return words;
}

function eventWords({ stalls, jumps, signs, stirs, figures }: RoastEvidence, unit: TemperatureUnit): string[] {
  const words = [
    ...stalls.map(
      ({ fromS, toS, warmerC }) =>
        `From ${clock(fromS)} to ${clock(toS)} they stood still though it was ${formatDegrees(warmerC, unit, 0)} warmer around them.`,
    ),
    ...jumps.map(
      ({ fromS, perMin, beforePerMin }) =>
        `At ${clock(fromS)} the climb jumped from ${degreesTo(beforePerMin, unit).toFixed(1)} to ${formatDegrees(perMin, unit)} a minute, and nobody had raised the heat.`,
    ),
  ];
  if (signs.length > 0)
    words.push(`Noticed: ${signs.map(({ what, second }) => `${what} at ${clock(second)}`).join(', ')}.`);
  if (stirs.wantedEveryMin !== null && figures !== null) {
    const wanted = Math.max(0, Math.ceil(figures.minutes / stirs.wantedEveryMin) - 1);
    if (stirs.done < wanted) words.push(`It was stirred ${times(stirs.done)}, the plan asks for ${wanted}.`);
  }
  return words;
}

const times = (n: number): string => (n === 0 ? 'not once' : n === 1 ? 'once' : `${n} times`);

function probeWords({ clean }: RoastEvidence): string[] {
  if (clean === null) return [];
  const words: string[] = [];
  const lost = clean.gaps.reduce((sum, { fromS, toS }) => sum + toS - fromS, 0);
  if (lost > 0) words.push(`Nothing was read for ${clock(lost)} in all: the figures leave that out.`);
  for (const { fromS, toS } of clean.stuck)
    words.push(`The probe said the same from ${clock(fromS)} to ${clock(toS)}: it was stuck.`);
  if (clean.slips.length > 0)
    words.push(
      `${clean.slips.length === 1 ? 'One reading was' : `${clean.slips.length} readings were`} left out that no bean can do.`,
    );
  return words;
}

function killWords({ kill }: RoastEvidence): string[] {
  if (kill === null) return [];
  const { wanted, source } = kill.values;
  const against =
    wanted === null
      ? ''
      : kill.reductions >= wanted
        ? `, at least the ${wanted} your plan asks for`
        : `, under the ${wanted} your plan asks for`;
  return [
    `By your own validation (${source}) the probe’s curve stands for ${kill.reductions.toFixed(1)} decimal reductions${against}. That is a figure for where the probe sat; your food-safety plan decides.`,
  ];
}
