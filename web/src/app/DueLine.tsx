import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { DueItem } from '@wunsch/core/api/types';
import { StationIcon } from '../parts/icons';
import { span } from '../parts/workshop';

const HOUR_MS = 3_600_000;

export function useNow(everyMs = 15_000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(tick);
  }, [everyMs]);
  return now;
}

/** `in 12 min`, `now`, `3 days over`. */
export const untilWords = (at: number, now: number): string =>
  Math.abs(at - now) < 60_000 ? 'now' : at > now ? `in ${span(at - now)}` : `${span(now - at)} over`;

/** What needs a person next, at the foot of every screen; nothing is said until the floor has been read. */
export function DueLine({ due }: { due: readonly DueItem[] | undefined }) {
  const now = useNow();
  const grouped = due?.filter(
    (item, index) =>
      item.together !== true ||
      due.findIndex(({ station, at }) => station === item.station && Math.abs(at - item.at) < HOUR_MS) === index,
  );
  return (
    <footer className="fixed inset-x-0 bottom-0 z-20 border-t border-rule bg-sheet print:hidden">
      <div className="mx-auto flex max-w-[1360px] items-center gap-4 px-3 sm:px-6">
        <span className="figure shrink-0 text-base">Next</span>
        {grouped === undefined ? (
          <span className="min-h-[52px]" />
        ) : grouped.length === 0 ? (
          <span className="flex min-h-[52px] items-center text-sm text-soft">Nothing needs a person now.</span>
        ) : (
          <ol className="flex min-w-0 flex-1 gap-1 overflow-x-auto">
            {grouped.slice(0, 8).map((item) => (
              <li key={item.id} className="shrink-0">
                <Link
                  to={item.link}
                  className="flex min-h-[52px] items-center gap-2 rounded-md px-3 text-sm hover:bg-sunk"
                >
                  <StationIcon station={item.station} size={18} />
                  <span>{item.text}</span>
                  <strong className={item.at < now ? 'text-crimson' : 'text-leaf'}>{untilWords(item.at, now)}</strong>
                </Link>
              </li>
            ))}
          </ol>
        )}
      </div>
    </footer>
  );
}
