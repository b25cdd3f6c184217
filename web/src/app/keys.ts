import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { isScanning, SHORT_CUT_MS } from './scanner';
import { STATIONS } from '@wunsch/core/work/stations';

interface Acts {
  openPalette: () => void;
  openHelp: () => void;
  turnTheme: () => void;
}

/** Every key, with what it does: the list that `?` shows. */
export const KEYS: readonly (readonly [string, string])[] = [
  ['1 … 9, 0', 'Beans, Sort, Roast, Winnow, Grind, Rest, Temper, Mould, Pack, Taste'],
  ['F', 'The floor'],
  ['B', 'Batches'],
  ['L', 'Lots'],
  ['G', 'Where the grams went: the loss book'],
  ['S', 'The store'],
  ['W', 'The workshop: team, machines, routes, units'],
  ['Ctrl K or /', 'Find any code or page'],
  ['N', 'Night and day'],
  ['Enter', 'On to the next field'],
  ['Ctrl Enter', 'Save what is on the bench'],
  ['Alt T, Alt A, Alt U', 'Tare, add the weighing, the other unit'],
  ['?', 'These keys'],
];

const PAGES: Record<string, string> = { f: '/', b: '/batches', l: '/lots', g: '/losses', s: '/store', w: '/workshop' };

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Keys that work anywhere but in a field, an open dialog, or while an entry is begun: then they are the entry's. */
export function useKeys(acts: Acts): void {
  const navigate = useNavigate();
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        latest.current.openPalette();
        return;
      }
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        document.querySelector('[role=dialog], form[data-begun=true]')
      )
        return;
      const station = /^\d$/.test(event.key) ? STATIONS[(Number(event.key) + 9) % 10] : undefined;
      const page = PAGES[event.key.toLowerCase()];
      const to = station ? `/station/${station}` : page;
      const act =
        to !== undefined
          ? () => void navigate(to)
          : event.key === '?'
            ? latest.current.openHelp
            : event.key === '/'
              ? latest.current.openPalette
              : event.key.toLowerCase() === 'n'
                ? latest.current.turnTheme
                : null;
      if (act === null) return;
      // The first letter of a code that is scanned looks like a short cut: the next one tells.
      setTimeout(() => {
        if (!isScanning()) act();
      }, SHORT_CUT_MS);
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate]);
}
