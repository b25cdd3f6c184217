import { seededNormal as normals } from '../seeded';
import type { LoggedLoad } from '../../src/roast/fit';
import type { BeanParameters } from '../../src/roast/model';
import { simulateProgram, type AirParameters } from '../../src/roast/simulate';
import type { ProgramStep } from '../../src/roast/records';

export { normals };

export const step = (setC: number, minutes: number, until: ProgramStep['until'] = null): ProgramStep => ({
  setC,
  minutes,
  until,
  note: '',
});

export const FALLING: ProgramStep[] = [step(160, 6), step(145, 8), step(132, 10)];
export const AIR: AirParameters = { lagMin: 3, dipC: 25, underC: 0 };

interface Making {
  parameters: BeanParameters;
  noise?: number;
  everyS?: number;
  massG?: number;
  layerMm?: number | null;
  moisture?: number;
  steps?: ProgramStep[];
  air?: AirParameters;
  random?: () => number;
  code?: string;
}

/** A load logged by a probe with noise, from known parameters. */
export function madeLoad({
  parameters,
  noise = 0.5,
  everyS = 5,
  massG = 5000,
  layerMm = null,
  moisture = 0.07,
  steps = FALLING,
  air = AIR,
  random = normals(1),
  code = 'T001',
}: Making): LoggedLoad {
  const curve = simulateProgram({ steps, preheatC: 160 }, { air, beans: parameters }, { beanC: 20, moisture }, everyS);
  let second = 0;
  const settings = steps.map(({ setC, minutes }, index) => {
    const row = { second, setC, step: index };
    second += 60 * minutes;
    return row;
  });
  return {
    code,
    massG,
    layerMm,
    moisture,
    beanStartC: 20,
    weightLeft: curve.weightLeft + 0.001 * random(),
    settings,
    preheatC: 160,
    minutes: curve.minutes,
    beanC: curve.beanC.map((tempC) => tempC + noise * random()),
    airC: curve.airC.map((tempC) => tempC + 0.5 * random()),
  };
}
