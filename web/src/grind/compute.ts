import { wrap, type Remote } from 'comlink';
import type { Stones } from './worker';

let remote: Remote<Stones> | null = null;

/** The worker, begun when first asked. */
export function stones(): Remote<Stones> {
  remote ??= wrap<Stones>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}
