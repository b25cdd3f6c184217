import { forecastGrind } from '../../src/grind/forecast';
import { priorFrom } from '../../src/grind/prior';
import { foreignGrind, foreignPast, lookTimes, stonesOf, TARGET } from './foreign';

const GRINDS = Number(process.env['GRINDS'] ?? 120);

function coverage(
  readings: number,
  past: number,
): { inside: number; of: number; below: number; width: number; off: number } {
  let [inside, of, below, width, off] = [0, 0, 0, 0, 0];
  for (let n = 0; of < GRINDS && n < 4 * GRINDS; n += 1) {
    const stones = stonesOf(1000 + 17 * (past === 30 ? Math.floor(n / 8) : n));
    const learned = past === 0 ? [] : pastOf(1000 + 17 * (past === 30 ? Math.floor(n / 8) : n), past);
    const one = foreignGrind(stones, past, 500_000 + n);
    if (!Number.isFinite(one.outcomeH)) continue;
    const times = lookTimes(readings, one.outcomeH, n).filter((time) => time < one.outcomeH);
    if (times.length < readings) continue;
    const forecast = forecastGrind({
      populations: one.populations,
      readings: one.read(times),
      targetMicron: TARGET,
      prior: priorFrom(learned, one.grind.massG, 'a'),
      nowH: times.at(-1) ?? 0,
    });
    of += 1;
    if (one.outcomeH >= forecast.p10 && one.outcomeH <= forecast.p90) inside += 1;
    if (one.outcomeH < forecast.p10) below += 1;
    width += Math.min(forecast.p90, 400) - forecast.p10;
    off += (forecast.p50 - one.outcomeH) / one.outcomeH;
  }
  return { inside, of, below, width: width / of, off: off / of };
}
const known = new Map<string, ReturnType<typeof foreignPast>>();
function pastOf(seed: number, count: number) {
  const key = `${seed}.${count}`;
  const found = known.get(key) ?? foreignPast(stonesOf(seed), count, seed * 7);
  known.set(key, found);
  return found;
}

test.each([
  [2, 0],
  [3, 0],
  [5, 0],
  [2, 3],
  [3, 3],
  [5, 3],
  [2, 30],
  [3, 30],
  [5, 30],
])('%d readings, %d past grinds', (readings, past) => {
  const found = coverage(readings, past);
  process.stderr.write(
    `${readings} ${past}: ${((100 * found.inside) / found.of).toFixed(1)} % of ${found.of}; below ${((100 * found.below) / found.of).toFixed(1)}; width ${found.width.toFixed(1)} h; off ${(100 * found.off).toFixed(1)} %\n`,
  );
});
