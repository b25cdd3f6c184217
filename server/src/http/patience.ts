import type { FastifyInstance, FastifyRequest } from 'fastify';
import { problem } from './problem';

export interface Patience {
  /** A whole request is here after so long, ms. */
  wholeMs: number;
  /** An upload goes on at least so often, ms. */
  stillMs: number;
}

export const PATIENCE: Patience = { wholeMs: 60_000, stillMs: 60_000 };

const SLOW = JSON.stringify(
  problem(408, 'http/too-slow', 'The request did not arrive in time. Nothing of it was saved; send it again.'),
);

function cut({ raw }: FastifyRequest): void {
  const { socket } = raw;
  if (socket.destroyed) return;
  socket.end(
    `HTTP/1.1 408 Request Timeout\r\ncontent-type: application/problem+json\r\ncontent-length: ${Buffer.byteLength(SLOW)}\r\nconnection: close\r\n\r\n${SLOW}`,
    () => socket.destroy(),
  );
}

/**
 * Lets nobody keep a request open by sending it a letter at a time: it has to be here in time, and what may be of any
 * size has to go on coming.
 *
 * @param isUpload whether a request may be of any size
 */
export function limitPatience(
  app: FastifyInstance,
  isUpload: (url: string) => boolean,
  { wholeMs, stillMs }: Patience,
): void {
  app.addHook('onRequest', (request, reply, done) => {
    const { raw } = request;
    if (request.method === 'GET' || request.method === 'HEAD' || raw.complete) return done();
    const upload = isUpload(request.url);
    let heard = raw.socket.bytesRead;
    const timer = upload
      ? setInterval(() => {
          const { bytesRead } = raw.socket;
          if (bytesRead === heard) cut(request);
          heard = bytesRead;
        }, stillMs)
      : setTimeout(() => cut(request), wholeMs);
    timer.unref();
    const stop = (): void => clearInterval(timer);
    for (const [stream, event] of [
      [raw, 'end'],
      [raw, 'close'],
      [reply.raw, 'finish'],
    ] as const)
      stream.once(event, stop);
    done();
  });
}
