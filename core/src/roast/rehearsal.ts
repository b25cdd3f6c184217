import {
  advanceIn,
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
import type { Setting } from './records';
import { airFromSettings, type AirParameters, type Roaster } from './simulate';

const { max, ceil } = Math;

/** A fit tries its figures one at a time: so many tries ago was the one that the next differs from in one figure. */
const KEPT = 8;

/** What came of some figures, for the last few of them. */
class Recent<V> {
  private readonly rows: { of: readonly number[]; value: V }[] = [];

  get(of: readonly number[], make: () => V): V {
    const known = this.rows.find((row) => row.of.every((figure, i) => figure === of[i]));
    if (known) return known.value;
    const value = make();
    if (this.rows.length === KEPT) this.rows.shift();
    this.rows.push({ of, value });
    return value;
  }
}

interface Beans {
  beanC: Float64Array;
  /** g per g dry, at the end. */
  water: number;
}

/**
 * One load roasted by arithmetic through its settings as they were made, over and over by roasters of other figures. Air
 * moves beans, and both move the probe, never the other way round: what a figure does not move is not worked out again.
 *
 * @example
 * const rehearsal = new Rehearsal(settings, 180, { beanC: 20, moisture: 0.07 }, 18);
 * rehearsal.run(roaster).weightLeft; // 0.942
 */
export class Rehearsal {
  /** Of each step, from 0. */
  readonly minutes: Float64Array;
  private readonly halves: Float64Array;
  private readonly step: number;
  private readonly airs = new Recent<Float64Array>();
  private readonly beans = new Recent<Beans>();
  private readonly airReads = new Recent<Float64Array>();

  /**
   * @param settings set temperatures since their second, the first at 0
   * @param untilMin how long, minutes; reached exactly
   * @param stepS seconds between steps of the integration
   * @param airMinutes when the air was read; rising from 0
   */
  constructor(
    private readonly settings: readonly Setting[],
    private readonly preheatC: number,
    private readonly start: BeanStart,
    untilMin: number,
    stepS = STEP_S,
    private readonly airMinutes: readonly number[] = [],
  ) {
    const n = max(1, ceil((untilMin * 60) / stepS - 1e-9));
    this.step = untilMin / n;
    this.minutes = Float64Array.from({ length: n + 1 }, (_, i) => i * this.step);
    // Air at whole and half steps, as the integration asks for it.
    this.halves = Float64Array.from({ length: 2 * n + 1 }, (_, i) => (i * this.step) / 2);
  }

  /** @returns what the probe says at each of `minutes`, the air where it was read (both °C), weight out over weight in */
  run({ air, beans, probe = PERFECT_PROBE }: Roaster): {
    readC: Float64Array;
    airC: Float64Array;
    weightLeft: number;
  } {
    const ofAir = [air.lagMin, air.dipC, air.underC];
    const line = this.airs.get(ofAir, () => this.air(air, this.halves));
    const { beanC, water } = this.beans.get([...ofAir, beans.warmingPerMin, beans.dryingPerMin, beans.fade ?? 0], () =>
      this.roast(line, beans),
    );
    return {
      readC: this.read(beanC, line, probe),
      airC: this.airReads.get(ofAir, () => this.air(air, this.airMinutes)),
      weightLeft: weightLeft(water, this.start.moisture),
    };
  }

  private air(air: AirParameters, minutes: ArrayLike<number>): Float64Array {
    return airFromSettings(this.settings, this.preheatC, air, minutes);
  }

  private roast(line: Float64Array, parameters: BeanParameters): Beans {
    const beanC = new Float64Array(this.minutes.length);
    const state = new Float64Array(2);
    let water = dryBasis(this.start.moisture);
    beanC[0] = this.start.beanC;
    for (let i = 1; i < beanC.length; i += 1) {
      const [a0, a1, a2] = [line[2 * i - 2] ?? 0, line[2 * i - 1] ?? 0, line[2 * i] ?? 0];
      advanceIn(state, beanC[i - 1] ?? 0, water, this.step, a0, a1, a2, parameters);
      beanC[i] = state[0] ?? NaN;
      water = state[1] ?? NaN;
    }
    return { beanC, water };
  }

  private read(beanC: Float64Array, line: Float64Array, probe: ProbeParameters): Float64Array {
    const readC = new Float64Array(beanC.length);
    let felt = beanC[0] ?? NaN;
    readC[0] = felt;
    for (let i = 1; i < readC.length; i += 1) {
      const next = feltC(beanC[i] ?? NaN, line[2 * i] ?? 0, probe);
      readC[i] = lagged(readC[i - 1] ?? NaN, felt, next, this.step, probe.lagMin);
      felt = next;
    }
    return readC;
  }
}
