/** Six inks and six strokes, so that no line is told by its colour alone. */
const STROKES = [
  { colour: '--ink', dash: 0 },
  { colour: '--crimson', dash: 8 },
  { colour: '--leaf', dash: 0 },
  { colour: '--ripe-ink', dash: 3 },
  { colour: '--ink-soft', dash: 12 },
  { colour: '--focus', dash: 5 },
] as const;

/** How the line at a place is drawn: the name of its colour, and its dash. */
export const strokeOf = (index: number): { colour: string; dash: number } =>
  STROKES[index % STROKES.length] ?? STROKES[0];

/** The line at a place, small, for its row in a table. */
export function StrokeKey({ index }: { index: number }) {
  const { colour, dash } = strokeOf(index);
  return (
    <svg width="34" height="10" aria-hidden className="inline-block align-middle">
      <line
        x1="0"
        x2="34"
        y1="5"
        y2="5"
        stroke={`var(${colour})`}
        strokeWidth="3"
        strokeDasharray={dash || undefined}
      />
    </svg>
  );
}
