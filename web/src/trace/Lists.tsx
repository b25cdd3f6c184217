import type { BatchRow } from '@wunsch/core/api/reads';
import { Link, useSearchParams } from 'react-router';
import type { LotRow } from '@wunsch/core/api/reads';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import { Marks } from '../parts/marks';
import { Listing, type Column } from '../parts/listing';
import { count, useShow, useUnitOf } from '../parts/workshop';
import { useColumns } from '../parts/columns';

/** Batches that are looked through at once; earlier ones are a press away. */
const AT_ONCE = 300;

export function BatchesPage() {
  const [query, setQuery] = useSearchParams();
  const offset = Math.max(0, Math.floor(Number(query.get('from') ?? 0)) || 0);
  const answer = useApi(`/api/trace/batches?offset=${offset}&limit=${AT_ONCE}`);
  const unit = useUnitOf((answer.data?.batches ?? []).slice(0, 60).map(({ chargedMg }) => chargedMg));
  const show = useShow(unit);
  const column = useColumns(show);
  if (!answer.data) return <Loading error={answer.error} />;
  const { total, batches } = answer.data;
  const from = (next: number): void =>
    setQuery((now) => {
      now.delete('page');
      if (next <= 0) now.delete('from');
      else now.set('from', String(next));
      return now;
    });
  if (total === 0) return <Empty title="No batches yet.">A batch begins when nibs go into a grinder. Press 5.</Empty>;
  const columns: Column<BatchRow>[] = [
    {
      id: 'code',
      head: 'Code',
      value: ({ batch }) => batch.code,
      show: ({ batch }) => (
        <Link className="code link" to={`/batch/${batch.code}`}>
          {batch.code}
        </Link>
      ),
    },
    {
      id: 'name',
      head: 'Name',
      value: ({ batch }) => batch.name,
      show: ({ batch, marks, allergens }) => (
        <>
          {batch.name}
          <Marks marks={marks} allergens={allergens} />
        </>
      ),
    },
    { id: 'origin', head: 'Origin', value: ({ family }) => family, filter: 'every origin' },
    column.day('began', 'Began', ({ startedAt }) => startedAt),
    column.mass('charged', 'Into the bowl', ({ chargedMg }) => chargedMg),
    {
      id: 'cocoa',
      head: 'Cocoa',
      unit: '%',
      right: true,
      value: ({ cocoaPct }) => Number(cocoaPct.toFixed(2)),
      show: ({ cocoaPct }) => `${cocoaPct.toFixed(1)}\u00a0%`,
    },
    {
      id: 'bars',
      head: 'Bars',
      right: true,
      value: ({ bars }) => bars,
      show: ({ bars, bowlMg }) => (bars > 0 ? count(bars) : bowlMg > 0 ? 'on the stones' : '–'),
    },
    {
      id: 'score',
      head: 'Score',
      right: true,
      value: ({ score }) => score,
      show: ({ score }) => <span className="figure">{score === null ? '–' : score.toFixed(1)}</span>,
    },
    { id: 'allergens', head: 'Allergens', extra: true, value: ({ allergens }) => allergens.join(', ') },
  ];
  return (
    <>
      <h1 className="mb-4 text-4xl">Batches</h1>
      <Listing
        label="Batches"
        rows={batches}
        columns={columns}
        rowId={({ batch }) => batch.id}
        sort="-began"
        minWidth="44rem"
      />
      {total > AT_ONCE && (
        <div className="mt-5 flex flex-wrap items-center gap-3 border-t border-rule pt-3">
          <span className="text-soft">
            Looked through: {offset + 1} to {offset + batches.length} of {count(total)}, the newest first.
          </span>
          {offset > 0 && (
            <button type="button" className="button" onClick={() => from(offset - AT_ONCE)}>
              Newer ones
            </button>
          )}
          {offset + AT_ONCE < total && (
            <button type="button" className="button" onClick={() => from(offset + AT_ONCE)}>
              Earlier ones
            </button>
          )}
        </div>
      )}
    </>
  );
}

export function LotsPage() {
  const answer = useApi('/api/trace/lots');
  const unit = useUnitOf((answer.data?.lots ?? []).map(({ massMg }) => massMg));
  const show = useShow(unit);
  const column = useColumns(show);
  if (!answer.data) return <Loading error={answer.error} />;
  const { lots } = answer.data;
  if (lots.length === 0) {
    return (
      <Empty
        title="No lots yet."
        action={
          <Link className="button button-main" to="/station/beans">
            Receive a lot
          </Link>
        }
      >
        A lot is what was bought or grown at once.
      </Empty>
    );
  }
  const left = (lot: LotRow): number => lot.massMg / Math.max(1, lot.receivedMg);
  const columns: Column<LotRow>[] = [
    {
      id: 'code',
      head: 'Code',
      value: ({ code }) => code,
      show: ({ code }) => (
        <Link className="code link text-lg" to={`/lot/${code}`}>
          {code}
        </Link>
      ),
    },
    {
      id: 'name',
      head: 'Lot',
      value: ({ name, facts }) =>
        [name, facts.region, facts.variety, facts.harvest].filter((word) => word !== '').join(', '),
      show: (lot) => (
        <span className="block max-w-md">
          <span className="block">{lot.name}</span>
          <span className="block text-sm text-soft">
            {[lot.facts.region, lot.facts.variety, lot.facts.harvest].filter((word) => word !== '').join(', ')}
          </span>
          <Marks marks={lot.marks} />
          {lot.facts.note !== '' && <span className="block text-sm font-semibold text-crimson">{lot.facts.note}</span>}
        </span>
      ),
    },
    { id: 'country', head: 'Country', value: ({ facts }) => facts.country, filter: 'every country', extra: true },
    { id: 'producer', head: 'Producer', value: ({ facts }) => facts.producer, extra: true },
    column.day('since', 'Came in', ({ since }) => since),
    {
      id: 'left',
      head: 'Left of it',
      unit: '%',
      value: (lot) => Number((100 * left(lot)).toFixed(1)),
      show: (lot) => (
        <span className="block w-28">
          <span className="block h-2 overflow-hidden rounded-full bg-sunk">
            <span className="block h-full bg-leaf" style={{ width: `${100 * left(lot)}%` }} />
          </span>
          <span className="text-sm text-soft">{lot.massMg > 0 ? show.percent(left(lot), 0) : 'used up'}</span>
        </span>
      ),
    },
    column.mass('mass', 'Here', ({ massMg }) => massMg, {
      show: ({ massMg }) => <span className="figure text-lg">{show.mass(massMg)}</span>,
    }),
    column.price('price', ({ perKgMilli }) => perKgMilli, {
      show: ({ perKgMilli }) => <span className="text-sm text-soft">{show.price(perKgMilli)}</span>,
    }),
  ];
  return (
    <>
      <h1 className="mb-4 text-4xl">Lots</h1>
      <Listing label="Lots" rows={lots} columns={columns} rowId={({ id }) => id} sort="-since" minWidth="46rem" />
    </>
  );
}
