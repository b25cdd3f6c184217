import { changeRoast } from './work';
import { z } from 'zod/mini';
import type { LiveTick } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id, tempC } from '@wunsch/core/fields/fields';
import { nextSetting, roastClock, whereIn } from '@wunsch/core/roast/live';
import { elapsedS } from '@wunsch/core/run/clock';
import { sign, type LiveRoast } from '@wunsch/core/roast/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { isRoast, type LiveRoasts } from './live';
import { curveData } from '@wunsch/core/roast/curve';

import { liveView, liveWork } from './views';

const reading = z
  .object({ beanC: z._default(z.nullable(tempC), null), airC: z._default(z.nullable(tempC), null) })
  .check(z.refine(({ beanC, airC }) => beanC !== null || airC !== null, { message: 'is missing', path: ['beanC'] }));

/** A forgotten load stands at a day. */
const DAY_S = 86_400;
/** As many as a load can be corrected with afterwards. */
const MOST_SIGNS = 100;

/** A roast while it runs: its readings as they come, and every press. */
export function liveRoutes(router: Router, views: Views, live: LiveRoasts): void {
  const { workshop } = router;
  const workId = (request: { params: unknown }): string => param(request.params, 'work');
  router.read('/api/roast/live/:work', 'A roast that is live, with its curve so far', (request) =>
    liveView(views, live, workId(request)),
  );
  router.stream('/api/roast/live/:work/stream', 'A live roast: its new readings', (send, request) => {
    const { from } = z
      .object({ from: z._default(z.coerce.number().check(z.int(), z.minimum(0)), 0) })
      .parse(request.query);
    const asked = workId(request);
    liveWork(views, asked);
    let next = from;
    let told = '';
    const tick = (): void => {
      const work = workshop.works.get(asked);
      const count = work ? live.count(work) : 0;
      const silent = work ? live.isSilent(work) : true;
      const trouble = live.trouble(asked);
      const state = `${workshop.version} ${silent} ${trouble ?? ''} ${work === undefined}`;
      if (count <= next && state === told) return;
      const from_ = Math.min(next, count);
      const row: LiveTick = {
        now: workshop.now(),
        version: workshop.version,
        from: from_,
        curve: work ? curveData(live.since(work, from_)) : { seconds: [], beanC: [], airC: [] },
        silent,
        trouble,
        over: work === undefined,
      };
      next = Math.max(next, count);
      told = state;
      send(row);
    };
    tick();
    return live.onTick(tick);
  });
  /** A change of a live roast's facts, at the roast's second now. */
  const act = <B extends z.ZodMiniType>(
    name: string,
    summary: string,
    body: B,
    change: (roast: LiveRoast, second: number, given: z.infer<B>) => LiveRoast,
  ): void =>
    router.write('POST', `/api/roast/live/:work/${name}`, summary, body, async (given, request) => {
      const work = liveWork(views, workId(request));
      const second = Math.min(DAY_S, Math.round(elapsedS(roastClock(work.roast, work.startedAt), workshop.now())));
      changeRoast(workshop, work.id, (roast) => change(roast, second, given));
      return (await liveView(views, live, work.id)).roast;
    });
  act(
    'signs',
    'Something was smelled, heard or seen',
    z.object({ what: sign, word: z._default(z.string().check(z.trim(), z.maxLength(120)), '') }),
    (roast, second, { what, word }) => {
      if (roast.signs.length >= MOST_SIGNS)
        throw new DomainError('roast/too-many-signs', `A load keeps ${MOST_SIGNS} signs: take one back first.`);
      return { ...roast, signs: [...roast.signs, { second, what, word }] };
    },
  );
  act('stirs', 'It was stirred', z.object({}), (roast, second) => ({ ...roast, stirs: [...roast.stirs, second] }));
  act(
    'settings',
    'The next step was set, or another temperature by hand',
    z.object({ setC: z.optional(tempC), onTime: z._default(z.boolean(), false) }),
    (roast, second, { setC, onTime }) => {
      const where = whereIn(roast.plan, roast.settings);
      const next = setC === undefined ? nextSetting(roast, second) : { second, setC, step: where.step };
      if (!next) throw new DomainError('roast/no-step', 'The program has no further step: the load comes out.');
      const due = where.endsS;
      const at = onTime && due !== null ? Math.min(second, Math.max(due, roast.settings.at(-1)?.second ?? 0)) : second;
      return { ...roast, settings: [...roast.settings, { ...next, second: at }] };
    },
  );
  act('stop', 'The load is out', z.object({}), (roast, second) => ({ ...roast, seconds: roast.seconds ?? second }));
  act(
    'undo',
    'Take the last press back',
    z.object({ what: z.enum(['sign', 'stir', 'setting', 'stop']) }),
    (roast, _, { what }) => {
      if (what === 'sign') return { ...roast, signs: roast.signs.slice(0, -1) };
      if (what === 'stir') return { ...roast, stirs: roast.stirs.slice(0, -1) };
      if (what === 'setting')
        return { ...roast, settings: roast.settings.slice(0, Math.max(1, roast.settings.length - 1)) };
      return { ...roast, seconds: null };
    },
  );
  router.write(
    'POST',
    '/api/roast/live/:work/readings',
    'A reading of a thermometer in the hand',
    reading,
    async (given, request) => {
      const work = liveWork(views, workId(request));
      if (work.roast.seconds !== null) throw new DomainError('work/closed', 'The load is out: nothing more is read.');
      const second = Math.round(10 * elapsedS(roastClock(work.roast, work.startedAt), workshop.now())) / 10;
      if (!(await live.take(work, { second, ...given })))
        throw new DomainError(
          'roast/clock-back',
          'The clock of this machine was set back: the reading was not kept. Enter it again when the roast has caught up.',
        );
      await live.keep();
      return { second, ...given };
    },
  );
}

/** Probes that send their readings by themselves, by the machine they sit in. */
export function sentReadings(router: Router, live: LiveRoasts): void {
  const { workshop } = router;
  router.calc(
    '/api/devices/roast/readings',
    'Post a reading from a real probe to the roasts that listen for one',
    z.intersection(reading, z.object({ machineId: z.optional(id) })),
    async ({ machineId, beanC, airC }) => {
      const now = workshop.now();
      const listening = [...workshop.works.values()]
        .filter(isRoast)
        .filter(
          ({ roast, machineId: own }) =>
            roast.probe === 'sent' && roast.seconds === null && (machineId === undefined || own === machineId),
        );
      let kept = 0;
      for (const work of listening) {
        const second = Math.round(10 * elapsedS(roastClock(work.roast, work.startedAt), now)) / 10;
        if (await live.take(work, { second, beanC, airC })) kept += 1;
      }
      // Whoever sent it may forget it: it is kept before it is answered.
      if (listening.length > 0) await live.keep();
      // Fewer kept than listening: the clock of this machine was set back, and those readings are lost.
      return { listening: listening.length, kept };
    },
  );
}
