import type { FaultId } from './judge';

/** A pour as it counts: at which bench, and what went wrong first; null: nothing did. */
export interface CountedPour {
  bench: string;
  first: FaultId | null;
}

export interface BenchFaults {
  bench: string;
  pours: number;
  good: number;
  /** Those that happened, the most frequent first. */
  faults: { id: FaultId; times: number }[];
}

/** Short words of what goes wrong first. */
export const FAULT_WORDS: Readonly<Record<FaultId, string>> = {
  'not-melted': 'not melted out',
  'not-cooled': 'not cooled enough',
  'too-cold': 'cooled too far',
  'not-stirred': 'left standing',
  overheated: 'overheated on the way back',
  'worked-cold': 'worked too cold',
  'held-long': 'held too long',
  'cold-mould': 'moulds too cold',
  'warm-set': 'set too warm',
  damp: 'set in damp air',
};

/** How often which fault came first, bench by bench, the busiest first. */
export function faultsByBench(pours: readonly CountedPour[]): BenchFaults[] {
  const byBench = new Map<string, CountedPour[]>();
  for (const row of pours) byBench.set(row.bench, [...(byBench.get(row.bench) ?? []), row]);
  return [...byBench]
    .map(([bench, rows]) => {
      const times = new Map<FaultId, number>();
      for (const { first } of rows) if (first !== null) times.set(first, (times.get(first) ?? 0) + 1);
      return {
        bench,
        pours: rows.length,
        good: rows.filter(({ first }) => first === null).length,
        faults: [...times].map(([id, n]) => ({ id, times: n })).sort((a, b) => b.times - a.times),
      };
    })
    .sort((a, b) => b.pours - a.pours);
}
