import { formatHeavy, type MassSystem } from '../units/mass';
import type { SackRow } from './records';

export interface SackStock {
  no: number;
  netG: number;
  leftG: number;
  place: string;
  state: 'whole' | 'open' | 'empty';
}

/** Net grams of all sacks. */
export const netOf = (sacks: readonly SackRow[]): number => sacks.reduce((sum, row) => sum + row.grossG - row.tareG, 0);

/**
 * What is left in each sack. Grams taken with a sack named come out of that one; the others are drawn in
 * the order of their numbers, as a store is worked off.
 *
 * @param leftG grams of the lot in the book; the sacks add up to it
 * @param taken grams taken by sack number
 * @param moved newest place by sack number
 */
export function sackStock(
  sacks: readonly SackRow[],
  leftG: number,
  taken: ReadonlyMap<number, number>,
  moved: ReadonlyMap<number, string>,
): SackStock[] {
  const rows = [...sacks]
    .sort((a, b) => a.no - b.no)
    .map((row) => {
      const netG = row.grossG - row.tareG;
      return {
        no: row.no,
        netG,
        place: moved.get(row.no) ?? row.place,
        left: Math.max(0, netG - (taken.get(row.no) ?? 0)),
      };
    });
  let over = rows.reduce((sum, { left }) => sum + left, 0) - leftG;
  for (const row of rows) {
    if (over <= 0) break;
    const drawn = Math.min(row.left, over);
    row.left -= drawn;
    over -= drawn;
  }
  return rows.map(({ left, ...row }) => ({
    ...row,
    leftG: Math.round(left),
    state: left < 1 ? 'empty' : left < row.netG - 1 ? 'open' : 'whole',
  }));
}

export interface CountCheck {
  sacks: number;
  netG: number;
  invoiceSacks: number | null;
  invoiceNetG: number | null;
  /** Weighed less invoiced, g; null without an invoice weight. */
  differenceG: number | null;
  differencePct: number | null;
  /** Grams by which the weight is short beyond what the contract lets pass. */
  shortG: number;
  sentence: string;
}

/**
 * Sacks weighed one by one against the invoice.
 *
 * @param allowedPct short weight let pass, %; @param system in which it is said
 */
export function checkCount(
  sacks: readonly SackRow[],
  invoice: { sacks: number | null; netG: number | null },
  allowedPct: number | null,
  system: MassSystem = 'metric',
): CountCheck {
  const netG = netOf(sacks);
  const differenceG = invoice.netG === null ? null : netG - invoice.netG;
  const differencePct = differenceG === null || !invoice.netG ? null : (100 * differenceG) / invoice.netG;
  const shortPct = differencePct === null ? 0 : -differencePct;
  const over = shortPct > (allowedPct ?? 0);
  const missing = invoice.sacks === null ? 0 : invoice.sacks - sacks.length;
  const heavy = (grams: number): string => formatHeavy(grams, system);
  const weight =
    differenceG === null || differencePct === null
      ? `${heavy(netG)} net, no invoice weight to compare with.`
      : Math.abs(differencePct) < 0.05
        ? `${heavy(netG)} net, as invoiced.`
        : `${heavy(netG)} net, ${heavy(Math.abs(differenceG))} (${Math.abs(differencePct).toFixed(1)} %) ${differenceG < 0 ? 'short of' : 'over'} the invoice${over ? `, more than the ${allowedPct ?? 0} % let pass` : ''}.`;
  return {
    sacks: sacks.length,
    netG,
    invoiceSacks: invoice.sacks,
    invoiceNetG: invoice.netG,
    differenceG,
    differencePct,
    shortG: over && differenceG !== null ? -differenceG : 0,
    sentence:
      missing === 0
        ? weight
        : `${Math.abs(missing)} ${Math.abs(missing) === 1 ? 'sack' : 'sacks'} ${missing > 0 ? 'missing or not weighed yet' : 'more than invoiced'}. ${weight}`,
  };
}
