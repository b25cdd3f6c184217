/** One thing that was sold, or came back: pieces and money are negative then. */
export interface SoldLine {
  productId: string;
  product: string;
  channel: string;
  pieces: number;
  revenueMilli: number;
  /** What these pieces had cost. */
  costMilli: number;
}

export interface Margin {
  productId: string;
  product: string;
  channel: string;
  pieces: number;
  revenueMilli: number;
  costMilli: number;
  marginMilli: number;
  /** Of the revenue, 0 to 1 and below; null without revenue. */
  share: number | null;
}

/** Margins per product and channel from real costs, the largest first. */
export function margins(lines: readonly SoldLine[]): Margin[] {
  const rows = new Map<string, Margin>();
  for (const { productId, product, channel, pieces, revenueMilli, costMilli } of lines) {
    const key = JSON.stringify([productId, channel]);
    const row = rows.get(key) ?? {
      productId,
      product,
      channel,
      pieces: 0,
      revenueMilli: 0,
      costMilli: 0,
      marginMilli: 0,
      share: null,
    };
    row.pieces += pieces;
    row.revenueMilli += revenueMilli;
    row.costMilli += costMilli;
    row.marginMilli = row.revenueMilli - row.costMilli;
    row.share = row.revenueMilli > 0 ? row.marginMilli / row.revenueMilli : null;
    rows.set(key, row);
  }
  return [...rows.values()].sort((a, b) => b.marginMilli - a.marginMilli);
}

/** All of some margins together. */
export function marginOfAll(rows: readonly Margin[]): Pick<Margin, 'revenueMilli' | 'marginMilli' | 'share'> {
  const revenueMilli = rows.reduce((sum, row) => sum + row.revenueMilli, 0);
  const marginMilli = rows.reduce((sum, row) => sum + row.marginMilli, 0);
  return { revenueMilli, marginMilli, share: revenueMilli > 0 ? marginMilli / revenueMilli : null };
}

/** What is left of the price of a piece, milli, and as a share of it. */
export const leftOfPrice = (priceMilli: number, costMilli: number): { milli: number; share: number | null } => ({
  milli: priceMilli - costMilli,
  share: priceMilli > 0 ? (priceMilli - costMilli) / priceMilli : null,
});
