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

/** Whether an address is this machine's own, which nobody else reaches. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host);
