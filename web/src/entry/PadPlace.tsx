import { createContext, useCallback, useContext, useEffect, useId, useMemo, useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

interface Place {
  /** Where the pad of a wide bench stands; null on narrow screens and elsewhere. */
  element: HTMLElement | null;
  /** The entry whose pad it is: the one that somebody was in last. */
  owner: string | null;
  claim: (owner: string) => void;
  leave: (owner: string) => void;
}

const NOWHERE: Place = { element: null, owner: null, claim: () => undefined, leave: () => undefined };
const PlaceContext = createContext<Place>(NOWHERE);

const WIDE = '(min-width: 1024px)';

/** Whether the screen is wide enough for a pad beside the bench. */
function useWide(): boolean {
  const [wide, setWide] = useState(() => window.matchMedia(WIDE).matches);
  useEffect(() => {
    const query = window.matchMedia(WIDE);
    const look = (): void => setWide(query.matches);
    query.addEventListener('change', look);
    return () => query.removeEventListener('change', look);
  }, []);
  return wide;
}

/**
 * A bench with a place for its weigh pad, in its margin and always in view, however far down the entry stands.
 *
 * @param children draws the bench; `place` goes where the pad is to stand
 */
export function WithPadPlace({ children }: { children: (place: ReactNode) => ReactNode }) {
  const [element, setElement] = useState<HTMLElement | null>(null);
  const [entries, setEntries] = useState<readonly string[]>([]);
  const wide = useWide();
  const claim = useCallback(
    (owner: string) => setEntries((now) => (now.at(-1) === owner ? now : [...now.filter((id) => id !== owner), owner])),
    [],
  );
  const leave = useCallback((owner: string) => setEntries((now) => now.filter((id) => id !== owner)), []);
  const owner = entries.at(-1) ?? null;
  const place = useMemo(
    () => ({ element: wide ? element : null, owner, claim, leave }),
    [wide, element, owner, claim, leave],
  );
  return (
    <PlaceContext value={place}>
      {children(<div ref={setElement} className={owner === null ? 'hidden' : 'pad-place'} />)}
    </PlaceContext>
  );
}

/**
 * How an entry shows its pad: beside itself, or in the margin of the bench.
 *
 * @param needed whether there is a figure to fill: without one the margin is left to what stands below
 */
export function usePadPlace(needed: boolean): {
  /** Whether the pad stands in the margin. */
  away: boolean;
  /** Makes the pad this entry's. */
  claim: () => unknown;
  /** Where in the margin; null: beside the entry. */
  element: HTMLElement | null;
  /** Whether the pad is this entry's. */
  own: boolean;
} {
  const id = useId();
  const { element, owner, claim, leave } = useContext(PlaceContext);
  useEffect(() => {
    if (!needed) return;
    claim(id);
    return () => leave(id);
  }, [id, needed, claim, leave]);
  return {
    away: element !== null,
    claim: () => needed && claim(id),
    element,
    own: owner === id,
  };
}

/** A pad where it stands; nothing while the place is another entry's. */
export function PadStand({ place, children }: { place: ReturnType<typeof usePadPlace>; children: ReactNode }) {
  if (place.element === null) return children;
  return place.own ? createPortal(children, place.element) : null;
}
