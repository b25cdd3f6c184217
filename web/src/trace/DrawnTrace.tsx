import { useMemo } from 'react';
import { sankey, sankeyLinkHorizontal } from 'd3-sankey';
import { Link } from 'react-router';
import type { TraceDrawing, TracePlace } from '@wunsch/core/trace/branches';
import { useApi } from '../parts/api';
import { KIND_NAMES } from '../parts/pieces';
import { count, useShow, type Show } from '../parts/workshop';
import { TRACE_MATERIAL } from '../stream/material';

const WIDTH = 1200;
const NODE = 10;
/** Room for the names of buyers. */
const RIGHT = 200;
const ROW = 46;
const LEAST = 200;
const MOST = 620;

interface Drawn {
  place: TracePlace;
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}
interface Band {
  path: string;
  width: number;
  kind: TracePlace['kind'];
  lost: boolean;
}

/** Where places and bands stand, from left (sacks) to right (buyers). */
function laidOut({ places, bands }: TraceDrawing): { height: number; column: number; nodes: Drawn[]; links: Band[] } {
  const first = Math.min(...places.map(({ depth }) => depth));
  const columns = new Map<number, number>();
  for (const { depth } of places) columns.set(depth, (columns.get(depth) ?? 0) + 1);
  const height = Math.min(MOST, Math.max(LEAST, ROW * Math.max(...columns.values())));
  const layout = sankey<{ place: TracePlace }, object>()
    .nodeId((node) => node.place.id)
    .nodeAlign((node) => node.place.depth - first)
    .nodeWidth(NODE)
    .nodePadding(22)
    .extent([
      [2, 14],
      [WIDTH - RIGHT, height - 14],
    ]);
  const joined = new Set(bands.flatMap(({ from, to }) => [from, to]));
  const { nodes, links } = layout({
    nodes: places.filter(({ id }) => joined.has(id)).map((place) => ({ place })),
    links: bands.map(({ from, to, massMg }) => ({ source: from, target: to, value: massMg })),
  });
  const draw = sankeyLinkHorizontal();
  return {
    height,
    column: (WIDTH - RIGHT) / Math.max(1, Math.max(...places.map(({ depth }) => depth)) - first),
    nodes: nodes.map(({ place, x0 = 0, x1 = 0, y0 = 0, y1 = 0 }) => ({ place, x0, x1, y0, y1 })),
    links: links.map((link) => ({
      path: draw(link) ?? '',
      width: Math.max(1, link.width ?? 1),
      kind: (link.source as unknown as { place: TracePlace }).place.kind,
      lost: (link.target as unknown as { place: TracePlace }).place.kind === 'loss',
    })),
  };
}

/** A trace drawn: sacks at the left, buyers at the right, bands as wide as their grams; each place is a press away. */
export function DrawnTrace({ code }: { code: string }) {
  const { data } = useApi(`/api/trace/codes/${encodeURIComponent(code)}/drawing`);
  const show = useShow();
  const drawn = useMemo(() => (data && data.bands.length > 0 ? laidOut(data) : null), [data]);
  if (!drawn) return null;
  return (
    <figure className="mt-4 overflow-x-auto" aria-label="Drawn, from the sacks to the buyers" tabIndex={0}>
      <div className="relative min-w-[900px]" style={{ aspectRatio: `${WIDTH} / ${drawn.height}` }}>
        <svg viewBox={`0 0 ${WIDTH} ${drawn.height}`} className="absolute inset-0 size-full" aria-hidden>
          <defs>
            <pattern id="trace-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="2.2" height="6" fill="var(--hatch)" />
            </pattern>
          </defs>
          {drawn.links.map(({ path, width, kind, lost }, index) => (
            <path
              key={index}
              d={path}
              fill="none"
              stroke={lost ? 'url(#trace-hatch)' : TRACE_MATERIAL[kind]}
              strokeOpacity={lost ? 1 : 0.45}
              strokeWidth={width}
            />
          ))}
          {drawn.nodes.map(({ place, x0, x1, y0, y1 }) => (
            <rect
              key={place.id}
              x={x0}
              y={y0}
              width={x1 - x0}
              height={Math.max(2, y1 - y0)}
              fill={place.kind === 'loss' ? 'url(#trace-hatch)' : TRACE_MATERIAL[place.kind]}
              stroke={place.depth === 0 ? 'var(--ink)' : 'none'}
              strokeWidth={2}
            />
          ))}
        </svg>
        {drawn.nodes.map(({ place, x1, y0, y1 }) => (
          <Word
            key={place.id}
            place={place}
            show={show}
            wide={x1 > WIDTH - RIGHT - 5 ? RIGHT - 10 : drawn.column - NODE - 8}
            tall={y1 - y0}
            style={{ left: `${(100 * (x1 + 4)) / WIDTH}%`, top: `${(100 * (y0 + y1)) / 2 / drawn.height}%` }}
          />
        ))}
      </div>
    </figure>
  );
}

/** px of a place from which its amount stands under its name. */
const TWO_LINES = 30;

function Word({
  place,
  show,
  wide,
  tall,
  style,
}: {
  place: TracePlace;
  show: Show;
  wide: number;
  tall: number;
  style: React.CSSProperties;
}) {
  const { kind, codes, count: many, name, pieces, massMg } = place;
  const [code] = codes;
  // Small losses are seen, not named.
  if (kind === 'loss' && tall < 6) return null;
  const amount = pieces > 0 && kind !== 'loss' ? count(pieces) : show.mass(massMg);
  const words =
    kind === 'buyer'
      ? many > 1
        ? `${many} buyers`
        : name
      : kind === 'loss'
        ? 'lost'
        : many > 1
          ? `${many} × ${KIND_NAMES[kind]}`
          : (code ?? name);
  const title = kind === 'buyer' || kind === 'loss' ? words : `${name}, ${KIND_NAMES[kind]}`;
  return (
    <span
      className={`absolute -translate-y-1/2 text-[0.8rem] leading-tight ${tall < TWO_LINES ? 'truncate' : ''}`}
      style={{ ...style, maxWidth: `${(100 * wide) / WIDTH}%` }}
      title={title}
    >
      {code !== undefined && many === 1 ? (
        <Link
          to={`/trace/${encodeURIComponent(code)}`}
          className="code link"
          aria-current={place.depth === 0 || undefined}
        >
          {words}
        </Link>
      ) : (
        <strong className="font-semibold">{words}</strong>
      )}{' '}
      <span className={`figure ${tall < TWO_LINES ? '' : 'block'}`}>{amount}</span>
    </span>
  );
}
