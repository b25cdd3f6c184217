import {
  advance,
  dryBasis,
  feltC,
  lagged,
  PERFECT_PROBE,
  STEP_S,
  weightLeft,
  type BeanParameters,
  type BeanStart,
  type ProbeParameters,
} from './model';
import type { Program, ProgramStep, Setting } from './records';

const { exp, max, ceil } = Math;

/** How the air of a roaster follows its setting. */
export interface AirParameters {
  /** Minutes in which it comes two thirds of the way to a new setting. */
  lagMin: number;
  /** How far it falls when the door is opened and the load goes in, °C. */
  dipC: number;
  /** How far under its setting it comes to rest, °C. */
  underC: number;
}

/** A roaster with a load in it: its air, its beans, and the probe among them. */
export interface Roaster {
  air: AirParameters;
  beans: BeanParameters;
  probe?: ProbeParameters;
}

export interface PlanCurve {
  minutes: Float64Array;
  setC: Float64Array;
  airC: Float64Array;
  /** As the probe says it. */
  beanC: Float64Array;
  /** g per g dry. */
  water: Float64Array;
  /** When each step began, minutes. */
  begins: number[];
  /** How each step ended: after its minutes, or sooner by the beans' temperature. */
  ends: ('minutes' | 'bean')[];
  totalMin: number;
  weightLeft: number;
}

/** Air after `minutes` at one setting: Newton's law, towards where the air comes to rest. */
export const airAfter = (fromC: number, setC: number, minutes: number, { lagMin, underC }: AirParameters): number =>
  setC - underC + (fromC - setC + underC) * exp(-minutes / max(1e-6, lagMin));

/** Air as the load goes in. */
export const airAtStart = (preheatC: number, { dipC, underC }: AirParameters): number => preheatC - underC - dipC;

/**
 * Air at every moment, from the settings as they were made.
 *
 * @param settings set temperatures since their second, the first at 0; @param minutes rising from 0
 */
export function airFromSettings(
  settings: readonly Setting[],
  preheatC: number,
  air: AirParameters,
  minutes: ArrayLike<number>,
): Float64Array {
  const line = new Float64Array(minutes.length);
  let current = airAtStart(preheatC, air);
  let at = 0;
  let index = -1;
  let setC = settings[0]?.setC ?? preheatC;
  for (let i = 0; i < minutes.length; i += 1) {
    const until = minutes[i] ?? 0;
    while (index + 1 < settings.length && (settings[index + 1]?.second ?? 0) / 60 <= until + 1e-9) {
      index += 1;
      const change = (settings[index]?.second ?? 0) / 60;
      current = airAfter(current, setC, max(0, change - at), air);
      at = max(at, change);
      setC = settings[index]?.setC ?? setC;
    }
    current = airAfter(current, setC, max(0, until - at), air);
    at = max(at, until);
    line[i] = current;
  }
  return line;
}

/**
 * A program run through the bean model: beans, air, water, and what is weighed out.
 *
 * A step ends after its minutes, or sooner when its bean temperature is reached; a step until a sign lasts its minutes.
 *
 * @param stepS seconds between steps of the integration
 */
export function simulateProgram(
  { steps, preheatC }: { steps: readonly ProgramStep[]; preheatC: Program['preheatC'] },
  { air, beans, probe = PERFECT_PROBE }: Roaster,
  start: BeanStart,
  stepS = STEP_S,
): PlanCurve {
  const rows: { minute: number; setC: number; airC: number; beanC: number; water: number }[] = [];
  const begins: number[] = [];
  const ends: PlanCurve['ends'] = [];
  let [minute, airC, beanC, water] = [0, airAtStart(preheatC, air), start.beanC, dryBasis(start.moisture)];
  let [felt, readC] = [beanC, beanC];
  for (const { setC, minutes, until } of steps) {
    begins.push(minute);
    const n = max(1, ceil((minutes * 60) / stepS - 1e-9));
    const h = minutes / n;
    const [beganAt, beganC] = [minute, airC];
    const airAt = (at: number): number => airAfter(beganC, setC, at - beganAt, air);
    let end: PlanCurve['ends'][number] = 'minutes';
    for (let i = 0; i < n; i += 1) {
      rows.push({ minute, setC, airC, beanC: readC, water });
      if (until?.what === 'bean' && readC >= until.beanC) {
        end = 'bean';
        rows.pop();
        break;
      }
      [beanC, water] = advance(beanC, water, minute, h, airAt, beans);
      minute += h;
      airC = airAt(minute);
      const next = feltC(beanC, airC, probe);
      readC = lagged(readC, felt, next, h, probe.lagMin);
      felt = next;
    }
    ends.push(end);
  }
  rows.push({ minute, setC: steps.at(-1)?.setC ?? preheatC, airC, beanC: readC, water });
  const column = (name: keyof (typeof rows)[number]): Float64Array => {
    const line = new Float64Array(rows.length);
    rows.forEach((row, i) => (line[i] = row[name]));
    return line;
  };
  return {
    minutes: column('minute'),
    setC: column('setC'),
    airC: column('airC'),
    beanC: column('beanC'),
    water: column('water'),
    begins,
    ends,
    totalMin: minute,
    weightLeft: weightLeft(water, start.moisture),
  };
}
