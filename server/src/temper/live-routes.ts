import { changePour } from './work';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import type { CurvePreview } from '@wunsch/core/roast/curve-file';
import { replay } from '@wunsch/core/temper/replay';
import { readMeter } from '@wunsch/core/temper/inflection';
import { planPour } from '@wunsch/core/temper/plan';
import { simulatedMeter } from '@wunsch/core/temper/simulated-meter';
import { steelBowl } from '@wunsch/core/temper/sums';
import { softLowersC } from '@wunsch/core/temper/windows';
import { livePour, MARKS, pourAct, SCHOOLS, type PourAct } from '@wunsch/core/work/tempering';
import { seedOf } from '../devices/gauge';
import { away } from '../heavy/away';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { JudgedPours } from './judged';
import { massOf, type Pours } from './pours';

/** A reading that no bowl of chocolate gives. */
const tempC = z
  .number()
  .check(z.minimum(0, 'is colder than any bowl'), z.maximum(90, 'is hotter than any bowl of chocolate'));
/** Of a room that nobody measured. */
const USUAL_ROOM_C = 20;
/** A logger's file of one sample. */
const METER_BODY = 1024 * 1024;

/** Pours under way: followed by a probe or by hand, led by a plan, marked by one press, proved by a meter. */
export function livePourRoutes(router: Router, pours: Pours, judged: JudgedPours): void {
  const { workshop } = router;
  const units = () => {
    const { temperatureUnit: unit, massSystem } = workshop.settings;
    return { unit, massSystem };
  };
  const workOf = (request: { params: unknown }) => pours.workOf(param(request.params, 'id'));
  router.read('/api/temper/works/:id/pour', 'A pour under way, with its windows and its temperatures', (request) =>
    pours.view(param(request.params, 'id')),
  );
  router.read('/api/devices/pour/mood', 'How the simulated probe of a pour behaves', () => pours.mood);
  router.calc(
    '/api/devices/pour/mood',
    'Make the simulated probe of a pour stuck or unplugged',
    z.object({ stuck: z.boolean(), unplugged: z.boolean() }),
    (mood) => (pours.mood = mood),
  );
  router.read('/api/temper/works/:id/silk', 'Silk that is made, with its temperatures', (request) =>
    pours.silk(param(request.params, 'id')),
  );
  router.calc(
    '/api/temper/works/:id/probe',
    'Say which probe follows a pour',
    z.object({
      personId: id,
      probe: z.nullable(z.enum(['simulated', 'sent'])),
      speed: z._default(
        z.number().check(z.int(), z.minimum(1, 'must be at least 1'), z.maximum(1440, 'is faster than that')),
        1,
      ),
    }),
    async ({ personId, probe, speed }, request) => {
      workshop.checkPerson(personId);
      await pours.follow(
        param(request.params, 'id'),
        probe === null ? null : { probe, speed: probe === 'simulated' ? speed : 1 },
      );
      return { probe };
    },
  );
  router.calc(
    '/api/temper/works/:id/readings',
    'Post a temperature of a pour, read by hand or by a real probe',
    z.object({ tempC }),
    async (body, request) => {
      await pours.take(param(request.params, 'id'), body.tempC);
      return { kept: true };
    },
  );
  router.write(
    'POST',
    '/api/temper/works/:id/plan',
    'Plan a pour by a school, worked out for its bowl; with acts: as they are typed',
    z.object({
      personId: id,
      school: z.enum(SCHOOLS),
      acts: z.optional(z.array(pourAct).check(z.minLength(1, 'needs an act'), z.maxLength(20, 'are too many'))),
      bowlKg: livePour.shape.bowlKg,
      roomC: livePour.shape.roomC,
    }),
    ({ personId, school, acts, ...typed }, request) => {
      workshop.checkPerson(personId);
      const work = workOf(request);
      // Left out, they are as they were.
      const bowlKg = typed.bowlKg ?? work.pour?.bowlKg ?? 0;
      const roomC = typed.roomC ?? work.pour?.roomC ?? USUAL_ROOM_C;
      const own = pours.windowsOf(work);
      const { fatShare, softShare } = own;
      // A machine is set to what set best on it.
      const best = school === 'machine' ? judged.bestOn(work) : null;
      const windows = best?.windows ?? own.windows;
      const massG = massOf(work);
      const planned: PourAct[] =
        acts ??
        planPour(school, { massG, windows, fatShare, softShare, roomC, bowlJperK: steelBowl(bowlKg, 0).heatJperK });
      const said =
        best && acts === undefined
          ? planned.map((act, i) =>
              i === 0 ? { ...act, what: `${act.what} (set as ${best.good} of ${best.of} that set)` } : act,
            )
          : planned;
      return changePour(workshop, work.id, (pour) => ({ ...pour, school, acts: said, bowlKg, roomC }));
    },
  );
  router.write(
    'POST',
    '/api/temper/works/:id/acts/:act',
    'Say that an act of a pour is done, or not after all',
    z.object({ personId: id, done: z.boolean() }),
    ({ personId, done }, request) => {
      workshop.checkPerson(personId);
      const work = workOf(request);
      const actId = param(request.params, 'act');
      if (work.pour?.acts.some((act) => act.id === actId) !== true)
        throw new DomainError('http/not-found', 'That act is not planned any more, perhaps at another screen.');
      const doneS = done ? pours.secondsInto(work) : null;
      return changePour(workshop, work.id, (pour) => ({
        ...pour,
        // Pressed at two screens it was done when it was pressed first.
        acts: pour.acts.map((act) => (act.id === actId ? { ...act, doneS: done ? (act.doneS ?? doneS) : null } : act)),
      }));
    },
  );
  router.write(
    'POST',
    '/api/temper/works/:id/marks',
    'Mark by one press what is done with a bowl',
    z.object({ personId: id, what: z.enum(MARKS) }),
    ({ personId, what }, request) => {
      workshop.checkPerson(personId);
      const work = workOf(request);
      const second = Math.round(pours.secondsInto(work));
      return changePour(workshop, work.id, (pour) => ({ ...pour, marks: [...pour.marks, { second, what }] }));
    },
  );
  router.write(
    'DELETE',
    '/api/temper/works/:id/marks/last',
    'Take the newest mark of a pour back',
    z.object({}),
    (_, request) => changePour(workshop, workOf(request).id, (pour) => ({ ...pour, marks: pour.marks.slice(0, -1) })),
  );
  router.calc(
    '/api/temper/works/:id/meter',
    'What a cooling-curve meter says of a pour: its log as a table, or the simulated one',
    z.object({ text: z.optional(z.string().check(z.minLength(1, 'is empty'))) }),
    async ({ text }, request) => {
      const work = workOf(request);
      if (text !== undefined) {
        const { curve, badCount } = await away<CurvePreview>('curve table', [{ text }]);
        const readings = Array.from(curve.seconds, (second, i) => ({ second, tempC: curve.beanC[i] ?? NaN }));
        return {
          readings,
          badCount,
          simulated: false,
          found: readMeter(readings, { massG: massOf(work), ...units() }),
        };
      }
      const { readings: log, windows, fatShare, softShare, seeded, pour, massG } = await pours.view(work.id);
      const share = seeded ? Math.min(...work.sources.map(({ massMg }) => massMg)) / (1000 * massG) : 0;
      const bowl = replay({
        readings: log,
        marks: pour.marks,
        windows,
        fatShare,
        lowerC: softLowersC(softShare),
        seed: seeded ? { kind: pour.school === 'seed' ? 'chocolate' : 'silk', share } : null,
      })?.points.at(-1);
      if (!bowl)
        throw new DomainError('temper/nothing-read', 'The simulated meter needs a pour whose temperature is followed.');
      const readings = simulatedMeter(bowl.iv + bowl.v, seedOf(`${work.id} ${log.length}`));
      return { readings, badCount: 0, simulated: true, found: readMeter(readings, { massG, ...units() }) };
    },
    METER_BODY,
  );
}
