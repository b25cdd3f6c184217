import { availableParallelism } from 'node:os';
import { readFileSync } from 'node:fs';

/** Where Linux counts what its processors did since it began, in hundredths of a second; other systems have none. */
const COUNTS = '/proc/stat';

function counts() {
  try {
    const [user, nice, system, idle, iowait, irq, softirq, stolen] = /^cpu +(.*)/m
      .exec(readFileSync(COUNTS, 'utf8'))[1]
      .split(' ')
      .map(Number);
    return { busy: user + nice + system + irq + softirq, waited: idle + iowait, stolen };
  } catch {
    return null;
  }
}

/**
 * Watches how long something takes and what the machine does meanwhile: a virtual one shares its processors with others,
 * and what they take is in every time that is measured.
 *
 * @returns a function that says it so far, as `9 min 28 s on 2 cores, 1003 s of their time; others took 26 % of it`
 */
export function watch() {
  const began = performance.now();
  const before = counts();
  return () => {
    const seconds = Math.round((performance.now() - began) / 1000);
    const took = `${Math.floor(seconds / 60)} min ${seconds % 60} s on ${availableParallelism()} cores`;
    const after = counts();
    if (!before || !after) return took;
    const [busy, waited, stolen] = ['busy', 'waited', 'stolen'].map((what) => after[what] - before[what]);
    const share = Math.round((100 * stolen) / Math.max(1, busy + waited + stolen));
    return `${took}, ${Math.round(busy / 100)} s of their time; ${share} % of it went to other machines`;
  };
}
