import { useState } from 'react';
import { Link } from 'react-router';
import type { HoldingView } from '@wunsch/core/api/types';
import type { Batch, LotFacts } from '@wunsch/core/ledger/types';
import { useApi } from '../parts/api';
import { Empty, Loading } from '../parts/pieces';
import type { Mark } from '@wunsch/core/trace/marks';
import { Marks } from '../parts/marks';
import { count, useShow, useUnitOf } from '../parts/workshop';

interface BatchRow {
  batch: Batch;
  startedAt: number;
  bowlMg: number;
  chargedMg: number;
  cocoaPct: number;
  family: string;
  bars: number;
  score: number | null;
  marks: Mark[];
  allergens: string[];
}

const PAGE = 60;

export function BatchesPage() {
  const [offset, setOffset] = useState(0);
  const answer = useApi<{ total: number; batches: BatchRow[] }>(`/api/trace/batches?offset=${offset}&limit=${PAGE}`);
  const unit = useUnitOf((answer.data?.batches ?? []).map(({ chargedMg }) => chargedMg));
  const show = useShow(unit);
  if (!answer.data) return <Loading error={answer.error} />;
  const { total, batches } = answer.data;
  if (total === 0) return <Empty title="No batches yet.">A batch begins when nibs go into a grinder. Press 5.</Empty>;
  return (
    <>
      <h1 className="mb-4 text-4xl">Batches</h1>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[640px] text-left">
          <thead className="label">
            <tr>
              <th className="py-1 font-normal">Code</th>
              <th className="font-normal">Name</th>
              <th className="font-normal">Origin</th>
              <th className="font-normal">Began</th>
              <th className="text-right font-normal">Into the bowl</th>
              <th className="text-right font-normal">Cocoa</th>
              <th className="text-right font-normal">Bars</th>
              <th className="text-right font-normal">Score</th>
            </tr>
          </thead>
          <tbody>
            {batches.map((row) => (
              <tr key={row.batch.id} className="border-t border-rule hover:bg-sunk">
                <td className="py-2.5">
                  <Link className="code link" to={`/batch/${row.batch.code}`}>
                    {row.batch.code}
                  </Link>
                </td>
                <td>
                  {row.batch.name}
                  <Marks marks={row.marks} allergens={row.allergens} />
                </td>
                <td className="text-soft">{row.family}</td>
                <td className="text-soft">{show.day(row.startedAt)}</td>
                <td className="text-right">{show.mass(row.chargedMg)}</td>
                <td className="text-right">{row.cocoaPct.toFixed(1)} %</td>
                <td className="text-right">{row.bars > 0 ? count(row.bars) : row.bowlMg > 0 ? 'on the stones' : ''}</td>
                <td className="figure text-right">{row.score === null ? '' : row.score.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {total > PAGE && (
        <div className="mt-4 flex items-center gap-3">
          <button type="button" className="button" disabled={offset === 0} onClick={() => setOffset(offset - PAGE)}>
            Newer
          </button>
          <button
            type="button"
            className="button"
            disabled={offset + PAGE >= total}
            onClick={() => setOffset(offset + PAGE)}
          >
            Older
          </button>
          <span className="text-soft">
            {offset + 1} to {Math.min(total, offset + PAGE)} of {total}
          </span>
        </div>
      )}
    </>
  );
}

export function LotsPage() {
  const answer = useApi<{ lots: (HoldingView & { facts: LotFacts; receivedMg: number })[] }>('/api/trace/lots');
  const unit = useUnitOf((answer.data?.lots ?? []).map(({ massMg }) => massMg));
  const show = useShow(unit);
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
  return (
    <>
      <h1 className="mb-4 text-4xl">Lots</h1>
      <ul className="rows">
        {lots.map((lot) => {
          const left = lot.massMg / Math.max(1, lot.receivedMg);
          return (
            <li
              key={lot.id}
              className="grid grid-cols-[4rem_minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 py-3 md:grid-cols-[4rem_minmax(0,1fr)_10rem_9rem_8rem]"
            >
              <Link className="code link text-lg" to={`/lot/${lot.code}`}>
                {lot.code}
              </Link>
              <span className="min-w-0">
                <span className="block truncate">{lot.name}</span>
                <span className="block truncate text-sm text-soft">
                  {[lot.facts.region, lot.facts.variety, lot.facts.harvest].filter((word) => word !== '').join(', ')}
                </span>
                <Marks marks={lot.marks} />
                {lot.facts.note !== '' && (
                  <span className="block truncate text-sm font-semibold text-crimson">{lot.facts.note}</span>
                )}
              </span>
              <span className="hidden md:block">
                <span className="block h-2 overflow-hidden rounded-full bg-sunk">
                  <span className="block h-full bg-leaf" style={{ width: `${100 * left}%` }} />
                </span>
                <span className="text-sm text-soft">{left > 0 ? `${show.percent(left, 0)} left` : 'used up'}</span>
              </span>
              <span className="figure text-right text-lg">{show.mass(lot.massMg)}</span>
              <span className="hidden text-right text-sm text-soft md:block">{show.money(lot.perKgMilli)} a kg</span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
