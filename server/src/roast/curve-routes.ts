import { curveData, roastCurve, roastReadings } from '@wunsch/core/roast/curve';
import { curveRow } from '../store/curves';
import { MOST_READINGS } from '@wunsch/core/run/readings';
import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { COLUMN_ROLES, curveRows, TIME_FORMS, type CurvePreview } from '@wunsch/core/roast/curve-file';
import { thin } from '@wunsch/core/roast/thin';
import { away } from '../heavy/away';
import { param } from '../http/param';
import { csv } from '../http/csv';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { roastStep } from './loads';

/** A hundred thousand rows with a date each. */
const CURVE_BODY = 12 * 1024 * 1024;

const mapping = z.partial(
  z.object({
    roles: z.array(z.enum(COLUMN_ROLES)).check(z.maxLength(100)),
    time: z.enum(TIME_FORMS),
    unit: z.enum(['C', 'F']),
  }),
);

/** Curves in and out. */
export function curveRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const asked = z.object({ text: z.string().check(z.minLength(1, 'is empty')), mapping: z.optional(mapping) });
  const curveOf = async (code: string) => {
    const { loadId } = roastStep(views, code);
    const meta = workshop.roasts.curveOf(loadId);
    const curve = meta ? await workshop.readCurve(meta.id) : null;
    if (!meta || !curve) throw new DomainError('roast/no-curve', `No curve was logged of ${code}.`);
    return { meta, curve: roastCurve(curve) };
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
    z.object({ points: z.optional(z.coerce.number().check(z.int(), z.minimum(3), z.maximum(MOST_READINGS))) }),
  );
  router.read('/api/roast/loads/:code/curve.csv', 'The curve of a load as CSV (RFC 4180)', async (request) =>
    csv(curveRows((await curveOf(param(request.params, 'code'))).curve)),
  );
  router.calc(
    '/api/roast/curves/preview',
    'What a logger’s table holds; changes nothing',
    asked,
    (body) => away('curve preview', [body]),
    CURVE_BODY,
  );
  router.write(
    'POST',
    '/api/roast/loads/:code/curve',
    'Give a load the curve of a logger’s table',
    z.extend(asked, { personId: id, leaveOut: z._default(z.boolean(), false) }),
    async ({ leaveOut, ...request_ }, request) => {
      const code = param(request.params, 'code');
      const { loadId, step, command } = roastStep(views, code);
      if (workshop.roasts.curveOf(loadId))
        throw new DomainError(
          'roast/has-curve',
          `${code} has a curve already: a curve that was logged is not replaced.`,
        );
      const { curve, bad, badCount, rows } = await away<CurvePreview>('curve table', [request_]);
      if (badCount > 0 && !leaveOut)
        throw new DomainError(
          'roast/bad-rows',
          `${badCount} of ${badCount + rows} rows cannot be read. Nothing was taken in.`,
          bad.map(({ line, what }) => ({ path: `line ${line}`, message: what })),
        );
      const endS = curve.seconds.at(-1) ?? 0;
      const startedAt = Math.round(step.at - 1000 * (command.how?.seconds ?? endS));
      workshop.addCurve(
        curveRow({ id: nanoid(14), loadId, name: code, source: 'file', startedAt }, roastReadings(curve)),
      );
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
