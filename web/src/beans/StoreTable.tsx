import { Link } from 'react-router';
import type { BeanStoreView, StoreRow } from '@wunsch/core/api/beans';
import { Empty } from '../parts/pieces';
import { span, useShow } from '../parts/workshop';

const TONES: Record<StoreRow['standing'], string> = {
  wet: 'text-ripe-ink',
  sample: 'text-soft',
  'not looked at': 'text-ripe-ink',
  'taken in': 'text-soft',
  'on hold': 'text-crimson',
  refused: 'text-crimson',
};

/** Lots on hand, oldest first, with what each asks for and which one to open next. */
export function StoreTable({ store }: { store: BeanStoreView }) {
  const show = useShow();
  if (store.rows.length === 0) {
    return (
      <Empty title="No beans yet.">
        Weigh the sacks, note where they are from and what they cost. Everything after this is worked out from it.
      </Empty>
    );
  }
  const next = store.rows.filter((row) => row.next !== null);
  return (
    <div>
      {next.length > 0 && (
        <p className="mb-4 text-lg">
          Open next, first in first out:{' '}
          {next.map((row, index) => (
            <span key={row.id}>
              {index > 0 && '; '}
              <Link className="link code" to={`/lot/${row.code}`}>
                {row.code}
              </Link>{' '}
              {row.next}
            </span>
          ))}
          .
        </p>
      )}
      <ul className="rows">
        {store.rows.map((row) => (
          <li
            key={row.id}
            className="grid grid-cols-[3.5rem_minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 py-2.5 xl:grid-cols-[3.5rem_minmax(0,1.3fr)_minmax(0,1fr)_6.5rem]"
          >
            <Link className="code link text-lg" to={`/lot/${row.code}`}>
              {row.code}
            </Link>
            <span className="min-w-0">
              <span className="block truncate">{row.name}</span>
              <span className="block truncate text-sm text-soft">
                {row.places.join(', ') || 'no place written down'}, {row.sacks} {row.sacks === 1 ? 'sack' : 'sacks'},
                here {span(store.now - row.receivedAt)}
              </span>
            </span>
            <span className="order-last col-span-3 min-w-0 text-sm xl:order-none xl:col-span-1">
              <span className={`font-semibold ${TONES[row.standing]}`}>{row.standing}</span>
              {row.holdWords !== null && <span className="text-soft">, {row.holdWords}</span>}
              {row.standing !== 'on hold' && row.grade !== null && <span className="text-soft">, {row.grade}</span>}
              {row.holdShare !== null && row.standing === 'on hold' && (
                <span className="mt-1 block h-1.5 overflow-hidden rounded-full bg-sunk">
                  <span className="block h-full bg-leaf" style={{ width: `${100 * row.holdShare}%` }} />
                </span>
              )}
              <Asks row={row} now={store.now} />
            </span>
            <span className="text-right">
              <span className="figure block text-lg">{show.mass(row.leftG * 1000)}</span>
              <span className="block text-sm text-soft">
                {show.price(row.landedPerKgMilli)} a {show.heavy}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Asks({ row, now }: { row: StoreRow; now: number }) {
  const asks = [
    row.standing === 'not looked at' ? 'inspect it' : '',
    row.lastLookAt !== null && row.lookDueAt !== null && row.lookDueAt < now
      ? `not looked at for ${span(now - row.lastLookAt)}`
      : '',
    row.reinspectDueAt !== null && row.reinspectDueAt < now ? 'inspect again' : '',
  ].filter((text) => text !== '');
  return asks.length === 0 ? null : <span className="block text-ripe-ink">{asks.join(', ')}</span>;
}
