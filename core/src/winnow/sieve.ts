export interface Sieve {
  coarseG: number;
  goodG: number;
  finesG: number;
  dustG: number;
}

export interface SieveVerdict {
  shares: Record<'coarse' | 'good' | 'fines' | 'dust', number>;
  /** Grams of nib a session of that size loses with the fines and dust that the air takes, and their money. */
  lostG: number;
  lostMoney: number;
  tone: 'good' | 'watch';
  sentence: string;
}

/** Of the fines about half leave with the husk at an ordinary air; dust leaves whole. */
const FINES_LOST = 0.5;

const percent = (share: number): string => `${(100 * share).toFixed(0)} %`;

/**
 * What a cracking test says: coarse pieces hold shell, fines and dust leave with it.
 *
 * @param sessionG beans that will be cracked so; @param nibPerKg price of nibs, major units
 * @returns null for an empty test
 */
export function judgeSieve(sieve: Sieve, sessionG: number, nibPerKg: number): SieveVerdict | null {
  const total = sieve.coarseG + sieve.goodG + sieve.finesG + sieve.dustG;
  if (total <= 0) return null;
  const shares = {
    coarse: sieve.coarseG / total,
    good: sieve.goodG / total,
    fines: sieve.finesG / total,
    dust: sieve.dustG / total,
  };
  const lostG = sessionG * (FINES_LOST * shares.fines + shares.dust);
  const lostMoney = (lostG / 1000) * nibPerKg;
  const text = `${percent(shares.good)} good, ${percent(shares.coarse)} coarse, ${percent(shares.fines)} fines, ${percent(shares.dust)} dust.`;
  const todo =
    shares.coarse > 0.25
      ? ' Narrow the gap or run the coarse again: whole pieces keep their shell.'
      : shares.fines + shares.dust > 0.2
        ? ' Widen the gap or feed slower: fines leave with the husk.'
        : '';
  return { shares, lostG, lostMoney, tone: todo === '' ? 'good' : 'watch', sentence: text + todo };
}
