export interface TimePoint {
  /** Minutes since the load went in. */
  x: number;
  /** Temperature as shown here; null where nothing was read. */
  y: number | null;
}

export interface EndLabel {
  x: number;
  y: number;
  name: string;
  index: number;
  /** Pixels down from its point, so that labels of neighbouring ends can be read. */
  offsetY: number;
}

const LABEL_PX = 15;
const TOGETHER = 0.85;

/**
 * Each line's name at its end; where ends lie close together their names are moved apart.
 *
 * @param perPixel how much of the axis one pixel of the drawing stands for
 */
export function endLabels(
  lines: readonly { name: string; points: readonly TimePoint[] }[],
  perPixel: number,
): EndLabel[] {
  const ends = lines
    .flatMap(({ name, points }, index) => {
      const last = points.findLast(({ y }) => y !== null);
      return last?.y == null || name === '' ? [] : [{ x: last.x, y: last.y, name, index }];
    })
    .sort((a, b) => b.y - a.y);
  // Lines that end almost together have their names under one another, clear of them all.
  const far = Math.max(...ends.map(({ x }) => x));
  let lowest = -Infinity;
  return ends.map((end) => {
    const wanted = -end.y / perPixel;
    const placed = Math.max(wanted, lowest + LABEL_PX);
    lowest = placed;
    return { ...end, x: end.x > TOGETHER * far ? far : end.x, offsetY: placed - wanted };
  });
}

const LETTER_PX = 7.5;

/**
 * Words at the beginnings of stretches of an axis: where one would run into another it stands a line lower, and the same word
 * is not said twice in one place.
 *
 * @param perPixel how much of the axis one pixel of the drawing stands for
 * @returns for each, in its order: what is said, and on which line
 */
export function stretchLabels(
  stretches: readonly { from: number; word: string }[],
  perPixel: number,
): { word: string; line: number }[] {
  const lines: { word: string; until: number }[] = [];
  const said = new Map<number, { word: string; line: number }>();
  const inOrder = stretches.map((row, index) => ({ ...row, index })).sort((a, b) => a.from - b.from);
  for (const { from, word, index } of inOrder) {
    const taken = lines.map(({ until }) => until > from);
    if (lines.some((last, line) => taken[line] && last.word === word)) continue;
    const free = taken.indexOf(false);
    const line = free < 0 ? lines.length : free;
    lines[line] = { word, until: from + word.length * LETTER_PX * perPixel };
    said.set(index, { word, line });
  }
  return stretches.map((_, index) => said.get(index) ?? { word: '', line: 0 });
}
