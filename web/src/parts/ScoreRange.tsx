/** Where on the scale from 0 to 10 a score is, with its interval. */
export function ScoreRange({ low, high, mean }: { low: number; high: number; mean: number }) {
  const at = (score: number): number => 10 * Math.min(10, Math.max(0, score));
  return (
    <svg viewBox="0 0 100 6" preserveAspectRatio="none" className="mt-1 h-1.5 w-full" aria-hidden>
      <rect width="100" height="6" fill="var(--rule)" />
      <rect x={at(low)} width={at(high) - at(low)} height="6" fill="var(--leaf)" opacity="0.55" />
      <rect x={at(mean) - 0.75} width="1.5" height="6" fill="var(--ink)" />
    </svg>
  );
}
