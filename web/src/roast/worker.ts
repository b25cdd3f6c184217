import { expose } from 'comlink';
import type { CurveData, LoadView, LoggedLoadData } from '@wunsch/core/api/roast';
import { simulateBand, type PlanBand } from '@wunsch/core/roast/band';
import { clean, smooth, type SmoothCurve } from '@wunsch/core/roast/curve';
import { roastFigures, type RoastFigures } from '@wunsch/core/roast/figures';
import { fitRoaster, type RoasterFit } from '@wunsch/core/roast/fit';
import { lookAhead, type Ahead } from '@wunsch/core/roast/live';
import type { BeanStart } from '@wunsch/core/roast/model';
import type { LiveRoast, Program } from '@wunsch/core/roast/records';
import { studyRoast, type Study } from '@wunsch/core/roast/study';
import type { RoasterKind } from '@wunsch/core/workshop/roasting-words';
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

  study: (view: LoadView, kind: RoasterKind, others: readonly LoggedLoadData[]): Study =>
    studyRoast(studyInput(view, kind, others)),

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

  smooth: (curve: CurveData): { smooth: SmoothCurve; figures: RoastFigures } => {
    const smoothed = smooth(clean(curveFrom(curve)));
    return { smooth: smoothed, figures: roastFigures(smoothed) };
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
