/*
 * What can be promised: what stands packed, first-expired first, less what earlier orders wait for; then bars that are
 * not packed yet, then what is still on its way.
 */

/** Goods of a product that can be sent. */
export interface StockRow {
  holdingId: string;
  code: string;
  productId: string;
  pieces: number;
  /** ISO day; null: none is known. */
  bestBefore: string | null;
}

/** What will be there later. */
export interface ComingRow {
  productId: string;
  pieces: number;
  /** Where it stands now, in words, and where that is looked at. */
  words: string;
  link: string | null;
  /** UTC ms at which it can be expected; null: nobody knows. */
  at: number | null;
}

export interface OpenLine {
  orderId: string;
  productId: string;
  /** Still to be sent. */
  pieces: number;
  /** ISO day; earlier ones are served first. */
  dueDate: string;
}

export interface Pick {
  holdingId: string;
  code: string;
  pieces: number;
  bestBefore: string | null;
}

export interface Promise {
  orderId: string;
  productId: string;
  pieces: number;
  picks: Pick[];
  coming: { words: string; link: string | null; pieces: number; at: number | null }[];
  /** Pieces that nothing that is known of covers. */
  missing: number;
}

/** First-expired first; what has no date last; the same date by its code. */
export const byExpiry = (
  a: { bestBefore: string | null; code: string },
  b: { bestBefore: string | null; code: string },
): number =>
  (a.bestBefore ?? '9999').localeCompare(b.bestBefore ?? '9999') ||
  a.code.localeCompare(b.code, 'en', { numeric: true });

/**
 * Shares what there is among open orders, the earliest due first, each from what expires first.
 *
 * @param today ISO day: what has passed its date is promised to nobody
 * @returns one row for each open line, in the order in which they are served
 */
export function promise(
  lines: readonly OpenLine[],
  stock: readonly StockRow[],
  coming: readonly ComingRow[],
  today: string,
): Promise[] {
  const left = new Map(stock.map((row) => [row.holdingId, row.pieces]));
  const onTheWay = coming.map((row) => ({ ...row, left: row.pieces }));
  const shelves = [...stock].filter(({ bestBefore }) => bestBefore === null || bestBefore >= today).sort(byExpiry);
  return [...lines]
    .sort((a, b) => a.dueDate.localeCompare(b.dueDate) || a.orderId.localeCompare(b.orderId))
    .map((line) => {
      let wanted = line.pieces;
      const picks: Pick[] = [];
      for (const { holdingId, code, productId, bestBefore } of shelves) {
        const there = left.get(holdingId) ?? 0;
        if (productId !== line.productId || there <= 0 || wanted <= 0) continue;
        const pieces = Math.min(wanted, there);
        picks.push({ holdingId, code, pieces, bestBefore });
        left.set(holdingId, there - pieces);
        wanted -= pieces;
      }
      const later: Promise['coming'] = [];
      for (const row of onTheWay) {
        if (row.productId !== line.productId || row.left <= 0 || wanted <= 0) continue;
        const pieces = Math.min(wanted, row.left);
        later.push({ words: row.words, link: row.link, pieces, at: row.at });
        row.left -= pieces;
        wanted -= pieces;
      }
      return {
        orderId: line.orderId,
        productId: line.productId,
        pieces: line.pieces,
        picks,
        coming: later,
        missing: wanted,
      };
    });
}

/** Air in which finished chocolate keeps (dry, dark, away from smells), °C and % RH. */
const KEEPS = { fromC: 14, toC: 20, wetPct: 65 };

/** What the air of a place says of what stands there; null: nothing is wrong with it. */
export function climateWarning(
  tempC: number,
  humidityPct: number | null,
  show: (celsius: number) => string,
): string | null {
  if (tempC > KEEPS.toC)
    return `${show(tempC)}: over ${show(KEEPS.toC)} fat bloom comes sooner. Usual are ${show(16)} to ${show(18)}.`;
  if (tempC < KEEPS.fromC)
    return `${show(tempC)}: colder than ${show(KEEPS.fromC)} it sweats when it comes out. Usual are ${show(16)} to ${show(18)}.`;
  if (humidityPct !== null && humidityPct > KEEPS.wetPct)
    return `${humidityPct.toFixed(0)} % humidity: over ${KEEPS.wetPct} sugar bloom threatens.`;
  return null;
}
