import { findChange } from '../src/stats/change-point';
import { stream } from './foreign-oven';

export interface Noise {
  correlation: number;
  /** Degrees of freedom of the tails; Infinity is normal. */
  tails: number;
}

/** A stretch of noise of unit variance with correlated neighbours and heavy tails. */
export function noiseOf(n: number, { correlation, tails }: Noise, { normal }: ReturnType<typeof stream>): number[] {
  const shock = (): number => {
    if (!Number.isFinite(tails)) return normal();
    let chi = 0;
    for (let i = 0; i < tails; i += 1) chi += normal() ** 2;
    return (normal() / Math.sqrt(chi / tails)) * Math.sqrt((tails - 2) / tails);
  };
  let last = shock();
  return Array.from({ length: n }, (_, i) => {
    if (i > 0) last = correlation * last + Math.sqrt(1 - correlation ** 2) * shock();
    return last;
  });
}

/** Share of unchanged series that are called changed, and clearly so. */
export function falseAlarms(
  runs: number,
  n: number,
  noise: Noise,
  seed: number,
  clear: number,
): { any: number; clear: number } {
  const chance = stream(seed);
  let [any, clearly] = [0, 0];
  for (let run = 0; run < runs; run += 1) {
    const found = findChange(noiseOf(n, noise, chance));
    if (!found) continue;
    any += 1;
    if (found.evidence >= clear) clearly += 1;
  }
  return { any: any / runs, clear: clearly / runs };
}

export type Story = 'step' | 'drift' | 'drift that rests' | 'two changes';

/** How often a change is found, and how often its 95 % interval holds the beginning. */
export function heldBeginnings(
  runs: number,
  n: number,
  story: Story,
  noise: Noise,
  seed: number,
): { found: number; held: number } {
  const chance = stream(seed);
  let [found, held] = [0, 0];
  for (let run = 0; run < runs; run += 1) {
    const at = Math.floor(
      chance.between(0.2, story === 'two changes' || story === 'drift that rests' ? 0.5 : 0.75) * n,
    );
    const second = at + Math.floor(chance.between(0.15, 0.35) * n);
    const size = chance.between(2.5, 4.5) * (chance.chance() < 0.5 ? -1 : 1);
    const size2 = chance.between(-3.5, 3.5);
    const shape = (i: number): number => {
      if (i < at) return 0;
      if (story === 'step') return size;
      if (story === 'drift') return (size * (i - at + 1)) / (n - at);
      if (story === 'drift that rests') return size * Math.min(1, (i - at + 1) / (second - at));
      return size + (i >= second ? size2 : 0);
    };
    const change = findChange(noiseOf(n, noise, chance).map((v, i) => v + shape(i)));
    if (!change) continue;
    found += 1;
    if (at >= change.low && at <= change.high) held += 1;
  }
  return { found: found / runs, held: held / Math.max(1, found) };
}
