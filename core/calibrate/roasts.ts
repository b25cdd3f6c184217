import { simulateBand } from '../src/roast/band';
import { fitRoaster } from '../src/roast/fit';
import { follower } from '../src/roast/model';
import { logForeign, roastForeign, someProgram, stream } from './foreign-oven';
import { someOven, type SimulatedOven } from '../src/roast/simulated-oven';

/** How programs ahead were met on ovens that the model does not know. */
export interface Met {
  loads: number;
  air: boolean;
  where: 'inside' | 'outside';
  ovens: number;
  /** Root mean square of the beans along the way and at the end, °C; of the weight, percentage points. */
  wayC: number;
  endC: number;
  weightPoints: number;
  /** Share of readings, and of ends, inside the 80 % band. */
  wayHeld: number;
  endHeld: number;
  /** Half width of the band at the end, °C. */
  halfC: number;
  /** What the page says it misses by, °C. */
  saidC: number;
}

/** @param ahead programs foretold on every oven */
export function meetPrograms(
  seeds: readonly number[],
  loads: number,
  air: boolean,
  where: Met['where'],
  ahead = 4,
): Met {
  let [squares, readings, held, ends, endHeld, half, said] = [0, 0, 0, 0, 0, 0, 0];
  let [endSquares, weightSquares] = [0, 0];
  for (const seed of seeds) {
    const oven: SimulatedOven = someOven(seed);
    const chance = stream(seed * 7919 + loads);
    const usualG = chance.between(3500, 5500);
    const logged = Array.from({ length: loads }, (_, i) =>
      logForeign(
        oven,
        {
          massG: usualG * chance.between(0.92, 1.08),
          moisture: 0.07 + 0.004 * chance.normal(),
          ...someProgram(chance),
        },
        chance.normal,
        { air, code: `T${i}` },
      ),
    );
    const fit = fitRoaster('oven', logged);
    said += fit.heldOut?.rmsC ?? NaN;
    for (let k = 0; k < ahead; k += 1) {
      const outside = where === 'outside';
      const shift = outside ? (k % 2 === 0 ? 15 : -15) : 0;
      const massG = usualG * (outside ? (k % 4 < 2 ? 1.3 : 0.7) : chance.between(0.95, 1.05));
      const load = { massG, moisture: 0.07 + 0.004 * chance.normal(), ...someProgram(chance, shift) };
      const truth = roastForeign(oven, load, chance.normal);
      const band = simulateBand(load, { massG, layerMm: null }, fit, { beanC: 20, moisture: load.moisture });
      const middle = follower({ minutes: band.middle.minutes, tempC: band.middle.beanC });
      const low = follower({ minutes: band.minutes, tempC: band.low });
      const high = follower({ minutes: band.minutes, tempC: band.high });
      truth.minutes.forEach((minute, i) => {
        if (minute < 1 || i % 3 !== 0) return;
        const c = truth.beanC[i] ?? NaN;
        squares += (middle(minute) - c) ** 2;
        held += c >= low(minute) && c <= high(minute) ? 1 : 0;
        readings += 1;
      });
      const endC = truth.beanC.at(-1) ?? NaN;
      endSquares += ((band.middle.beanC.at(-1) ?? NaN) - endC) ** 2;
      endHeld += endC >= band.endC.low && endC <= band.endC.high ? 1 : 0;
      weightSquares += (band.middle.weightLeft - truth.weightLeft) ** 2;
      half += (band.endC.high - band.endC.low) / 2;
      ends += 1;
    }
  }
  return {
    loads,
    air,
    where,
    ovens: seeds.length,
    wayC: Math.sqrt(squares / readings),
    endC: Math.sqrt(endSquares / ends),
    weightPoints: 100 * Math.sqrt(weightSquares / ends),
    wayHeld: held / readings,
    endHeld: endHeld / ends,
    halfC: half / ends,
    saidC: said / seeds.length,
  };
}
