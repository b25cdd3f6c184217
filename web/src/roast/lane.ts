import type { SignMark } from '@wunsch/core/work/roasting';
import type { UsualSign } from '@wunsch/core/roast/usual-signs';

/** A word on the lane: where it stands, in which row, and whether it was noticed. */
export interface LaneWord {
  what: string;
  second: number;
  row: number;
  noticed: boolean;
  /** Earlier loads that the usual time rests on. */
  n: number;
}

/**
 * Lays the words of signs along the time of a roast, each at the time when it was noticed or else usually comes, in
 * as many rows as keep them apart.
 *
 * @param width of a word in seconds of the lane
 */
export function layWords(
  usual: readonly UsualSign[],
  noticed: readonly SignMark[],
  more: readonly string[],
  endS: number,
  width: (what: string) => number,
): LaneWord[] {
  const firsts = new Map<string, number>();
  for (const { what, second } of noticed) if (!firsts.has(what)) firsts.set(what, second);
  const rest = [...firsts.keys(), ...more].filter((what) => !usual.some((row) => row.what === what));
  const all = [...usual, ...[...new Set(rest)].map((what): UsualSign => ({ what, second: endS, n: 0 }))].map(
    ({ what, second, n }) => ({ what, n, noticed: firsts.has(what), second: firsts.get(what) ?? second }),
  );
  const ends: number[] = [];
  return all
    .sort((a, b) => a.second - b.second)
    .map((word) => {
      // A word near the end stands before it, not beyond.
      const second = Math.max(0, Math.min(word.second, endS - width(word.what)));
      let row = ends.findIndex((end) => end <= second);
      if (row < 0) row = ends.length;
      ends[row] = second + width(word.what);
      return { ...word, second, row };
    });
}
