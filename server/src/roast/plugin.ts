import { nanoid } from 'nanoid';
import { z } from 'zod';
import type { LiveTick } from '@wunsch/core/api/roast';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead, id, tempC } from '@wunsch/core/ledger/commands';
import { COLUMN_ROLES, curveRows, TIME_FORMS } from '@wunsch/core/roast/curve-file';
import { elapsedS, nextSetting, whereIn } from '@wunsch/core/roast/live';
import { program, sign, trial, type LiveRoast } from '@wunsch/core/roast/records';
import { thin } from '@wunsch/core/roast/thin';
import { param } from '../ledger/plugin';
import { csv } from '../http/csv';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { MOST_READINGS, previewCurve, readCurveText } from './import';
import type { LiveRoasts } from './live';
import { curveData, loadRows, loadView, loggedLoads, roastStep } from './loads';
import { coolingViews } from './due';
import { liveView, liveWork, programViews, roasterViews, trialView } from './views';

const who = z.object({ personId: id });
const head = who.extend({ at: entryHead.shape.at });
/** A hundred thousand rows with a date each. */
const CURVE_BODY = 12 * 1024 * 1024;

/** Roasters, programs, live roasts, curves, judgement, trials. */
export function roastRoutes(router: Router, views: Views, live: LiveRoasts): void {
  programRoutes(router, views);
  liveRoutes(router, views, live);
  curveRoutes(router, views);
  trialRoutes(router, views);
  sentReadings(router, live);
  const { workshop } = router;
  router.read('/api/roast/roasters', 'Roasters and what was logged on them', () => ({ roasters: roasterViews(views) }));
  router.read(
    '/api/roast/roasters/:id/loads',
    'The newest logged loads of a roaster, as a fit takes them',
    async (request, { limit, nib }) => ({
      loads: await loggedLoads(views, param(request.params, 'id'), limit, nib === '1'),
    }),
    z.object({ limit: z.coerce.number().int().min(1).max(60).default(24), nib: z.enum(['0', '1']).default('0') }),
  );
  router.read('/api/roast/cooling', 'Roasted tubs that are still too warm to crack', () => ({
    cooling: coolingViews(views),
  }));
  router.read(
    '/api/roast/loads',
    'Roast loads, newest first',
    (_, query) => ({ loads: loadRows(views, query) }),
    z.object({
      limit: z.coerce.number().int().min(1).max(200).default(40),
      family: z.string().max(200).optional(),
      lot: z.string().max(20).optional(),
    }),
  );
  router.read('/api/roast/loads/:code', 'One load with all that its judgement rests on', (request) =>
    loadView(views, param(request.params, 'code')),
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/words',
    'Say otherwise than the judgement, and why',
    head.extend({ word: z.string().trim().min(2, 'is missing').max(500, 'is longer than 500 letters') }),
    ({ word, ...by }, request) => {
      const { loadId } = roastStep(views, param(request.params, 'code'));
      return workshop.addRoastRecord({ kind: 'word', loadId, word }, by);
    },
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/scores',
    'A score of the panel on the load itself, 0 to 10',
    head.extend({
      score: z.number().min(0, 'is 0 to 10').max(10, 'is 0 to 10'),
      note: z.string().trim().max(300, 'is longer than 300 letters').default(''),
    }),
    ({ score, note, ...by }, request) => {
      const { loadId } = roastStep(views, param(request.params, 'code'));
      return workshop.addRoastRecord({ kind: 'score', loadId, score, note }, by);
    },
  );
}

function programRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/roast/programs', 'Programs, the last used first', () => ({ programs: programViews(views) }));
  router.read('/api/roast/programs/:id', 'One program with all its versions', (request) => {
    const { id: programId, versions, shelved } = workshop.roasts.program(param(request.params, 'id'));
    return {
      id: programId,
      shelved,
      versions: versions.map(({ version, program: as, record }) => ({
        version,
        at: record.at,
        person: views.person(record.personId),
        program: as,
      })),
    };
  });
  router.write('POST', '/api/roast/programs', 'A new program', head.extend({ program }), ({ program: as, ...by }) => {
    const programId = nanoid(10);
    workshop.addRoastRecord({ kind: 'program', programId, version: 1, program: as }, by);
    return { id: programId, version: 1 };
  });
  router.write(
    'POST',
    '/api/roast/programs/:id/versions',
    'A new version of a program; the earlier ones stay readable',
    head.extend({ program, after: z.number().int().min(1) }),
    ({ program: as, after, ...by }, request) => {
      const { id: programId, versions } = workshop.roasts.program(param(request.params, 'id'));
      const newest = versions.at(-1)?.version ?? 0;
      if (after !== newest)
        throw new DomainError(
          'roast/version',
          `Version ${newest} was saved meanwhile, perhaps at another screen. Look at it first; yours is kept here.`,
        );
      workshop.addRoastRecord({ kind: 'program', programId, version: newest + 1, program: as }, by);
      return { id: programId, version: newest + 1 };
    },
  );
  router.write(
    'POST',
    '/api/roast/programs/:id/shelve',
    'Put a program aside, or take it back',
    head.extend({ shelved: z.boolean() }),
    ({ shelved, ...by }, request) => {
      const { id: programId } = workshop.roasts.program(param(request.params, 'id'));
      workshop.addRoastRecord({ kind: 'shelved', programId, shelved }, by);
      return { id: programId, shelved };
    },
  );
}

