import { useId } from 'react';
import type { Bar } from '@wunsch/core/temper/crystal';

const ROWS = 2;
const COLUMNS = 4;
const CELL = { width: 68, height: 52 };

/** The bar that a bowl would make, drawn: how it shines, its streaks, its grey veil, what stuck to the mould. */
export function DrawnBar({ bar }: { bar: Bar }) {
  const id = useId();
  const width = COLUMNS * CELL.width;
  const height = ROWS * CELL.height;
  const words = `gloss ${percent(bar.gloss)}, snap ${percent(bar.snap)}, release ${percent(bar.release)}, streaks ${percent(bar.streaks)}, veil ${percent(bar.veil)}`;
  return (
    <svg
      viewBox={`-4 -4 ${width + 8} ${height + 8}`}
      className="w-full max-w-sm"
      role="img"
      aria-label={`The bar: ${words}`}
    >
      <defs>
        <linearGradient id={`${id}-shine`} x1="0" y1="0" x2="1" y2="1">
          <stop offset="0" stopColor="#fff" stopOpacity={0.55 * bar.gloss} />
          <stop offset="0.45" stopColor="#fff" stopOpacity={0.05 * bar.gloss} />
          <stop offset="1" stopColor="#fff" stopOpacity="0" />
        </linearGradient>
        <filter id={`${id}-veil`}>
          <feTurbulence type="fractalNoise" baseFrequency="0.035 0.05" numOctaves="3" seed="4" />
          <feColorMatrix values="0 0 0 0 0.85  0 0 0 0 0.82  0 0 0 0 0.78  0 0 0 2.6 -0.9" />
        </filter>
        <filter id={`${id}-streaks`}>
          <feTurbulence type="fractalNoise" baseFrequency="0.004 0.09" numOctaves="2" seed="9" />
          <feColorMatrix values="0 0 0 0 0.8  0 0 0 0 0.74  0 0 0 0 0.68  0 0 0 3 -1.2" />
        </filter>
        <clipPath id={`${id}-bar`}>
          <rect width={width} height={height} rx="6" />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}-bar)`}>
        <rect width={width} height={height} fill="#3a1f19" />
        {Array.from({ length: ROWS * COLUMNS }, (_, i) => {
          const [x, y] = [(i % COLUMNS) * CELL.width, Math.floor(i / COLUMNS) * CELL.height];
          return (
            <g key={i}>
              <rect x={x + 4} y={y + 4} width={CELL.width - 8} height={CELL.height - 8} rx="4" fill="#4a2a22" />
              <rect
                x={x + 4}
                y={y + 4}
                width={CELL.width - 8}
                height={CELL.height - 8}
                rx="4"
                fill={`url(#${id}-shine)`}
              />
            </g>
          );
        })}
        <rect width={width} height={height} filter={`url(#${id}-streaks)`} opacity={bar.streaks} />
        <rect width={width} height={height} filter={`url(#${id}-veil)`} opacity={0.8 * bar.veil} />
        {/* What stayed in the mould is torn out of it. */}
        {bar.release < 0.35 && (
          <path
            d={`M ${width - 96} ${height} q 12 -26 34 -18 t 30 -20 q 16 6 32 -4 V ${height} Z`}
            fill="var(--paper)"
            opacity={1 - bar.release}
          />
        )}
      </g>
    </svg>
  );
}

const percent = (share: number): string => `${Math.round(100 * share)}\u00a0%`;
