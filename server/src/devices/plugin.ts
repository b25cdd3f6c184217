import { z } from 'zod';
import { massOrNoneG } from '@wunsch/core/ledger/commands';
import type { Router } from '../http/router';
import type { SimulatedScale } from './scale';

/** Milliseconds between readings on the stream. */
const TICK_MS = 200;

/** The scale: a live stream, a place to post readings from a real one, and the simulated one's moods. */
export function deviceRoutes(router: Router, scale: SimulatedScale): void {
  const { app } = router;
  router.read('/api/devices/scale', 'What the scale says now', () => scale.read());
  router.calc(
    '/api/devices/scale/place',
    'Put a load on the simulated scale',
    z.object({ massG: massOrNoneG }),
    ({ massG }) => {
      scale.place(massG);
      return scale.read();
    },
  );
  router.calc(
    '/api/devices/scale/readings',
    'Post a reading from a real scale',
    z.object({ massG: massOrNoneG }),
    ({ massG }) => {
      scale.post(massG);
      return scale.read();
    },
  );
  router.calc(
    '/api/devices/scale/mood',
    'Make the simulated scale noisy, stuck or unplugged',
    z.object({ noiseG: z.number().min(0).max(500), stuck: z.boolean(), unplugged: z.boolean() }),
    (mood) => {
      scale.mood = mood;
      return scale.read();
    },
  );

  stream(router, '/api/devices/scale/stream', (send) => {
    const tick = setInterval(() => send(scale.read()), TICK_MS);
    send(scale.read());
    return () => clearInterval(tick);
  });
  stream(router, '/api/events', (send) => {
    send({ version: router.workshop.version });
    const beat = setInterval(() => send({ version: router.workshop.version }), 20_000);
    const stop = router.workshop.onChange((version) => send({ version }));
    return () => {
      clearInterval(beat);
      stop();
    };
  });

  /** Server-sent events until the other side goes, or this server does. */
  function stream(to: Router, url: string, start: (send: (data: unknown) => void) => () => void): void {
    to.routes.push({ method: 'GET', url, summary: 'Server-sent events' });
    app.get(url, (request, reply) => {
      reply.hijack();
      const { raw } = reply;
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
      });
      const stop = start((data) => raw.write(`data: ${JSON.stringify(data)}\n\n`));
      const end = (): void => {
        stop();
        open.delete(end);
        raw.end();
      };
      open.add(end);
      request.raw.on('close', end);
    });
  }
  const open = new Set<() => void>();
  app.addHook('preClose', (done) => {
    for (const end of [...open]) end();
    done();
  });
}
