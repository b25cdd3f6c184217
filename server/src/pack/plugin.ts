import { z } from 'zod';
import { CHECK_LIST, MARKETS } from '@wunsch/core/pack/label';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { labelFor, labelPdf } from './labels';

const wish = z.object({
  market: z.enum(MARKETS).default('en'),
  declaredPct: z.coerce.number().min(0, 'cannot be below 0').max(100, 'is more than all of it').optional(),
  netG: z.coerce.number().positive('must be more than 0').max(20_000, 'is more than 20 kg').optional(),
});
const sheet = wish.extend({
  widthMm: z.coerce.number().min(25, 'is smaller than any label').max(200, 'is wider than any sheet').default(70),
  heightMm: z.coerce.number().min(20, 'is smaller than any label').max(280, 'is longer than any sheet').default(60),
  sheet: z.enum(['yes', 'no']).default('yes'),
  copies: z.coerce
    .number()
    .int('must be whole')
    .min(1, 'must be at least 1')
    .max(500, 'are too many at once')
    .default(1),
});

/** Labels of packed goods: what stands on them, and to print. */
export function packRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read(
    '/api/pack/labels/:code',
    'What stands on the label of goods, from what they really are; what may not be declared is refused',
    (request, own) => ({ ...labelFor(views, param(request.params, 'code'), own), checkList: CHECK_LIST }),
    wish,
  );
  router.file(
    '/api/pack/labels/:code/label.pdf',
    'A label to print: several a sheet, or one a page',
    async (request) => {
      const { widthMm, heightMm, sheet: several, copies, ...own } = sheet.parse(request.query);
      const code = param(request.params, 'code');
      const label = labelFor(views, code, own);
      const { host, 'x-forwarded-proto': proto = 'http' } = request.headers;
      const link =
        host === undefined || host.length > 100
          ? null
          : `${String(proto)}://${host}/trace/${encodeURIComponent(label.batch)}`;
      return {
        type: 'application/pdf',
        name: `label-${label.batch}.pdf`,
        bytes: await labelPdf(label, { widthMm, heightMm, sheet: several === 'yes', copies, link }, workshop.now()),
        inline: true,
      };
    },
  );
}
