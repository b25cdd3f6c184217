import { useState } from 'react';
import type { MarginsView, SalesPreview } from '@wunsch/core/api/orders';
import { FREE_USE_WORDS } from '@wunsch/core/money/commands';
import { marginOfAll } from '@wunsch/core/products/margin';
import { milliFromMajor } from '@wunsch/core/units/money';
import { ask, send, useApi } from '../parts/api';
import { newKey } from '../parts/draft';
import { FilePick } from '../parts/FilePick';
import { Listing, type Column } from '../parts/listing';
import { Figure, Loading, Refusal, Section } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { count, useHere, useShow } from '../parts/workshop';
import { StoreNav } from '../store/StoreNav';
import { useColumns } from '../parts/columns';

/** What each product earned by each channel in a year, and tables of sales in and out. */
export function SalesPage() {
  const { data, error } = useApi('/api/orders/margins');
  const show = useShow();
  const column = useColumns(show);
  if (!data) return <Loading error={error} />;
  const all = marginOfAll(data.margins);
  const columns: Column<MarginsView['margins'][number]>[] = [
    { id: 'product', head: 'Product', value: ({ product }) => product },
    { id: 'channel', head: 'Channel', value: ({ channel }) => channel, filter: 'every channel' },
    {
      id: 'pieces',
      head: 'Pieces',
      right: true,
      value: ({ pieces }) => pieces,
      show: ({ pieces }) => count(pieces),
    },
    column.money('revenue', 'Taken in', ({ revenueMilli }) => revenueMilli),
    column.money('cost', 'Cost', ({ costMilli }) => costMilli),
    column.money('left', 'Left of it', ({ marginMilli }) => marginMilli, {
      show: ({ marginMilli, share }) => (
        <span className={marginMilli < 0 ? 'text-crimson' : ''}>
          {show.money(marginMilli)}
          {share !== null && `, ${show.percent(share, 0)}`}
        </span>
      ),
    }),
  ];
  return (
    <div>
      <StoreNav />
      <h1 className="text-4xl">Sales</h1>
      <p className="mt-1 text-soft">Since {show.day(data.from)}, from what each piece really cost.</p>
      <div className="mt-5 grid gap-6 min-[480px]:grid-cols-2 sm:grid-cols-4">
        <Figure label="Taken in" value={show.money(all.revenueMilli)} />
        <Figure
          label="Left of it"
          value={show.money(all.marginMilli)}
          note={all.share === null ? undefined : show.percent(all.share, 0)}
        />
        {data.given.map(({ use, pieces, costMilli }) => (
          <Figure
            key={use}
            label={`As ${(FREE_USE_WORDS as Record<string, string | undefined>)[use] ?? use}`}
            value={count(pieces)}
            note={`cost ${show.money(costMilli)}`}
          />
        ))}
      </div>
      <Section title="By product and channel" aside="the most earned first">
        {data.margins.length === 0 ? (
          <p className="text-soft">Nothing was sold.</p>
        ) : (
          <Listing
            label="Margins"
            rows={data.margins}
            columns={columns}
            rowId={({ productId, product, channel }) => `${productId} ${product} ${channel}`}
            sort="-left"
            minWidth="36rem"
          />
        )}
      </Section>
      <Import />
    </div>
  );
}

/** A table of sales from a till or a shop: looked at first, then all of it or nothing. */
function Import() {
  const { personId } = useHere();
  const show = useShow();
  const [text, setText] = useState('');
  const [preview, setPreview] = useState<SalesPreview | null>(null);
  const [booked, setBooked] = useState<number | null>(null);
  const [key, setKey] = useState(newKey);
  const { busy, error, run, fail } = useSave();
  const look = (file: File): void => {
    setBooked(null);
    setPreview(null);
    void run(async () => {
      const read = await file.text();
      setText(read);
      setKey(newKey());
      setPreview(await ask('/api/orders/sales/preview', { text: read }));
    });
  };
  const book = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      const { data } = await send('POST', '/api/orders/sales', { personId, text }, key);
      setBooked(data.steps.length);
      setPreview(null);
    });
  };
  return (
    <Section title="Tables of sales">
      <div className="flex flex-wrap items-center gap-4">
        <FilePick label="Table of sales" accept=".csv,text/csv,text/plain" disabled={busy} main={false} onPick={look}>
          Take a table in
        </FilePick>
        <a className="button mt-4" href="/api/orders/sales.csv" download="sales.csv">
          All sales as CSV
        </a>
      </div>
      <p className="mt-2 text-sm text-soft">
        Columns: date, channel, product (name, code or number), pieces, takings. Goods are taken from what expires
        first.
      </p>
      {booked !== null && (
        <p role="status" className="mt-3 font-semibold text-leaf">
          {booked === 1 ? 'One sale is in the book.' : `${booked} sales are in the book.`}
        </p>
      )}
      {preview && (
        <div className="mt-3">
          <p className={preview.bad > 0 ? 'font-semibold text-crimson' : ''} role="status">
            {preview.bad > 0
              ? `${preview.bad} of ${preview.rows.length} rows cannot be booked: nothing is taken in until they are right.`
              : `${preview.rows.length === 1 ? 'One row' : `${preview.rows.length} rows`}, ${show.money(preview.rows.reduce((sum, { takings }) => sum + milliFromMajor(takings), 0))}: look at them, then book them.`}
          </p>
          <ul className="rows mt-2">
            {preview.rows.slice(0, 100).map((row) => (
              <li key={row.line} className="py-1.5 text-sm">
                <span className="text-soft">Line {row.line}:</span> {row.at?.slice(0, 10) ?? '–'}, {row.channel},{' '}
                {row.pieces} × {row.what}, {show.money(milliFromMajor(row.takings))}
                {row.picks.length > 0 && (
                  <span className="text-soft">
                    {' '}
                    from {row.picks.map(({ code, pieces }) => `${code} (${pieces})`).join(', ')}
                  </span>
                )}
                {row.problems.map((words) => (
                  <strong key={words} className="block text-crimson">
                    {words}
                  </strong>
                ))}
              </li>
            ))}
          </ul>
          {preview.bad === 0 && (
            <button type="button" className="button button-main mt-3" disabled={busy} onClick={book}>
              {preview.rows.length === 1 ? 'Book one sale' : `Book ${preview.rows.length} sales`}
            </button>
          )}
        </div>
      )}
      <Refusal error={error} />
    </Section>
  );
}
