import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { countHeld, held } from '@wunsch/core/grind/hits';
import { useApi } from '../parts/api';
import { Empty, Loading, Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { stones } from './compute';

interface Told {
  /** Readings it rested on. */
  readings: number;
  saidAtH: number;
  p10: number;
  p50: number;
  p90: number;
}
interface Row {
  code: string;
  name: string;
  endedAt: number;
  outcomeH: number;
  notBeforeH: number;
  told: Told[];
}

/** What was foretold of finished grinds at each of their readings, and what came. */
export function HitsPage() {
  const { machine = '' } = useParams();
  const { data, error } = useApi(`/api/grind/machines/${encodeURIComponent(machine)}/hits`);
  const [rows, setRows] = useState<Row[]>([]);
  const key = data?.grinds.map(({ code }) => code).join() ?? '';
  useEffect(() => {
    let gone = false;
    const work = async (): Promise<void> => {
      for (const grind of [...(data?.grinds ?? [])].reverse()) {
        const told = await Promise.all(
          grind.studies.map(async (study) => ({
            readings: study.readings.length,
            saidAtH: study.nowH,
            ...(await stones().foretold(study)),
          })),
        );
        if (gone) return;
        setRows((before) => [...before.filter(({ code }) => code !== grind.code), { ...grind, told }]);
      }
    };
    void work();
    return () => {
      gone = true;
    };
    // The codes say which grinds they are.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key]);
  if (!data) return <Loading error={error} />;
  const hits = countHeld(rows);
  return (
    <div className="max-w-4xl">
      <h1 className="text-3xl">What was foretold of {data.machine}</h1>
      {data.grinds.length === 0 ? (
        <Empty title="No finished grind with readings yet.">
          After the first one that was read twice and pulled at its target, what was foretold of it stands here beside
          what came.
        </Empty>
      ) : (
        <>
          <p className="figure mt-3 text-2xl" aria-live="polite">
            {rows.length < data.grinds.length
              ? `Looking at ${data.grinds.length} finished grinds …`
              : `${hits.held} of ${hits.of} forecasts held: ${Math.round((100 * hits.held) / Math.max(1, hits.of))}\u00a0%, meant are 80 %.`}
          </p>
          <p className="mt-1 max-w-2xl text-soft">
            Each was worked out as it stood then, from the readings so far and the grinds before it. A bar is a
            forecast, from its sooner to its later end; the frame is from the last reading above the target to the first
            at it.
          </p>
          <Section title="Grinds, the newest first">
            <ul className="rows">
              {rows.map((row) => (
                <HitRow key={row.code} row={row} />
              ))}
            </ul>
          </Section>
        </>
      )}
    </div>
  );
}

function HitRow({ row }: { row: Row }) {
  const show = useShow();
  const most = Math.max(row.outcomeH * 1.25, ...row.told.map(({ p90 }) => Math.min(p90, row.outcomeH * 1.6)));
  const place = (hours: number): string => `${Math.min(100, (100 * hours) / most)}%`;
  return (
    <li className="grid gap-x-6 py-3 sm:grid-cols-[14rem_minmax(0,1fr)]">
      <span>
        <Link className="code link" to={`/batch/${row.code}`}>
          {row.code}
        </Link>{' '}
        {row.name}
        <span className="block text-sm text-soft">
          {show.day(row.endedAt)}, at target between {row.notBeforeH.toFixed(0)} and {row.outcomeH.toFixed(0)} running
          hours
        </span>
      </span>
      <ul className="mt-2 grid gap-2 sm:mt-0">
        {row.told.map((told) => {
          const hit = held(told, row);
          return (
            <li key={told.readings} className="grid grid-cols-[minmax(0,1fr)_9rem] items-center gap-3">
              <span aria-hidden className="relative block h-4 rounded bg-sunk">
                <span
                  className={`absolute inset-y-0.5 rounded ${hit ? 'bg-leaf' : 'bg-crimson'}`}
                  style={{ left: place(told.p10), width: `calc(${place(told.p90)} - ${place(told.p10)})`, minWidth: 3 }}
                />
                <span
                  className="absolute inset-y-0 border-x-2 border-ink"
                  style={{
                    left: place(row.notBeforeH),
                    width: `calc(${place(row.outcomeH)} - ${place(row.notBeforeH)})`,
                  }}
                />
              </span>
              <span className="text-sm">
                at {told.saidAtH.toFixed(0)} h: {told.p10.toFixed(0)} to{' '}
                {told.p90 > 400 ? 'never' : `${told.p90.toFixed(0)} h`} <strong>{hit ? '' : 'missed'}</strong>
              </span>
            </li>
          );
        })}
      </ul>
    </li>
  );
}
