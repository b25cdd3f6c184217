import type { Batch } from '@wunsch/core/ledger/types';
import type { BatchRow } from '@wunsch/core/api/reads';
import { Readable } from 'node:stream';
import { setImmediate as breathe } from 'node:timers/promises';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import { asGtin14, isGtin } from '@wunsch/core/products/gtin';
import { traceDrawing } from '@wunsch/core/trace/branches';
import { epcisDocument } from '@wunsch/core/trace/epcis';
import { downstream, fillingShares, greenMg, upstream } from '@wunsch/core/trace/flow';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { param } from '../http/param';
import { csv } from '../http/csv';
import type { Router } from '../http/router';
import { newestFirst, type Views } from '../ledger/views';
import { productsOf } from '@wunsch/core/products/book';
import { productOf } from '../products/products';
import { recallRoutes } from './recall-routes';
import { search } from './search';
import { batchView, lotView, tenth, traceView } from './views';

/** Batches, lots, stock, search, and traces both ways. */
export function traceRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  recallRoutes(router, views);
  const page = z.object({
    offset: z._default(z.coerce.number().check(z.int(), z.minimum(0)), 0),
    limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(300)), 60),
  });

  router.still(
    '/api/trace/batches',
    'Batches, newest first',
    (_, { offset, limit }) => {
      const began = (id: string): number => workshop.book.firstEntry(id)?.at ?? 0;
      const all = [...workshop.batches.values()].sort((a, b) => began(b.id) - began(a.id));
      return {
        total: all.length,
        batches: all.slice(offset, offset + limit).map((batch) => batchRow(views, batch)),
      };
    },
    page,
  );
  router.still('/api/trace/batches/:code', 'One batch', (request) => {
    const holding = workshop.book.byCode(param(request.params, 'code'));
    const batch = holding ? workshop.batches.get(holding.batchId ?? holding.id) : undefined;
    if (!batch) throw new DomainError('trace/unknown-code', 'There is no batch with that code.');
    return batchView(views, batch);
  });
  router.still('/api/trace/lots', 'Lots, newest first', () => ({
    lots: [...workshop.lots]
      .map(([id, facts]) => ({
        ...views.holding(id),
        facts,
        receivedMg: greenMg(workshop.book, id),
      }))
      .filter(({ since }) => since > 0)
      .sort((a, b) => b.since - a.since),
  }));
  router.still('/api/trace/lots/:code', 'One lot', (request) => {
    const holding = workshop.book.byCode(param(request.params, 'code'));
    if (!holding || !workshop.lots.has(holding.id))
      throw new DomainError('trace/unknown-code', 'There is no lot with that code.');
    return lotView(views, holding.id);
  });
  router.still('/api/trace/codes/:code', 'Back to sacks and forward to buyers, from any code', (request) =>
    traceView(views, param(request.params, 'code')),
  );
  router.read(
    '/api/trace/open/:code',
    'Where a scanned code leads: its page, by the code or the number on it',
    (request) => {
      const code = param(request.params, 'code').trim();
      const holding = workshop.book.byCode(code.toUpperCase()) ?? workshop.book.byCode(code);
      if (holding) {
        const isBatch = workshop.batches.has(holding.id);
        const page = isBatch ? 'batch' : workshop.lots.has(holding.id) ? 'lot' : 'tub';
        return { link: `/${page}/${encodeURIComponent(holding.code)}` };
      }
      const [lot] = code.split('/');
      const sack = workshop.book.byCode((lot ?? '').toUpperCase());
      if (sack && workshop.lots.has(sack.id)) return { link: `/lot/${encodeURIComponent(sack.code)}` };
      const product = productsOf(workshop.records)
        .current()
        .find(({ facts }) => facts.gtin !== null && isGtin(code) && asGtin14(facts.gtin) === asGtin14(code));
      return { link: product ? '/products' : null };
    },
  );
  router.read('/api/trace/codes/:code/drawing', 'The same as places and bands, to be drawn', (request) => {
    const code = param(request.params, 'code');
    const holding = workshop.book.byCode(code);
    if (!holding)
      throw new DomainError('trace/unknown-code', `Nothing here carries the code ${code}.`, [
        { path: 'code', message: 'is not known here' },
      ]);
    return traceDrawing(workshop.book, holding.id, (step) => {
      const { to = '', channel = '', use = '' } = step.command as Partial<CommandOf<'sell'>>;
      return to || channel || (use === 'sold' ? '' : use) || 'somebody';
    });
  });
  router.read(
    '/api/trace/epcis.json',
    'Steps in force as events of EPCIS 2.0 (JSON-LD); of one code, all that has a part in it',
    (request, { code, from = 0 }) => {
      const { book } = workshop;
      const { host, 'x-forwarded-proto': proto = 'http' } = request.headers;
      const subject = code === undefined ? undefined : book.byCode(code);
      if (code !== undefined && !subject)
        throw new DomainError('trace/unknown-code', `Nothing here carries the code ${code}.`, [
          { path: 'code', message: 'is not known here' },
        ]);
      const mine = subject
        ? new Set([
            ...upstream(book, fillingShares(book, subject.id)).keys(),
            ...downstream(book, [subject.id], 'mass').steps.keys(),
          ])
        : null;
      const steps = book.timeline.filter(({ id, at }) => at >= from && (mine === null || mine.has(id)));
      return epcisDocument(book, steps, {
        base: `${String(proto)}://${host ?? 'localhost'}`,
        gtin14: (holdingId) => {
          const gtin = book.holding(holdingId).kind === 'packed' ? productOf(views, holdingId)?.facts.gtin : null;
          return gtin == null ? null : asGtin14(gtin);
        },
        now: workshop.now(),
      });
    },
    z.object({
      code: z.optional(z.string().check(z.minLength(1), z.maxLength(40))),
      from: z.optional(z.coerce.number().check(z.int(), z.minimum(0))),
    }),
  );
  router.read('/api/trace/compositions/:code', 'What any holding really is, by its code', (request) => {
    const holding = workshop.book.byCode(param(request.params, 'code'));
    if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here carries that code.');
    return views.composition(holding.id);
  });
  router.still('/api/trace/stock', 'What is there: the pantry, and the newest of each other kind', () => {
    const reserved = workshop.reserved();
    return {
      holdings: newestStock(views)
        .map((id) => views.holding(id, reserved))
        .sort((a, b) => a.since - b.since),
    };
  });
  router.still(
    '/api/trace/search',
    'Find any code or name',
    (_, { q }) => search(views, q),
    z.object({ q: z._default(z.string().check(z.maxLength(80)), '') }),
  );
  router.download('/api/trace/steps.csv', 'Every posting as CSV (RFC 4180)', () =>
    Promise.resolve({ type: 'text/csv; charset=utf-8', stream: Readable.from(stepsCsv(views)) }),
  );
}

