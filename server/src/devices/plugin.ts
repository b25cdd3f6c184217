import { z } from 'zod/mini';
import type { RoomView } from '@wunsch/core/api/beans';
import { judgeRoom } from '@wunsch/core/beans/room';
import { massOrNoneG, tempC } from '@wunsch/core/fields/fields';
import type { Router } from '../http/router';
import type { CoreProbe } from './core-probe';
import type { SimulatedRoastProbe } from './roast-probe';
import { RoomSensor } from './room';
import type { SimulatedScale } from './scale';

/** Milliseconds between readings on the stream. */
const TICK_MS = 200;

/** The scale: a live stream, a place to post readings from a real one, and the simulated one's moods. */
export function deviceRoutes(
  router: Router,
  scale: SimulatedScale,
  probe: CoreProbe,
  roastProbe: SimulatedRoastProbe,
): void {
  roomRoutes(router, new RoomSensor(router.workshop.now));
  router.calc(
    '/api/devices/core/mood',
    'Make the simulated sack probe stuck or unplugged, or leave the door open',
    z.object({ stuck: z.boolean(), unplugged: z.boolean(), doorOpen: z.boolean() }),
    (mood) => (probe.mood = mood),
  );
  router.read('/api/devices/roast/mood', 'How the simulated roast probe behaves', () => roastProbe.mood);
  router.calc(
    '/api/devices/roast/mood',
    'Make the simulated roast probe noisy, stuck or unplugged, or the next roast run faster than the clock',
    z.object({
      noiseC: z.number().check(z.minimum(0), z.maximum(20)),
      stuck: z.boolean(),
      unplugged: z.boolean(),
      speed: z.number().check(z.minimum(1), z.maximum(120)),
    }),
    (mood) => (roastProbe.mood = mood),
  );
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
    z.object({ noiseG: z.number().check(z.minimum(0), z.maximum(500)), stuck: z.boolean(), unplugged: z.boolean() }),
    (mood) => {
      scale.mood = mood;
      return scale.read();
    },
  );

  router.stream('/api/devices/scale/stream', 'What the scale says', (send) => {
    const tick = setInterval(() => send(scale.read()), TICK_MS);
    send(scale.read());
    return () => clearInterval(tick);
  });
  router.stream('/api/events', 'When something was saved anywhere', (send) => {
    send({ version: router.workshop.version });
    const beat = setInterval(() => send({ version: router.workshop.version }), 20_000);
    const stop = router.workshop.onChange((version) => send({ version }));
    return () => {
      clearInterval(beat);
      stop();
    };
  });
}

function roomRoutes(router: Router, room: RoomSensor): void {
  const view = (): RoomView => {
    const reading = room.read();
    const verdict = judgeRoom(reading.tempC, reading.humidityPct, router.workshop.settings.temperatureUnit);
    return { ...reading, verdict, past: room.past() };
  };
  router.read('/api/devices/room', 'The air of the bean store', view);
  router.calc(
    '/api/devices/room/readings',
    'Post a reading from a real room sensor',
    z.object({
      tempC,
      humidityPct: z.number().check(z.gt(0, 'must be more than 0'), z.maximum(100, 'is more than 100 %')),
    }),
    ({ tempC: read, humidityPct }) => {
      room.post(read, humidityPct);
      return view();
    },
  );
  router.calc(
    '/api/devices/room/mood',
    'Make the simulated room damp, or unplug its sensor',
    z.object({ damp: z.boolean(), unplugged: z.boolean() }),
    (mood) => {
      room.mood = mood;
      return view();
    },
  );
}
