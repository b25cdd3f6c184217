/** A batch of the workshop's own, and how thick it is by its fat and solids. */
export interface PastFlow {
  code: string;
  name: string;
  flow: number;
}

/** Own batches from which on a comparison says something. */
const FEWEST = 3;

export interface PlaceAmong<T extends PastFlow> {
  /** How many of them are thinner. */
  thinner: number;
  thinnest: number;
  thickest: number;
  nearest: T;
}

/** Where a thickness stands among own batches of its kind; null where they are too few to say. */
export function placeAmong<T extends PastFlow>(flow: number, past: readonly T[]): PlaceAmong<T> | null {
  if (past.length < FEWEST) return null;
  const sorted = [...past].sort((a, b) => a.flow - b.flow);
  const nearest = sorted.reduce((best, row) => (Math.abs(row.flow - flow) < Math.abs(best.flow - flow) ? row : best));
  return {
    thinner: sorted.filter((row) => row.flow < flow).length,
    thinnest: sorted[0]?.flow ?? flow,
    thickest: sorted.at(-1)?.flow ?? flow,
    nearest,
  };
}
