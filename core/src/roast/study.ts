import type { Individuals } from '../stats/individuals';
import { simulateBand, weightRange, type PlanBand, type Range } from './band';
import { clean, smooth, type CleanCurve, type Curve, type SmoothCurve } from './curve';
import { deviationFrom, type Deviation } from './deviation';
import { jumpsIn, stallsIn, type Jump, type Stall } from './events';
import { airOf, expectedRoaster, expectLoad, fitRoaster, type LoggedLoad, type RoasterFit } from './fit';
import { killFigure, roastFigures, type RoastFigures } from './figures';
import { judgeRoast, type RoastJudgement } from './judge';
import { programMinutes } from './program';
import { roastBeans, weightLeft } from './model';
import type { TemperatureUnit } from '../units/temperature';
import type { RoasterKind } from '../work/roasting-words';
import type { LoadFacts, RoasterFacts } from './records';

/** Everything that a load's judgement rests on. */
export interface StudyInput {
  code: string;
  kind: RoasterKind;
  massG: number;
  /** Share of the wet weight. */
  moisture: number;
  weightLeft: number;
  /** Read by hand at the end, °C; absent or null: not. */
  endBeanC?: number | null | undefined;
  how: LoadFacts | null;
  preheatC: number | null;
  curve: Curve | null;
  past: Individuals | null;
  kill: RoasterFacts['kill'];
  /** Other logged loads of the roaster; the load itself is left out of the fit that it is held against. */
  others: readonly LoggedLoad[];
}

export interface Study {
  figures: RoastFigures | null;
  clean: CleanCurve | null;
  smooth: SmoothCurve | null;
  stalls: Stall[];
  jumps: Jump[];
  plan: PlanBand | null;
  deviation: Deviation | null;
  expectedWeight: Range | null;
  killReductions: number | null;
  fit: RoasterFit;
  judgement: RoastJudgement;
}

const ROOM_C = 20;
/** A curve has to say something before it is judged. */
const FEWEST = 12;

/**
 * One load looked at from all sides: its figures, its plan, what the model and the past expect, and what it means.
 *
 * @param unit that the maker reads
 */
export function studyRoast(input: StudyInput, unit: TemperatureUnit = 'C'): Study {
  const { code, how, curve, kill } = input;
  const fit = fitRoaster(
    input.kind,
    input.others.filter((load) => load.code !== code),
  );
  const load = { massG: input.massG, layerMm: how?.layerMm ?? null };
  const start = { beanC: how?.beanStartC ?? ROOM_C, moisture: input.moisture };
  const cleaned = curve ? clean(curve) : null;
  const heard = cleaned ? cleaned.beanC.filter((tempC) => Number.isFinite(tempC)).length : 0;
  const smoothed = cleaned && heard >= FEWEST ? smooth(cleaned) : null;
  const settings = how?.settings ?? [];
  const stalls = smoothed ? stallsIn(smoothed, settings, fit.air) : [];
  const jumps = smoothed ? jumpsIn(smoothed, settings, stalls) : [];
  const figures = smoothed ? roastFigures(smoothed) : null;
  const plan = how?.plan ? simulateBand(how.plan, load, fit, start) : null;
  const deviation = smoothed && plan ? deviationFrom(smoothed, plan.middle) : null;
  const expectedWeight = curve && smoothed ? expectWeight(input, curve, fit) : null;
  const killReductions =
    kill && smoothed
      ? killFigure(
          smoothed.seconds.map((second) => second / 60),
          smoothed.beanC,
          kill,
        )
      : null;
  const judgement = judgeRoast(
    {
      figures,
      clean: cleaned,
      stalls,
      jumps,
      deviation,
      heldOutC: fit.heldOut?.rmsC ?? null,
      weight: { left: input.weightLeft, planned: plan?.weightLeft ?? null, model: expectedWeight, past: input.past },
      signs: how?.signs ?? [],
      stirs: { wantedEveryMin: how?.plan?.stirEveryMin ?? null, done: how?.stirs.length ?? 0 },
      time: { tookS: how?.seconds ?? null, planS: how?.plan ? 60 * programMinutes(how.plan.steps) : null },
      handC: input.endBeanC ?? lastOf(cleaned),
      kill: kill && killReductions !== null ? { reductions: killReductions, values: kill } : null,
    },
    unit,
  );
  return {
    figures,
    clean: cleaned,
    smooth: smoothed,
    stalls,
    jumps,
    plan,
    deviation,
    expectedWeight,
    killReductions,
    fit,
    judgement,
  };
}

/** The last temperature that was read at all. */
const lastOf = (curve: CleanCurve | null): number | null =>
  curve ? (Array.from(curve.beanC).findLast((tempC) => Number.isFinite(tempC)) ?? null) : null;

/** Weight left that the model expects of a curve as it was, with the 80 % range of what drying does on this roaster. */
function expectWeight(input: StudyInput, curve: Curve, fit: RoasterFit): Range {
  const size = { massG: input.massG, layerMm: input.how?.layerMm ?? null };
  const minutes = curve.seconds.map((second) => second / 60);
  const logged: LoggedLoad = {
    ...size,
    code: input.code,
    moisture: input.moisture,
    beanStartC: input.how?.beanStartC ?? null,
    weightLeft: null,
    settings: input.how?.settings ?? [],
    preheatC: input.preheatC ?? 140,
    minutes,
    beanC: curve.beanC,
    airC: curve.airC,
  };
  const air = airOf(logged, fit.air);
  const { beans } = expectedRoaster(fit, size);
  const { drying } = expectLoad(fit, size);
  const left = (log: number): number => {
    const run = roastBeans(
      { ...beans, dryingPerMin: Math.exp(log) },
      { beanC: input.how?.beanStartC ?? ROOM_C, moisture: input.moisture },
      air,
      Math.max(0.1, minutes.at(-1) ?? 0),
      15,
    );
    return weightLeft(run.water.at(-1) ?? 0, input.moisture);
  };
  return weightRange({ mid: left(drying.mean), low: left(drying.high), high: left(drying.low) }, fit);
}
