import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id, pieces } from '@wunsch/core/fields/fields';
import { text } from '@wunsch/core/fields/fields';
import { recallOf } from '@wunsch/core/trace/recall';
import { COMPLAINTS } from '@wunsch/core/trace/records';
import { found } from '../http/found';
import { param } from '../http/param';
import { csv } from '../http/csv';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { blocksOf } from '@wunsch/core/trace/blocks';
import { recallPdf } from './recall-letter';
import {
  byCode,
  complaintViews,
  ofKind,
  recallRecord,
  recallRows,
  recallView,
  sharedView,
  sharingView,
} from './recalls';
import { SHARED_KINDS } from './things';

const why = z
  .string()
  .check(z.trim(), z.minLength(3, 'says why, in a word or two'), z.maxLength(500, 'is longer than 500 letters'));
const codes = z
  .array(z.string().check(z.trim(), z.minLength(1), z.maxLength(40)))
  .check(z.minLength(1, 'name at least one code'), z.maxLength(60, 'are too many'));

/** Complaints, what they share, recalls with their blocks. */
export function recallRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  router.read('/api/trace/complaints', 'Complaints, the newest first', () => ({ complaints: complaintViews(views) }));
  router.write(
    'POST',
    '/api/trace/complaints',
    'Write a complaint down, at the code on the bar',
    z.object({
      personId: id,
      at: entryHead.shape.at,
      code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40)),
      what: z.enum(COMPLAINTS),
      from: text(120),
      pieces: z._default(z.nullable(pieces), null),
      note: text(1000),
    }),
    ({ personId, at, code, ...rest }) => {
      const complaintId = nanoid(10);
      const { id: holdingId } = byCode(views, code);
      workshop.addRecord('trace', { kind: 'complaint', complaintId, holdingId, ...rest }, { personId, at });
      return found(
        complaintViews(views).find((row) => row.id === complaintId),
        'There is no such complaint.',
      );
    },
  );
  router.write(
    'POST',
    '/api/trace/complaints/:id/answer',
    'Say what was answered to a complaint',
    z.object({ personId: id, word: why }),
    ({ personId, word }, request) => {
      const complaintId = param(request.params, 'id');
      if (!ofKind(views, 'complaint').some(({ value }) => value.complaintId === complaintId))
        throw new DomainError('http/not-found', 'There is no such complaint.');
      workshop.addRecord('trace', { kind: 'complaint-answered', complaintId, word }, { personId });
      return { answered: true };
    },
  );
  router.calc(
    '/api/trace/shared',
    'What goods with these codes have in common, the likeliest cause first; a code twice counts twice',
    z.object({ codes }),
    (body) => sharedView(views, body.codes),
  );
  router.read(
    '/api/trace/sharing',
    'Every good that shares a thing',
    (_, thing) => sharingView(views, thing),
    z.object({ kind: z.enum(SHARED_KINDS), id: z.string().check(z.minLength(1), z.maxLength(120)) }),
  );
  router.read('/api/trace/recalls', 'Recalls, the newest first', () => ({ recalls: recallRows(views) }));
  router.write(
    'POST',
    '/api/trace/recalls',
    'Recall goods and everything that has something of them: what is here is blocked at once, unless it is a mock one',
    z.object({ personId: id, codes, why, mock: z._default(z.boolean(), false) }),
    ({ personId, codes: named, why: reason, mock }) => {
      const recallId = nanoid(10);
      const subjects = [...new Set(named.map((code, index) => byCode(views, code, `codes.${index}`).id))];
      workshop.addRecord('trace', { kind: 'recall', recallId, subjects, why: reason, mock }, { personId });
      if (!mock) {
        const holdingIds = recallOf(workshop.book, subjects).here.map(({ holdingId }) => holdingId);
        if (holdingIds.length > 0)
          workshop.addRecord('trace', { kind: 'blocked', recallId, holdingIds, why: reason }, { personId });
      }
      return recallView(views, recallId);
    },
  );
  router.read('/api/trace/recalls/:id', 'A recall, with where everything is now', (request) =>
    recallView(views, param(request.params, 'id')),
  );
  router.write(
    'POST',
    '/api/trace/recalls/:id/release',
    'Release blocked goods by name, with a word that is kept; without codes all of this recall',
    z.object({ personId: id, codes: z.optional(codes), word: why }),
    ({ personId, codes: named, word }, request) => {
      const recallId = recallRecord(views, param(request.params, 'id')).value.recallId;
      const mine = [...blocksOf(workshop.records)].flatMap(([holdingId, block]) =>
        block.recallId === recallId ? [holdingId] : [],
      );
      const chosen = named?.map((code, index) => byCode(views, code, `codes.${index}`).id) ?? mine;
      const holdingIds = chosen.filter((holdingId) => mine.includes(holdingId));
      if (holdingIds.length === 0)
        throw new DomainError('trace/not-blocked', 'Nothing of that is blocked by this recall.', [
          { path: 'codes', message: 'is not blocked' },
        ]);
      workshop.addRecord('trace', { kind: 'released', holdingIds, word }, { personId });
      return recallView(views, recallId);
    },
  );
  router.write(
    'POST',
    '/api/trace/recalls/:id/end',
    'End a recall',
    z.object({ personId: id, word: why }),
    ({ personId, word }, request) => {
      const { recallId } = recallRecord(views, param(request.params, 'id')).value;
      if (ofKind(views, 'recall-ended').some(({ value }) => value.recallId === recallId))
        throw new DomainError('trace/ended', 'That recall has been ended already, perhaps at another screen.');
      workshop.addRecord('trace', { kind: 'recall-ended', recallId, word }, { personId });
      return recallView(views, recallId);
    },
  );
  router.read(
    '/api/trace/recalls/:id/sheet.csv',
    'A recall as CSV (RFC 4180): what is here, what went to whom',
    (request) => {
      const view = recallView(views, param(request.params, 'id'));
      const rows: (string | number | null)[][] = [
        ['where', 'code', 'name', 'to', 'when', 'pieces', 'massG', 'share', 'blocked'],
      ];
      for (const row of view.here)
        rows.push([
          'here',
          row.code,
          row.name,
          row.place,
          null,
          row.pieces,
          row.massMg / 1000,
          row.share,
          row.blocked ? 'yes' : 'no',
        ]);
      for (const row of view.sold)
        rows.push([
          'sold',
          row.code,
          null,
          row.to,
          new Date(row.at).toISOString(),
          row.pieces,
          row.massMg / 1000,
          null,
          null,
        ]);
      for (const row of view.lost) rows.push(['gone', null, row.cause, null, null, 0, row.massMg / 1000, null, null]);
      return csv(rows);
    },
  );
  router.file('/api/trace/recalls/:id/letter.pdf', 'A recall as a letter, buyer by buyer', async (request) => {
    const view = recallView(views, param(request.params, 'id'));
    return {
      type: 'application/pdf',
      name: `recall-${view.codes[0] ?? 'goods'}.pdf`,
      bytes: await recallPdf(workshop.settings, view, workshop.now()),
      inline: true,
    };
  });
}
