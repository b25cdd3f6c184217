import { beansIn, GRADE_LIMITS, judgeCut, NO_BEANS, TRAY, type Tally } from '../src/beans/cut-test';
import { stream } from './foreign-oven';

/** A truth that lies on one limit or several, as near to a wrong word as can be. */
export interface CutTruth {
  name: string;
  mouldy: number;
  slaty: number;
  defective: number;
}

/** Gamma deviates for small shapes (Marsaglia & Tsang 2000). */
function gamma(shape: number, { normal, chance }: ReturnType<typeof stream>): number {
  if (shape < 1) return gamma(shape + 1, { normal, chance } as ReturnType<typeof stream>) * chance() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal();
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(chance()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/**
 * Share of cut tests in which a sure word is wrong.
 *
 * @param correlation of two beans of one tray; @param stop whether the maker stops as soon as a word is sure
 */
export function wrongWords(
  runs: number,
  truth: CutTruth,
  {
    correlation = 0,
    planned = 300,
    stop = false,
    most = planned,
  }: { correlation?: number; planned?: number; stop?: boolean; most?: number },
  seed: number,
): { wrong: number; sure: number } {
  const chance = stream(seed);
  const right =
    truth.mouldy <= GRADE_LIMITS.I.mouldy &&
    truth.slaty <= GRADE_LIMITS.I.slaty &&
    truth.defective <= GRADE_LIMITS.I.defective
      ? 'I'
      : truth.mouldy <= GRADE_LIMITS.II.mouldy &&
          truth.slaty <= GRADE_LIMITS.II.slaty &&
          truth.defective <= GRADE_LIMITS.II.defective
        ? 'II'
        : 'below';
  let [wrong, sure] = [0, 0];
  for (let run = 0; run < runs; run += 1) {
    const trays: Tally[] = [];
    const total: Tally = { ...NO_BEANS };
    const share = (mean: number): number => {
      if (correlation <= 0 || mean <= 0) return mean;
      const both = 1 / correlation - 1;
      const [a, b] = [gamma(mean * both, chance), gamma((1 - mean) * both, chance)];
      return a / (a + b);
    };
    let said: string | null = null;
    while (beansIn(total) < most && said === null) {
      const here = [share(truth.mouldy), share(truth.slaty), share(truth.defective)] as const;
      const tray: Tally = { ...NO_BEANS };
      trays.push(tray);
      for (let i = 0; i < TRAY && beansIn(total) < most && said === null; i += 1) {
        const u = chance.chance();
        const name =
          u < here[0] ? 'mouldy' : u < here[0] + here[1] ? 'slaty' : u < here[0] + here[1] + here[2] ? 'flat' : 'brown';
        tray[name] += 1;
        total[name] += 1;
        // Looking after every tenth bean is nearly looking after every one.
        if ((stop && beansIn(total) % 10 === 0) || beansIn(total) === most) {
          const verdict = judgeCut(total, planned, trays);
          if (verdict.sure) said = verdict.grade;
        }
      }
    }
    if (said !== null) sure += 1;
    if (said !== null && said !== right) wrong += 1;
  }
  return { wrong: wrong / runs, sure: sure / runs };
}
