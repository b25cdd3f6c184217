import { hostname } from 'node:os';
import { isIP } from 'node:net';

/**
 * Whether a request was sent to a name that this server goes by. A page elsewhere can make its own name point here and
 * then read everything as if it were ours; it cannot do so with an address, nor with a name that is not its own.
 *
 * @param host the `Host` header; @param more further names, as `WUNSCH_HOSTS` lists them
 */
export function isOurs(host: string | undefined, more: readonly string[]): boolean {
  if (host === undefined) return false;
  const bare = host
    .replace(/:\d+$/, '')
    .replace(/^\[(.*)\]$/, '$1')
    .toLowerCase();
  const own = hostname().toLowerCase();
  return isIP(bare) !== 0 || ['localhost', own, `${own}.local`, ...more].includes(bare);
}

/** Names from `WUNSCH_HOSTS`: commas or spaces between them. */
export const hostsFrom = (text: string | undefined): string[] =>
  (text ?? '')
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((name) => name !== '');

const HALF_A_PAIR = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** Deeper than anything that is sent here. */
const DEEPEST = 60;

/**
 * Where a body holds text that no database keeps: the NUL character, or half of a surrogate pair; or lists in lists in
 * lists, deeper than anything that is sent here.
 *
 * @returns the dotted path of the first, or null
 */
export function unstorable(value: unknown, path = '', depth = 0): string | null {
  if (typeof value === 'string') return value.includes('\u0000') || HALF_A_PAIR.test(value) ? path : null;
  if (value === null || typeof value !== 'object') return null;
  if (depth > DEEPEST) return path;
  for (const [key, part] of Object.entries(value)) {
    if (key.includes('\u0000')) return path;
    const found = unstorable(part, path === '' ? key : `${path}.${key}`, depth + 1);
    if (found !== null) return found;
  }
  return null;
}
