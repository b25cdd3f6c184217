import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { getJson } from '../parts/api';

/**
 * Keys of a scanner come closer on the whole than any hand types, ms. A single one may be late where a radio or a busy
 * machine is between.
 */
const FAST_MS = 50;
const LATE_MS = 150;
/** So many keys at the least are a code. */
const FEWEST = 3;

/** What came in fast so far; beside the screens, which change while it comes. */
const heard = { typed: '', first: 0, last: 0, scannedAt: -Infinity };

/** Milliseconds that a single letter waits before it is a short cut: the first of a code looks like one. */
export const SHORT_CUT_MS = 60;
/** Whether a code is coming in, or came in just now. */
export function isScanning(): boolean {
  const now = performance.now();
  const comes = heard.typed.length > 1 && heard.last - heard.first <= FAST_MS * heard.typed.length;
  return now - Math.max(heard.scannedAt, comes ? heard.last : -Infinity) < 4 * SHORT_CUT_MS;
}

/** A path of our own within what a QR code says; null: it leads elsewhere. */
function ownPath(text: string): string | null {
  if (!/^https?:\/\//i.test(text)) return null;
  if (!URL.canParse(text)) return null;
  const { host, pathname, search } = new URL(text);
  // A label that was printed under another name of this server still opens here.
  return host === window.location.host || /^\/(tub|lot|trace|batch|station|step|recall)\//.test(pathname)
    ? pathname + search
    : null;
}

/** Where a code leads: its tub, lot or batch. */
async function pathOf(text: string): Promise<string | null> {
  const own = ownPath(text);
  if (own !== null) return own;
  const code = text.trim();
  if (!/^[\w/-]{2,40}$/.test(code)) return null;
  const { link } = await getJson(`/api/trace/open/${encodeURIComponent(code)}`);
  return link;
}

/**
 * A scanner that types: letters that come faster than a hand, ended by Enter, open the thing at once. Where a field is
 * being typed in, or keys are tallied, they belong there.
 */
export function useScanner(failed: (code: string) => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const { target, key } = event;
      const isField =
        target instanceof HTMLElement &&
        (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));
      if (isField || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      // A tally takes every key, however fast.
      if (document.querySelector('[data-takes-keys]')) return;
      const now = event.timeStamp;
      if (now - heard.last > LATE_MS) heard.typed = '';
      if (heard.typed === '') heard.first = now;
      heard.last = now;
      if (key === 'Enter') {
        const code = heard.typed;
        heard.typed = '';
        if (code.length < FEWEST || now - heard.first > FAST_MS * code.length) return;
        heard.scannedAt = now;
        event.preventDefault();
        event.stopPropagation();
        void pathOf(code).then(
          (path) => (path === null ? failed(code) : void navigate(path)),
          () => failed(code),
        );
        return;
      }
      if (key.length !== 1) return;
      heard.typed += key;
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [navigate, failed]);
}
