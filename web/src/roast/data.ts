import type { CurveData, LoadView, LoggedLoadData } from '@wunsch/core/api/roast';
import type { Curve } from '@wunsch/core/roast/curve';
import type { LoggedLoad } from '@wunsch/core/roast/fit';
import type { StudyInput } from '@wunsch/core/roast/study';
import type { RoasterKind } from '@wunsch/core/work/roasting-words';

const floats = (values: readonly (number | null)[]): Float64Array => Float64Array.from(values, (value) => value ?? NaN);

/** A curve as it travelled, for arithmetic: silence is NaN again. */
export const curveFrom = ({ seconds, beanC, airC }: CurveData): Curve => ({
  seconds: Float64Array.from(seconds),
  beanC: floats(beanC),
  airC: floats(airC),
});

export function loggedFrom({ curve, at: _, ...load }: LoggedLoadData): LoggedLoad {
  const { seconds, beanC, airC } = curveFrom(curve);
  return { ...load, minutes: seconds.map((second) => second / 60), beanC, airC };
}

/** What the study of a load takes, from what the server says of it. @param others logged loads of its roaster */
export function studyInput(view: LoadView, kind: RoasterKind, others: readonly LoggedLoadData[]): StudyInput {
  return {
    code: view.code,
    kind,
    massG: view.inG,
    moisture: view.moisture,
    weightLeft: view.weightLeft,
    endBeanC: view.endC,
    how: view.how,
    preheatC: view.preheatC,
    curve: view.curveData ? curveFrom(view.curveData) : null,
    past: view.past,
    kill: view.kill,
    others: others.map(loggedFrom),
  };
}

/** Adds readings behind a curve, from a place on; what it has there already is put right. */
export function joined(curve: CurveData, from: number, more: CurveData): CurveData {
  const join = <T>(a: readonly T[], b: readonly T[]): T[] => [...a.slice(0, from), ...b];
  return {
    seconds: join(curve.seconds, more.seconds),
    beanC: join(curve.beanC, more.beanC),
    airC: join(curve.airC, more.airC),
  };
}
