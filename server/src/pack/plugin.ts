import type { FastifyRequest } from 'fastify';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import { SimulatedLabelPrinter } from '../devices/label-printer';
import { CHECK_LIST, MARKETS, PHRASES } from '@wunsch/core/pack/label';
import { labelWords } from '@wunsch/core/pack/records';
import { away } from '../heavy/away';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { labelFor, wordsOf } from './labels';
import { sackTags, tagOf } from './tags';

const wish = z.object({
  market: z._default(z.enum(MARKETS), 'en'),
  declaredPct: z.optional(
    z.coerce.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it')),
  ),
  netG: z.optional(z.coerce.number().check(z.positive('must be more than 0'), z.maximum(20_000, 'is more than 20 kg'))),
});
const sheet = z.extend(wish, {
  widthMm: z._default(
    z.coerce.number().check(z.minimum(25, 'is smaller than any label'), z.maximum(200, 'is wider than any sheet')),
    70,
  ),
  heightMm: z._default(
    z.coerce.number().check(z.minimum(20, 'is smaller than any label'), z.maximum(280, 'is longer than any sheet')),
    60,
  ),
  sheet: z._default(z.enum(['yes', 'no']), 'yes'),
  copies: z._default(
    z.coerce
      .number()
      .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(500, 'are too many at once')),
    1,
  ),
});

/** A label printer stands beside: what it was given, and how it behaves. */
function printerRoutes(router: Router, printer: SimulatedLabelPrinter): void {
  router.read('/api/devices/printer', 'The label printer: what it was given, and how it is', () => ({
    simulated: true,
    ...printer.mood,
    jobs: printer.jobs(),
  }));
  router.calc(
    '/api/devices/printer/mood',
    'Let the simulated label printer run out of labels, or unplug it',
    z.object({ empty: z.boolean(), unplugged: z.boolean() }),
    (mood) => (printer.mood = mood),
  );
}

/** The address that a code printed now leads to; null where nobody could reach it. */
function linkTo(request: FastifyRequest, path: string): string | null {
  const { host, 'x-forwarded-proto': proto = 'http' } = request.headers;
  return host === undefined || host.length > 100 ? null : `${String(proto)}://${host}${path}`;
}

/** Labels of packed goods and of work in progress: what stands on them, and to print. */
export function packRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const printer = new SimulatedLabelPrinter(workshop.now);
  printerRoutes(router, printer);
  const toPrinter = z.object({
    personId: id,
    code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60)),
    what: z._default(z.enum(['label', 'tag']), 'label'),
    market: wish.shape.market,
    copies: sheet.shape.copies,
    widthMm: sheet.shape.widthMm,
    heightMm: sheet.shape.heightMm,
  });
  router.calc('/api/pack/print', 'Send labels to the label printer, one a page', toPrinter, async (body, request) => {
    workshop.checkPerson(body.personId);
    if (printer.mood.unplugged)
      throw new DomainError(
        'pack/printer',
        'The label printer does not answer: look at its plug. Nothing was printed.',
      );
    const { code, copies, widthMm, heightMm, market } = body;
    const size = { widthMm, heightMm, copies: 1 };
    if (body.what === 'tag') {
      const tag = tagOf(views, code);
      const linked = { ...tag, link: linkTo(request, tag.path) };
      const bytes = await away<Uint8Array>('tags', [[linked], size, workshop.settings.name, workshop.now()]);
      return printer.take(tag.code, copies, bytes.length);
    }
    const label = labelFor(views, code, { market });
    const link = linkTo(request, `/trace/${encodeURIComponent(label.batch)}`);
    const bytes = await away<Uint8Array>('label', [label, { ...size, sheet: false, link }, workshop.now()]);
    return printer.take(label.batch, copies, bytes.length);
  });
  router.read('/api/pack/words', 'The words of labels: usual ones, and those that somebody put in their place', () => ({
    markets: MARKETS.map((market) => {
      const { rows: _, cocoa, ...usual } = PHRASES[market];
      return { market, usual: { ...usual, cocoa: cocoa('{pct}') }, own: wordsOf(workshop.records, market) };
    }),
  }));
  router.write(
    'PUT',
    '/api/pack/words/:market',
    'Put other words on labels in a language; what is left empty stays usual',
    z.object({ personId: id, words: labelWords }),
    ({ personId, words }, request) => {
      const market = z.enum(MARKETS).parse(param(request.params, 'market'));
      workshop.addRecord('pack', { kind: 'words', market, words }, { personId });
      return { market, own: words };
    },
  );
  router.file(
    '/api/pack/tags/:code/tag.pdf',
    'A label for a tub, a block, a sack, a lot or a mould: its code large, and a QR code that opens it',
    async (request) => {
      const code = param(request.params, 'code');
      const { sacks, ...query } = z
        .object({
          copies: sheet.shape.copies,
          widthMm: z._default(sheet.shape.widthMm, 80),
          heightMm: z._default(sheet.shape.heightMm, 40),
          sacks: z._default(z.enum(['yes', 'no']), 'no'),
        })
        .parse(request.query);
      const tags = sacks === 'yes' ? sackTags(views, code) : [tagOf(views, code)];
      const linked = tags.map((tag) => ({ ...tag, link: linkTo(request, tag.path) }));
      return {
        type: 'application/pdf',
        name: `label-${tags[0]?.code.replaceAll('/', '-') ?? code}.pdf`,
        bytes: await away<Uint8Array>('tags', [linked, query, workshop.settings.name, workshop.now()]),
        inline: true,
      };
    },
  );
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
      const link = linkTo(request, `/trace/${encodeURIComponent(label.batch)}`);
      return {
        type: 'application/pdf',
        name: `label-${label.batch}.pdf`,
        bytes: await away<Uint8Array>('label', [
          label,
          { widthMm, heightMm, sheet: several === 'yes', copies, link },
          workshop.now(),
        ]),
        inline: true,
      };
    },
  );
}
