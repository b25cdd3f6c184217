import { geoEquirectangular, geoGraticule, geoPath } from 'd3-geo';
import { useMemo, type KeyboardEvent, type MouseEvent } from 'react';
import { feature } from 'topojson-client';
import type { Topology } from 'topojson-specification';
import land from 'world-atlas/land-110m.json';

const WIDTH = 720;
const HEIGHT = 300;
/** Where cacao grows, degrees north and south. */
const BELT = 20;

interface Point {
  lat: number;
  lon: number;
}

/** The warm half of the world with the belt where cacao grows; a press puts the point there. Shipped, nothing is fetched. */
export default function WorldMap({ point, choose }: { point: Point | null; choose?: (point: Point) => void }) {
  const { projection, outline, belt, grid } = useMemo(() => {
    const projected = geoEquirectangular()
      .scale(WIDTH / (2 * Math.PI))
      .translate([WIDTH / 2, HEIGHT / 2 + 20]);
    const path = geoPath(projected);
    const topology = land as unknown as Topology;
    const shape = topology.objects['land'];
    return {
      projection: projected,
      outline: shape ? (path(feature(topology, shape)) ?? '') : '',
      belt: [projected([0, BELT])?.[1] ?? 0, projected([0, -BELT])?.[1] ?? 0],
      grid: path(geoGraticule().step([30, 30])()) ?? '',
    };
  }, []);
  const at = point ? projection([point.lon, point.lat]) : null;
  const press = (event: MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const there = projection.invert?.([
      ((event.clientX - box.left) / box.width) * WIDTH,
      ((event.clientY - box.top) / box.height) * HEIGHT,
    ]);
    if (there) choose?.({ lon: Math.round(there[0] * 10) / 10, lat: Math.round(there[1] * 10) / 10 });
  };
  const nudge = (event: KeyboardEvent): void => {
    const step: Record<string, [number, number]> = {
      ArrowUp: [1, 0],
      ArrowDown: [-1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const move = step[event.key];
    if (!move || !choose) return;
    event.preventDefault();
    const from = point ?? { lat: 0, lon: 0 };
    choose({
      lat: Math.max(-90, Math.min(90, from.lat + move[0])),
      lon: Math.max(-180, Math.min(180, from.lon + move[1])),
    });
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={`w-full rounded-md bg-sunk ${choose ? 'cursor-crosshair' : ''}`}
      role={choose ? 'application' : 'img'}
      aria-label={
        point
          ? `Map with the place at ${point.lat}° latitude, ${point.lon}° longitude${choose ? '; arrow keys move it' : ''}`
          : 'Map without a place yet'
      }
      tabIndex={choose ? 0 : undefined}
      onClick={choose ? press : undefined}
      onKeyDown={choose ? nudge : undefined}
    >
      <path d={grid} fill="none" stroke="var(--rule)" strokeWidth={0.6} />
      <rect
        x={0}
        width={WIDTH}
        y={belt[0]}
        height={(belt[1] ?? 0) - (belt[0] ?? 0)}
        fill="var(--leaf)"
        opacity={0.14}
      />
      <path d={outline} fill="var(--sheet)" stroke="var(--rule)" strokeWidth={0.8} />
      <text x={8} y={(belt[0] ?? 0) - 5} fontSize={11} fill="var(--ink-soft)">
        20° N
      </text>
      <text x={8} y={(belt[1] ?? 0) + 14} fontSize={11} fill="var(--ink-soft)">
        20° S
      </text>
      {at && (
        <g transform={`translate(${at[0]} ${at[1]})`}>
          <path d="M0 0c-7-9-9-13-9-17a9 9 0 1 1 18 0c0 4-2 8-9 17Z" fill="var(--crimson)" />
          <circle cy={-17} r={3} fill="var(--sheet)" />
        </g>
      )}
    </svg>
  );
}
