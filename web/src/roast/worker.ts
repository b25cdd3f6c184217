import { expose } from 'comlink';
import type { CurveData, LoadView, LoggedLoadData } from '@wunsch/core/api/roast';
import { simulateBand, type PlanBand } from '@wunsch/core/roast/band';
import { judgeFill, zeroOf, type AlignBy, type FillVerdict, type LoadMeasures } from '@wunsch/core/roast/compare';
import { clean, smooth } from '@wunsch/core/roast/curve';
import { roastFigures, type RoastFigures } from '@wunsch/core/roast/figures';
import { fitRoaster, type RoasterFit } from '@wunsch/core/roast/fit';
import { lookAhead, type Ahead } from '@wunsch/core/roast/live';
import type { BeanStart } from '@wunsch/core/roast/model';
import type { LiveRoast, Program } from '@wunsch/core/roast/records';
import { studyRoast, type Study } from '@wunsch/core/roast/study';
import { steadySetting } from '@wunsch/core/roast/solve';
import type { TemperatureUnit } from '@wunsch/core/units/temperature';
import type { RoasterKind } from '@wunsch/core/work/roasting-words';
import { curveFrom, loggedFrom, studyInput } from './data';

/** The heavy arithmetic of roasting, off the page's thread. */
const roasting = {
  fit: (kind: RoasterKind, loads: readonly LoggedLoadData[]): RoasterFit => fitRoaster(kind, loads.map(loggedFrom)),

  band: (
    program: Pick<Program, 'steps' | 'preheatC'>,
    load: { massG: number; layerMm: number | null },
    fit: RoasterFit,
    start: BeanStart,
    bases: readonly number[],
  ): PlanBand => simulateBand(program, load, fit, start, bases),

  /** One steady setting for a bean temperature after so many minutes. */
  steady: (...question: Parameters<typeof steadySetting>): number | null => steadySetting(...question),

  study: (view: LoadView, kind: RoasterKind, others: readonly LoggedLoadData[], unit: TemperatureUnit): Study =>
    studyRoast(studyInput(view, kind, others), unit),

  ahead: (roast: LiveRoast, massG: number, fit: RoasterFit, curve: CurveData): Ahead | null => {
    const heard = curve.seconds.flatMap((second, i) => {
      const beanC = curve.beanC[i];
      return beanC == null ? [] : [{ second, beanC }];
    });
    const every = Math.max(1, Math.ceil(heard.length / 400));
    const some = heard.filter((_, i) => (heard.length - 1 - i) % every === 0);
    return lookAhead(
      roast,
      massG,
      fit,
      { seconds: some.map(({ second }) => second), beanC: quietEnd(some.map(({ beanC }) => beanC)) },
      curve.airC.findLast((tempC) => tempC !== null) ?? null,
    );
  },

  /** How far the loads of one fill lie apart. */
  fill: (loads: readonly LoadView[], unit: TemperatureUnit): { verdict: FillVerdict; measures: LoadMeasures[] } => {
    const measures = loads.map(({ code, weightLeft, curveData }) => {
      const figures = curveData ? roastFigures(smooth(clean(curveFrom(curveData)))) : null;
      return { code, weightLeft, endC: figures?.endC ?? null, area: figures?.areaAboveBase ?? null };
    });
    return { verdict: judgeFill(measures, unit), measures };
  },

  /** Where each of several loads has its zero, and its figures. */
  aligned: (
    loads: readonly LoadView[],
    align: AlignBy,
  ): { code: string; zeroS: number | null; figures: RoastFigures | null }[] =>
    loads.map(({ code, curveData, how }) => {
      const curve = curveData ? smooth(clean(curveFrom(curveData))) : null;
      return {
        code,
        zeroS: zeroOf({ curve, signs: how?.signs ?? [] }, align),
        figures: curve ? roastFigures(curve) : null,
      };
    }),

  /** How fast the beans climb at the end of a curve, °C/min, and since which second the probe is stuck; null if not. */
  now: (curve: CurveData): { climb: number | null; stuckS: number | null } => {
    const cleaned = clean(curveFrom(curve));
    const last = smooth(cleaned).climb.at(-1) ?? NaN;
    const stuck = cleaned.stuck.at(-1);
    return {
      climb: Number.isFinite(last) ? last : null,
      stuckS: stuck && stuck.toS === cleaned.seconds.at(-1) ? stuck.fromS : null,
    };
  },
};

/** The last reading is where the look ahead begins: a line through a few carries less noise. */
function quietEnd(values: number[]): number[] {
  const few = values.slice(-5);
  if (few.length < 5) return values;
  const mean = few.reduce((sum, value) => sum + value, 0) / 5;
  const slope = ((few[4] ?? 0) - (few[0] ?? 0)) / 4;
  return [...values.slice(0, -1), mean + 2 * slope];
}

export type Roasting = typeof roasting;

expose(roasting);
