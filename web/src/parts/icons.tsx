import type { Place } from '@wunsch/core/work/stations';
import type { ReactNode } from 'react';

/** One small drawing a station, in the stroke of the text: what the hands hold there. */
const DRAWINGS: Record<Place, ReactNode> = {
  beans: (
    <path d="M6 4c-2 4-2 12 0 16h12c2-4 2-12 0-16M6 4h12M8 4c1 2 7 2 8 0M9 12c0-2 2-3 3-3s3 1 3 3-2 3-3 3-3-1-3-3Z" />
  ),
  sort: <path d="M3 8h18M4 8l2 10h12l2-10M8 12h.01M12 12h.01M16 12h.01M10 15h.01M14 15h.01M7 4l2 2M17 4l-2 2" />,
  roast: (
    <path d="M4 5h16v15H4zM4 10h16M8 7.5h.01M12 7.5h4M8 16c0-2 2-2 2-4 2 1 2 3 2 4s-1 2-2 2-2-1-2-2ZM14 16c0-1 1-1 1-2 1 .5 1.500 1.500 1.500 2s-.5 1.500-1.200 1.500S14 16.700 14 16Z" />
  ),
  winnow: <path d="M3 9h11a3 3 0 1 0-3-3M3 13h15a3 3 0 1 1-3 3M3 17h7a2 2 0 1 1-2 2" />,
  grind: (
    <path d="M4 12c0-3 4-5 8-5s8 2 8 5-4 5-8 5-8-2-8-5ZM4 12v5c0 2 4 4 8 4s8-2 8-4v-5M12 3v9M9 12a3 1.500 0 0 0 6 0" />
  ),
  rest: <path d="M3 20h18M5 20v-6h6v6M13 20v-6h6v6M9 14V8h6v6" />,
  temper: <path d="M10 14V5a2 2 0 1 1 4 0v9a4 4 0 1 1-4 0ZM12 9v8M17 6h3M17 10h2" />,
  mould: <path d="M3 6h18v12H3zM9 6v12M15 6v12M3 12h18" />,
  pack: <path d="M5 4h14v16H5zM5 9h14M8 13h8M8 16h5" />,
  taste: <path d="M4 14c3-4 6-5 8-3 2-2 5-1 8 3-3 4-6 5-8 5s-5-1-8-5ZM4 14c5 1.500 11 1.500 16 0" />,
  pantry: <path d="M7 3h10v4H7zM6 7h12v13H6zM9 12h6" />,
  store: <path d="M4 5h16M4 12h16M4 19h16M6 5v7M18 5v7M6 12v7M18 12v7" />,
};

/** A small drawing in the stroke of the text. */
export function Drawing({ children, size, stroke = 1.6 }: { children: ReactNode; size: number; stroke?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={stroke}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {children}
    </svg>
  );
}

export const StationIcon = ({ station, size = 24 }: { station: Place; size?: number }) => (
  <Drawing size={size}>{DRAWINGS[station]}</Drawing>
);
