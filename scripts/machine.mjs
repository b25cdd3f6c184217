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

/** Additions of a sum that says how quick the machine is at the moment. */
const ADDITIONS = 1e8;

function sumMs() {
  const began = performance.now();
  let sum = 0;
  for (let i = 0; i < ADDITIONS; i += 1) sum = (sum * 31 + i) | 0;
  // Said, so that nobody leaves it out.
  return sum === 0.5 ? NaN : Math.round(performance.now() - began);
}

/**
 * Watches how long something takes and what the machine does meanwhile: a virtual one shares its processors with others,
 * and what they take is in every time that is measured.
 *
 * @returns a function that says it so far, as `9 min 28 s on 2 cores, 1003 s of their time; 26 % of it went to other
 * machines; a sum that shows how quick they are took 310 ms`
 */
export function watch() {
  const began = performance.now();
  const before = counts();
  return () => {
    const seconds = Math.round((performance.now() - began) / 1000);
    const took = `${Math.floor(seconds / 60)} min ${seconds % 60} s on ${availableParallelism()} cores`;
    const after = counts();
    const quick = `a sum that shows how quick they are took ${sumMs()} ms`;
    if (!before || !after) return `${took}; ${quick}`;
    const [busy, waited, stolen] = ['busy', 'waited', 'stolen'].map((what) => after[what] - before[what]);
    const share = Math.round((100 * stolen) / Math.max(1, busy + waited + stolen));
    return `${took}, ${Math.round(busy / 100)} s of their time; ${share} % of it went to other machines; ${quick}`;
  };
}
