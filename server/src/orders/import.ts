import type { SalesPreview } from '@wunsch/core/api/orders';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { byExpiry } from '@wunsch/core/orders/stock';
import { readSales } from '@wunsch/core/orders/sales-table';
import { asGtin14 } from '@wunsch/core/products/gtin';
import { majorFromMilli, milliFromMajor } from '@wunsch/core/units/money';
import { dayText, instantOf } from '@wunsch/core/units/zone';
import { apportion } from '@wunsch/core/units/apportion';
import { readTable } from '../http/csv';
import type { Views } from '../ledger/views';
import { productsOf } from '@wunsch/core/products/book';
import { stockRows } from './orders';
import { soldLines } from '../products/sales';

const MOST_ROWS = 2000;
const DAY_MS = 86_400_000;

/** Sales since then, each as what a row of a table would say of it. */
function salesSince(views: Views, since: number): ReadonlySet<string> {
  const sales = new Map<string, { day: string; channel: string; product: string; pieces: number; milli: number }>();
  for (const { stepId, at, channel, product, pieces, revenueMilli } of soldLines(views, since)) {
    const key = `${stepId} ${product}`;
    const day = new Date(at).toISOString().slice(0, 10);
    const row = sales.get(key) ?? { day, channel, product, pieces: 0, milli: 0 };
    row.pieces += pieces;
    row.milli += revenueMilli;
    sales.set(key, row);
  }
  return new Set(
    [...sales.values()].map(({ day, channel, product, pieces, milli }) =>
      JSON.stringify([day, channel, product, pieces, milli]),
    ),
  );
}

/** What a table of sales would book: each row with the goods it takes, first-expired first, or what is wrong with it. */
export function previewSales(views: Views, text: string): SalesPreview {
  const { workshop } = views;
  const cells = readTable(text, { most: MOST_ROWS + 1, code: 'orders/broken-csv' });
  const { missing, rows } = readSales(cells, workshop.settings.timeZone);
  const fail = (code: string, words: string): never => {
    throw new DomainError(code, words, [{ path: 'text', message: 'does not fit' }]);
  };
  if (missing.length > 0) fail('orders/columns', `The table has no column for: ${missing.join(', ')}.`);
  if (rows.length === 0) fail('orders/empty', 'The table has no rows under its headings.');
  if (rows.length > MOST_ROWS) fail('orders/long', `More than ${MOST_ROWS} rows at once: split the table.`);
  const current = productsOf(workshop.records).current();
  const stock = stockRows(views).sort(byExpiry);
  const left = new Map(stock.map((row) => [row.holdingId, row.pieces]));
  const first = Math.min(...rows.flatMap(({ at }) => (at === null ? [] : [Date.parse(at)])));
  const known = salesSince(views, Number.isFinite(first) ? first - DAY_MS : workshop.now());
  const { timeZone } = workshop.settings;
  const packedAt = (holdingId: string): number => workshop.book.firstEntry(holdingId)?.at ?? 0;
  const endOf = (at: string): number =>
    instantOf(`${dayText(Date.parse(at) + DAY_MS, timeZone)}T00:00`, timeZone) ?? Infinity;
  const read = rows.map((row): SalesPreview['rows'][number] => {
    const problems = [...row.problems];
    const wanted = row.what.toLowerCase();
    const product = current.find(
      ({ facts }) =>
        facts.name.toLowerCase() === wanted ||
        (facts.gtin !== null && /^\d{8,14}$/.test(row.what) && asGtin14(facts.gtin) === asGtin14(row.what)),
    );
    const coded = stock.filter(({ code }) => code.toLowerCase() === wanted);
    const shelf = coded.length > 0 ? coded : stock.filter(({ productId }) => productId === product?.id);
    const picks: SalesPreview['rows'][number]['picks'] = [];
    if (row.at !== null && Date.parse(row.at) > workshop.now() + DAY_MS) problems.push('is in the future');
    const key = [row.at?.slice(0, 10), row.channel, product?.facts.name, row.pieces, milliFromMajor(row.takings)];
    if (known.has(JSON.stringify(key))) problems.push('is in the book already');
    if (row.what !== '' && !product && coded.length === 0)
      problems.push(`“${row.what}” is no product and no code here`);
    else if (problems.length === 0) {
      let open = row.pieces;
      for (const { holdingId, code, bestBefore } of shelf) {
        // What was packed later was not sold that day.
        if (row.at !== null && packedAt(holdingId) > endOf(row.at)) continue;
        const pieces = Math.min(open, left.get(holdingId) ?? 0);
        if (pieces <= 0) continue;
        picks.push({ holdingId, code, pieces, bestBefore });
        left.set(holdingId, (left.get(holdingId) ?? 0) - pieces);
        open -= pieces;
      }
      if (open > 0)
        problems.push(
          `${row.pieces - open} of it were packed by then and are here: ${row.pieces} cannot have been sold`,
        );
    }
    return { ...row, picks, problems };
  });
  return { rows: read, bad: read.filter(({ problems }) => problems.length > 0).length };
}

/** A table knows days only: nothing was sold before it was packed, nor later than now. */
function soldAt({ workshop: { book, now } }: Views, at: string, picks: readonly { holdingId: string }[]): string {
  const packed = picks.map(({ holdingId }) => book.firstEntry(holdingId)?.at ?? 0);
  return new Date(Math.min(now(), Math.max(Date.parse(at), ...packed))).toISOString();
}

/** Books a table of sales: all of it or nothing. @returns ids of the steps */
export function importSales(views: Views, text: string, personId: string): string[] {
  const { rows, bad } = previewSales(views, text);
  if (bad > 0)
    throw new DomainError(
      'orders/bad-rows',
      `${bad} of ${rows.length} rows cannot be booked. Nothing was taken in.`,
      rows
        .filter(({ problems }) => problems.length > 0)
        .map(({ line, problems }) => ({ path: `text.${line}`, message: problems.join('; ') })),
    );
  return rows.map(({ at, channel, picks, takings, to }) => {
    const parts = apportion(
      milliFromMajor(takings),
      picks.map(({ pieces }) => pieces),
    );
    const step = views.workshop.record(
      {
        kind: 'sell',
        sources: picks.map(({ holdingId, pieces }, index) => ({
          holdingId,
          pieces,
          takings: majorFromMilli(parts[index] ?? 0),
        })),
        takings,
        to,
        channel,
        note: 'From a table of sales',
      },
      { personId, machineId: null, minutes: 0, energyKwh: 0, ...(at === null ? {} : { at: soldAt(views, at, picks) }) },
    );
    return step.id;
  });
}
