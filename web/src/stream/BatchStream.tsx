import { Link } from 'react-router';
import type { StreamStation } from '@wunsch/core/api/types';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { STATION_NAMES } from '@wunsch/core/work/stations';
import { useShow } from '../parts/workshop';
import { flowShape } from './geometry';
import { MATERIAL } from './material';

const COLUMN = 120;
const HEIGHT = 120;
const DROP = 46;

/** One subject's grams from beans to bars: loads flowing together, what joins, what falls away. */
export function BatchStream({ stream, title }: { stream: readonly StreamStation[]; title: string }) {
  const show = useShow();
  const rows = stream.filter(
    ({ station, inMg, goodMg }) => MATERIAL[station].made !== null && (inMg > 0 || goodMg > 0),
  );
  if (rows.length === 0) return null;
  const columns = rows.map(({ inMg, joinedMg, goodMg, losses, byProductMg }) => ({
    inMg: Math.max(inMg, goodMg),
    joinedMg,
    goodMg: goodMg > 0 ? goodMg : inMg,
    lossMg:
      Math.max(
        0,
        losses.reduce((sum, { mg }) => sum + mg, 0),
      ) + byProductMg,
  }));
  const shape = flowShape(columns, COLUMN, HEIGHT, DROP);
  const width = COLUMN * rows.length;
  return (
    <figure aria-label={title} tabIndex={0} className="overflow-x-auto">
      <div className="min-w-[720px]">
        <div className="grid" style={{ gridTemplateColumns: `repeat(${rows.length}, minmax(0, 1fr))` }}>
          {rows.map((row) => (
            <div key={row.station} className="pr-2">
              <Link to={`/station/${row.station}`} className="link text-base">
                {STATION_NAMES[row.station]}
              </Link>
              <div className="figure mt-1 text-xl">{show.mass(row.goodMg > 0 ? row.goodMg : row.inMg)}</div>
              <div className="min-h-5 text-[0.8125rem] text-soft">
                {row.inMg > 0 &&
                  row.goodMg > 0 &&
                  Math.abs(row.goodMg - row.inMg) > 500 &&
                  show.percent(row.goodMg / row.inMg)}
                {row.steps.length > 1 &&
                  MATERIAL[row.station].steps !== undefined &&
                  ` · ${row.steps.length} ${MATERIAL[row.station].steps}`}
              </div>
            </div>
          ))}
        </div>
        <svg
          viewBox={`0 ${-DROP * 0.6} ${width} ${HEIGHT + DROP * 1.75}`}
          preserveAspectRatio="none"
          className="mt-1 h-[190px] w-full"
          aria-hidden
        >
          <defs>
            <pattern id="loss-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="2.2" height="6" fill="var(--hatch)" />
            </pattern>
            {rows.map((row, index) => {
              const made = colour(row);
              return (
                <linearGradient key={row.station} id={`flow-${row.station}`} x1="0" x2="1">
                  <stop offset="0.2" stopColor={colour(rows[index - 1]) ?? MATERIAL[row.station].stands} />
                  <stop offset="0.7" stopColor={made} />
                </linearGradient>
              );
            })}
          </defs>
          {shape.joins.map(
            (d, index) =>
              d !== '' && (
                <path
                  key={`join-${index}`}
                  d={d}
                  fill="var(--pulp)"
                  stroke="var(--rule)"
                  vectorEffect="non-scaling-stroke"
                />
              ),
          )}
          {shape.tongues.map((d, index) => d !== '' && <path key={`loss-${index}`} d={d} fill="url(#loss-hatch)" />)}
          {shape.bands.map((d, index) => (
            <path key={rows[index]?.station} d={d} fill={`url(#flow-${rows[index]?.station})`} />
          ))}
        </svg>
        <div
          className="grid text-[0.8125rem] leading-snug"
          style={{ gridTemplateColumns: `repeat(${rows.length}, minmax(0, 1fr))` }}
        >
          {rows.map((row) => (
            <ul key={row.station} className="pr-2">
              {row.joinedMg > 500 && <li>+ {show.mass(row.joinedMg)} joined</li>}
              {row.reworkMg > 500 && <li>{show.mass(row.reworkMg)} came back and went round again</li>}
              {row.byProductMg > 500 && (
                <li className="text-soft">
                  husk {show.mass(row.byProductMg)} <span>({show.percent(row.byProductMg / row.inMg)})</span>
                </li>
              )}
              {row.losses
                .filter(({ mg }) => Math.abs(mg) > 500)
                .sort((a, b) => b.mg - a.mg)
                .map(({ cause, mg }) => (
                  <li key={cause} className={cause === 'unaccounted' ? 'text-crimson' : 'text-soft'}>
                    {LOSS_NAMES[cause].toLowerCase()} {show.mass(mg)} ({show.percent(mg / row.inMg)})
                  </li>
                ))}
            </ul>
          ))}
        </div>
      </div>
    </figure>
  );
}

/** What comes out of a station looks like this. */
const colour = (row: StreamStation | undefined): string | undefined => (row && MATERIAL[row.station].made) ?? undefined;
