import { useEffect, useRef } from 'react';
import { Link, useParams } from 'react-router';
import type { FloorStation, FloorView } from '@wunsch/core/api/types';
import { STATION_NAMES, STATIONS } from '@wunsch/core/work/stations';
import { StationIcon } from '../parts/icons';
import { useShow } from '../parts/workshop';
import { floorShape } from './geometry';
import { MATERIAL } from './material';

const COLUMN = 100;

/** The band that runs through the workshop: what stands at each station, what passed in a week. It is the navigation. */
export function FloorStream({ floor, tall }: { floor: FloorView; tall: boolean }) {
  const { station: here } = useParams();
  const half = tall ? 74 : 17;
  const shape = floorShape(floor.stations, COLUMN, half);
  const width = COLUMN * STATIONS.length;
  const scroller = useRef<HTMLElement>(null);
  useEffect(() => {
    // On a narrow screen the band scrolls by itself; the station in hand comes into view.
    const at = STATIONS.findIndex((station) => station === here);
    const box = scroller.current;
    if (box && at >= 0 && box.scrollWidth > box.clientWidth)
      box.scrollLeft = ((at + 0.5) / STATIONS.length) * box.scrollWidth - box.clientWidth / 2;
  }, [here]);
  return (
    <nav ref={scroller} aria-label="Stations" className="overflow-x-auto overflow-y-hidden">
      <div className={`relative ${tall ? 'min-w-[740px]' : 'min-w-[660px]'}`}>
        <svg
          viewBox={`0 ${-half - 3} ${width} ${2 * half + 6}`}
          preserveAspectRatio="none"
          className={`pointer-events-none absolute inset-x-0 w-full ${tall ? 'top-[54px] h-[154px]' : 'top-[25px] h-[32px]'}`}
          aria-hidden
        >
          <defs>
            <linearGradient id={tall ? 'material-tall' : 'material'} x1="0" x2="1" y1="0" y2="0">
              {STATIONS.map((station, index) => (
                <stop key={station} offset={(index + 0.5) / STATIONS.length} stopColor={MATERIAL[station].stands} />
              ))}
            </linearGradient>
          </defs>
          <path d={shape.outline} fill={`url(#${tall ? 'material-tall' : 'material'})`} />
          {shape.broken.map((broken, i) =>
            broken ? (
              <path
                key={i}
                d={[-1, 1]
                  .map(
                    (side) =>
                      `M${i * COLUMN + 8},${side * half * 0.62} l14,${side * 5} l14,${-side * 5} l14,${side * 5} l14,${-side * 5} l14,${side * 5} l14,${-side * 5}`,
                  )
                  .join('')}
                fill="none"
                stroke="var(--paper)"
                strokeWidth={tall ? 4 : 2}
                vectorEffect="non-scaling-stroke"
              />
            ) : null,
          )}
        </svg>
        <ol className="relative grid grid-cols-10">
          {floor.stations.map((row, index) => (
            <StationColumn
              key={row.station}
              row={row}
              index={index}
              tall={tall}
              here={here === row.station}
              broken={shape.broken[index] ?? false}
            />
          ))}
        </ol>
      </div>
    </nav>
  );
}

function StationColumn({
  row,
  index,
  tall,
  here,
  broken,
}: {
  row: FloorStation;
  index: number;
  tall: boolean;
  here: boolean;
  broken: boolean;
}) {
  const show = useShow();
  const digit = (index + 1) % 10;
  const words = `${STATION_NAMES[row.station]}: ${show.mass(row.standingMg)} standing, ${show.mass(row.workingMg)} at work, ${show.mass(row.passedMg)} passed in seven days`;
  return (
    <li>
      <Link
        to={`/station/${row.station}`}
        aria-label={words}
        aria-current={here ? 'page' : undefined}
        title={`${words}. Key ${digit}`}
        className={`flex flex-col items-center rounded-md px-1 hover:bg-[color-mix(in_oklab,var(--ink),transparent_94%)] ${tall ? 'h-[294px]' : 'h-[76px]'} ${here ? 'bg-[color-mix(in_oklab,var(--ink),transparent_90%)]' : ''}`}
      >
        <span
          className={`flex items-center gap-1.5 ${tall ? 'h-[50px] text-base lg:text-lg' : 'h-[26px] text-sm'} ${here ? 'font-bold' : ''}`}
        >
          {tall && (
            <span className="hidden lg:block">
              <StationIcon station={row.station} size={22} />
            </span>
          )}
          {STATION_NAMES[row.station]}
        </span>
        <span className={tall ? 'h-[164px]' : 'h-[30px]'} />
        <span className={`figure whitespace-nowrap ${tall ? 'text-base lg:text-[1.35rem]' : 'text-[0.9rem]'}`}>
          {row.standingMg > 0 ? show.mass(row.standingMg) : '–'}
        </span>
        {tall && (
          <span className="mt-1.5 text-center text-[0.8125rem] leading-tight text-soft">
            {row.workingMg > 0
              ? `${show.mass(row.workingMg)} at work`
              : row.holdings > 0
                ? `${row.holdings} waiting`
                : 'nothing here'}
            {broken && <span className="block">more than drawn</span>}
          </span>
        )}
      </Link>
    </li>
  );
}