function liveRoutes(router: Router, views: Views, live: LiveRoasts): void {
  const { workshop } = router;
  const workId = (request: { params: unknown }): string => param(request.params, 'work');
  router.read('/api/roast/live/:work', 'A roast that is live, with its curve so far', (request) =>
    liveView(views, live, workId(request)),
  );
  router.stream('/api/roast/live/:work/stream', 'A live roast: its new readings', (send, request) => {
    const { from } = z.object({ from: z.coerce.number().int().min(0).default(0) }).parse(request.query);
    const asked = workId(request);
    liveWork(views, asked);
    let next = from;
    let told = '';
    const tick = (): void => {
      const work = workshop.works.get(asked);
      const count = work ? live.count(work) : 0;
      const silent = work ? live.isSilent(work) : true;
      const state = `${workshop.version} ${silent} ${work === undefined}`;
      if (count <= next && state === told) return;
      const from_ = Math.min(next, count);
      const row: LiveTick = {
        now: workshop.now(),
        version: workshop.version,
        from: from_,
        curve: work ? curveData(live.since(work, from_)) : { seconds: [], beanC: [], airC: [] },
        silent,
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
  const act = <B extends z.ZodType>(
    name: string,
    summary: string,
    body: B,
    change: (roast: LiveRoast, second: number, given: z.infer<B>) => LiveRoast,
  ): void =>
    router.write('POST', `/api/roast/live/:work/${name}`, summary, body, async (given, request) => {
      const work = liveWork(views, workId(request));
      const second = Math.round(elapsedS(work.roast, work.startedAt, workshop.now()));
      workshop.changeRoast(work.id, (roast) => change(roast, second, given));
      return (await liveView(views, live, work.id)).roast;
    });
  act(
    'signs',
    'Something was smelled, heard or seen',
    z.object({ what: sign, word: z.string().trim().max(120).default('') }),
    (roast, second, { what, word }) => ({ ...roast, signs: [...roast.signs, { second, what, word }] }),
  );
  act('stirs', 'It was stirred', z.object({}), (roast, second) => ({ ...roast, stirs: [...roast.stirs, second] }));
  act(
    'settings',
    'The next step was set, or another temperature by hand',
    z.object({ setC: tempC.optional(), onTime: z.boolean().default(false) }),
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
      const second = Math.round(10 * elapsedS(work.roast, work.startedAt, workshop.now())) / 10;
      await live.take(work, { second, ...given });
      await live.keep();
      return { second, ...given };
    },
  );
}

/** Probes that send their readings by themselves, by the machine they sit in. */
function sentReadings(router: Router, live: LiveRoasts): void {
  const { workshop } = router;
  router.calc(
    '/api/devices/roast/readings',
    'Post a reading from a real probe to the roasts that listen for one',
    reading.and(z.object({ machineId: id.optional() })),
    async ({ machineId, beanC, airC }) => {
      const now = workshop.now();
      const listening = [...workshop.works.values()].filter(
        (work) =>
          work.roast?.probe === 'sent' &&
          work.roast.seconds === null &&
          (machineId === undefined || work.machineId === machineId),
      );
      for (const work of listening) {
        const second = work.roast ? Math.round(10 * elapsedS(work.roast, work.startedAt, now)) / 10 : 0;
        await live.take(work, { second, beanC, airC });
      }
      return { listening: listening.length };
    },
  );
}

const reading = z
  .object({ beanC: tempC.nullable().default(null), airC: tempC.nullable().default(null) })
  .refine(({ beanC, airC }) => beanC !== null || airC !== null, { message: 'is missing', path: ['beanC'] });

const mapping = z
  .object({
    roles: z.array(z.enum(COLUMN_ROLES)).max(100),
    time: z.enum(TIME_FORMS),
    unit: z.enum(['C', 'F']),
  })
  .partial();

function curveRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const asked = z.object({ text: z.string().min(1, 'is empty'), mapping: mapping.optional() });
  const curveOf = async (code: string) => {
    const { loadId } = roastStep(views, code);
    const meta = workshop.roasts.curveOf(loadId);
    const curve = meta ? await workshop.readCurve(meta.id) : null;
    if (!meta || !curve) throw new DomainError('roast/no-curve', `No curve was logged of ${code}.`);
    return { meta, curve };
  };
  router.read(
    '/api/roast/loads/:code/curve.json',
    'The curve of a load; thinned to `points`, where that is given',
    async (request, { points }) => {
      const code = param(request.params, 'code');
      const { meta, curve } = await curveOf(code);
      return {
        code,
        source: meta.source,
        startedAt: meta.startedAt,
        ...curveData(points ? thin(curve, points) : curve),
      };
    },
    z.object({ points: z.coerce.number().int().min(3).max(MOST_READINGS).optional() }),
  );
  router.read('/api/roast/loads/:code/curve.csv', 'The curve of a load as CSV (RFC 4180)', async (request) =>
    csv(curveRows((await curveOf(param(request.params, 'code'))).curve)),
  );
  router.calc(
    '/api/roast/curves/preview',
    'What a logger’s table holds; changes nothing',
    asked,
    previewCurve,
    CURVE_BODY,
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/curve',
    'Give a load the curve of a logger’s table',
    asked.extend({ personId: id, leaveOut: z.boolean().default(false) }),
    ({ leaveOut, ...request_ }, request) => {
      const code = param(request.params, 'code');
      const { loadId, step, command } = roastStep(views, code);
      if (workshop.roasts.curveOf(loadId))
        throw new DomainError(
          'roast/has-curve',
          `${code} has a curve already: a curve that was logged is not replaced.`,
        );
      const { curve, bad, badCount, rows } = readCurveText(request_);
      if (badCount > 0 && !leaveOut)
        throw new DomainError(
          'roast/bad-rows',
          `${badCount} of ${badCount + rows} rows cannot be read. Nothing was taken in.`,
          bad.map(({ line, what }) => ({ path: `line ${line}`, message: what })),
        );
      const endS = curve.seconds.at(-1) ?? 0;
      workshop.addCurve({
        id: nanoid(14),
        loadId,
        name: code,
        source: 'file',
        startedAt: Math.round(step.at - 1000 * (command.how?.seconds ?? endS)),
        readings: curve.seconds.length,
        curve,
      });
      return { readings: curve.seconds.length, leftOut: badCount };
    },
    CURVE_BODY,
  );
  router.write(
    'DELETE',
    '/api/roast/loads/:code/curve',
    'Take a curve that came from a file off again',
    z.object({}),
    (_, request) => {
      const code = param(request.params, 'code');
      const meta = workshop.roasts.curveOf(roastStep(views, code).loadId);
      if (!meta) throw new DomainError('roast/no-curve', `No curve was logged of ${code}.`);
      if (meta.source !== 'file')
        throw new DomainError('roast/logged-curve', `The curve of ${code} was logged here: it stays as it was read.`);
      workshop.removeCurve(meta.id);
      return { code };
    },
  );
}

function trialRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/roast/trials', 'Trials, newest first', () => ({
    trials: workshop.roasts
      .allTrials()
      .sort((a, b) => b.at - a.at)
      .map(({ value }) => trialView(views, value.trialId)),
  }));
  router.read('/api/roast/trials/:id', 'One trial, and what it says so far', (request) =>
    trialView(views, param(request.params, 'id')),
  );
  router.write('POST', '/api/roast/trials', 'Plan a trial on a lot', head.extend({ trial }), ({ trial: as, ...by }) => {
    if (!workshop.lots.has(as.lotId))
      throw new DomainError('http/not-found', 'There is no such lot.', [
        { path: 'trial.lotId', message: 'is not known here' },
      ]);
    const trialId = nanoid(10);
    workshop.addRoastRecord({ kind: 'trial', trialId, trial: as }, by);
    return { id: trialId };
  });
  router.write(
    'POST',
    '/api/roast/trials/:id/loads',
    'Say which roast of the plan a load was',
    head.extend({ cell: z.number().int().min(0).max(15), code: z.string().min(1).max(20) }),
    ({ cell, code, ...by }, request) => {
      const trialId = param(request.params, 'id');
      const { value } = workshop.roasts.trial(trialId);
      const { loadId } = roastStep(views, code);
      if (value.trial.cells[cell] === undefined)
        throw new DomainError('roast/no-cell', 'The plan has no such roast.', [
          { path: 'cell', message: 'is not in the plan' },
        ]);
      if (workshop.roasts.loadsOf(trialId).some((row) => row.value.loadId === loadId))
        throw new DomainError('roast/in-trial', `${code} is in this trial already.`);
      if (!views.lotsIn(loadId).some((lot) => lot.id === value.trial.lotId))
        throw new DomainError('roast/other-lot', `${code} is not from the lot of this trial.`, [
          { path: 'code', message: 'is from another lot' },
        ]);
      workshop.addRoastRecord({ kind: 'trial-load', trialId, cell, loadId }, by);
      return { trialId, cell, code };
    },
  );
}