/** Of each kind outside the pantry, as many as a page shows; ten years leave thousands of crumbs. */
const STOCK_PER_KIND = 40;

function newestStock(views: Views): string[] {
  const { book } = views.workshop;
  const byKind = new Map<string, string[]>();
  for (const { id, kind } of book.standing) {
    const list = byKind.get(kind);
    if (list) list.push(id);
    else byKind.set(kind, [id]);
  }
  return [...byKind].flatMap(([kind, ids]) => {
    const most = kind === 'ingredient' || kind === 'packaging' ? STOCK_PER_KIND * 3 : STOCK_PER_KIND;
    return ids.length <= most ? ids : newestFirst(book, ids).slice(0, most);
  });
}

function batchRow(views: Views, batch: Batch): BatchRow {
  const { book } = views.workshop;
  const batchId = batch.id;
  const steps = views.stepsOfBatch(batchId);
  const composition = views.cocoa(batchId);
  const scores = steps.filter(({ kind }) => kind === 'taste').map((step) => (step.command as { score: number }).score);
  return {
    batch,
    startedAt: book.firstEntry(batchId)?.at ?? 0,
    bowlMg: book.balance(batchId).massMg,
    chargedMg: book.entriesOf(batchId).reduce((sum, { massMg }) => sum + Math.max(0, massMg), 0),
    cocoaPct: composition.cocoaPct,
    family: originWords(views, batchId),
    marks: [...views.batchMarks(batchId)],
    allergens: composition.allergens,
    bars: tenth(views.bars(batchId).made),
    score: scores.length > 0 ? scores.reduce((a, b) => a + b, 0) / scores.length : null,
  };
}

/** The one origin of a batch, or that it is a blend and of what. */
function originWords(views: Views, batchId: string): string {
  const lots = views.lotsIn(batchId);
  const families = [...new Set(lots.map(({ id }) => views.family(id)))];
  return families.length > 1 ? `blend: ${families.join(' + ')}` : views.family(batchId);
}

/** Steps that are written before others get their turn. */
const STEPS_AT_ONCE = 100;

async function* stepsCsv(views: Views): AsyncGenerator<string> {
  yield csv([['step', 'at', 'station', 'kind', 'person', 'account', 'code', 'name', 'reason', 'massG', 'pieces']]);
  // What is entered while it runs is not in it.
  const steps = [...views.workshop.book.timeline];
  for (let from = 0; from < steps.length; from += STEPS_AT_ONCE) {
    const rows = steps
      .slice(from, from + STEPS_AT_ONCE)
      .flatMap((step) =>
        views
          .step(step)
          .lines.map((line) => [
            step.id,
            new Date(step.at).toISOString(),
            step.station,
            step.kind,
            views.person(step.personId),
            line.holdingId !== null ? 'holding' : line.loss !== null ? LOSS_NAMES[line.loss] : line.outside,
            line.code,
            line.name,
            line.reason,
            line.massMg / 1000,
            line.pieces,
          ]),
      );
    if (rows.length > 0) yield csv(rows);
    await breathe();
  }
}
