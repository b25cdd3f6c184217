import { useEffect, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { WorkView } from '@wunsch/core/api/types';
import { hasDraft } from '../parts/draft';

/**
 * Which work under way is on the bench: the one asked for in the address, else the first; none for a new one.
 * `gone` is work that somebody else has ended while something was typed here.
 */
export function useChosenWork(works: readonly WorkView[]): {
  work: WorkView | undefined;
  gone: string | undefined;
  select: (id: string) => void;
  done: () => void;
} {
  const [query, setQuery] = useSearchParams();
  const asked = query.get('work');
  const first =
    asked === 'new' ? undefined : (works.find(({ id }) => id === asked) ?? (asked === null ? works[0] : undefined));
  const [last, setLast] = useState(first?.id);
  const missing = asked !== null && asked !== 'new' ? asked : last;
  const gone =
    missing !== undefined && asked !== 'new' && !works.some(({ id }) => id === missing) && hasDraft(`work.${missing}`)
      ? missing
      : undefined;
  if (gone === undefined && first?.id !== last) setLast(first?.id);
  const shown = asked === null ? first?.id : undefined;
  useEffect(() => {
    // The address says which work is on the bench: reloaded, what was typed is about the same one.
    if (shown !== undefined) setQuery({ work: shown }, { replace: true });
  }, [shown, setQuery]);
  return {
    work: gone === undefined ? first : undefined,
    gone,
    select: (id) => setQuery({ work: id }, { replace: true }),
    done: () => {
      setLast(undefined);
      setQuery({}, { replace: true });
    },
  };
}

interface Props {
  works: readonly WorkView[];
  chosen: WorkView | undefined;
  select: (id: string) => void;
  /** Two lines about one piece of work. */
  words: (work: WorkView) => readonly [ReactNode, ReactNode];
  another: string;
}

/** Everything under way at a station, and the door to begin another. */
export function WorkChips({ works, chosen, select, words, another }: Props) {
  if (works.length === 0) return null;
  return (
    <div className="mb-6 flex flex-wrap gap-2">
      {works.map((work) => {
        const [first, second] = words(work);
        return (
          <button
            key={work.id}
            type="button"
            aria-pressed={work.id === chosen?.id}
            onClick={() => select(work.id)}
            className="chip min-h-[60px]! items-start! rounded-lg! py-2 text-left"
          >
            <span>
              <span className="block">{first}</span>
              <span className="block text-sm opacity-80">{second}</span>
            </span>
          </button>
        );
      })}
      <button
        type="button"
        className="chip min-h-[60px]! rounded-lg!"
        aria-pressed={chosen === undefined}
        onClick={() => select('new')}
      >
        + {another}
      </button>
    </div>
  );
}
