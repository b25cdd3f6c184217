import { z } from 'zod/mini';
import { IMPORT_FIELDS, WEIGHT_UNITS } from '@wunsch/core/beans/import';
import { beanRecord } from '@wunsch/core/beans/records';
import { checkHoldRecord } from '@wunsch/core/beans/state';
import { judgeCut, CUT_CLASSES } from '@wunsch/core/beans/cut-test';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import { heavyUnit } from '@wunsch/core/units/price';
import { wilson } from '@wunsch/core/stats/intervals';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { sortView } from '../sort/views';
import { FILE_BODY, fileView, takeFile, upload } from '../journal/files';
import { previewImport } from './import';
import { claimPdf } from './pdf/claim';
import { lotPdf } from './pdf/lot-sheet';
import { beanStoreView } from './store';
import { lotsCsv } from './table';
import { beanLotView, lotByCode, samplesView } from './views';

const head = z.object({ personId: id, at: entryHead.shape.at });
const TABLE_BODY = 900_000;

/** Lots with all that is written down about them; the bean store; photos, papers, sheets, tables. */
export function beanRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const lotOf = (request: { params: unknown }): string => lotByCode(views, param(request.params, 'code'));

  router.still('/api/beans/lots/:code', 'One lot with all that is written down about it', (request) =>
    beanLotView(views, lotOf(request)),
  );
  router.read('/api/beans/store', 'What stands in the bean store', () => beanStoreView(views));
  router.still('/api/beans/samples', 'Samples side by side', () => ({ samples: samplesView(views) }));
  router.still('/api/sort/lots/:code', 'What sorting has found on a lot', (request) => sortView(views, lotOf(request)));
  router.read('/api/beans/lots.csv', 'Lots as CSV (RFC 4180)', () => lotsCsv(views));

  router.write(
    'POST',
    '/api/beans/lots/:code/records',
    'Write something down about a lot',
    z.extend(head, { record: beanRecord }),
    ({ record, ...who }, request) => {
      const lotId = lotOf(request);
      if (record.kind === 'taken-back' || record.kind === 'trap') throw notHere(record.kind);
      checkHoldRecord(workshop.standing(lotId), record, workshop.timeOf(who));
      return workshop.addBeanRecord(lotId, record, who);
    },
  );
  router.write(
    'POST',
    '/api/beans/records',
    'Write something down about the bean store',
    z.extend(head, { record: beanRecord }),
    ({ record, ...who }) => {
      if (record.kind !== 'trap') throw notHere(record.kind);
      return workshop.addBeanRecord(null, record, who);
    },
  );
  router.write(
    'POST',
    '/api/beans/records/:id/take-back',
    'Take a record back: it stays readable but counts no more',
    z.extend(head, { word: z._default(z.string().check(z.trim(), z.maxLength(500)), '') }),
    ({ word, ...who }, request) => {
      const recordId = param(request.params, 'id');
      const lotId = workshop.beans.lotOfRecord(recordId);
      if (lotId === undefined || !workshop.beans.of(lotId).some((row) => row.id === recordId))
        throw new DomainError('http/not-found', 'There is no such record, or it was taken back already.');
      return workshop.addBeanRecord(lotId, { kind: 'taken-back', recordId, word }, who);
    },
  );

  fileRoutes(router, views, lotOf);
  importRoutes(router, views);

  const tally = z.object(
    Object.fromEntries(
      CUT_CLASSES.map((name) => [name, z._default(z.number().check(z.int(), z.minimum(0)), 0)]),
    ) as Record<(typeof CUT_CLASSES)[number], z.ZodMiniDefault<z.ZodMiniNumber>>,
  );
  router.calc(
    '/api/calc/beans/cut-test',
    'Grade of a cut test and how sure it is',
    z.object({
      planned: z._default(z.number().check(z.int(), z.minimum(1)), 300),
      tally,
      trays: z.optional(z.array(tally).check(z.maxLength(110))),
    }),
    ({ planned, tally: counted, trays }) => judgeCut(counted, planned, trays),
  );
  router.calc(
    '/api/calc/stats/share',
    'Wilson interval of a share',
    z
      .object({
        hits: z.number().check(z.int(), z.minimum(0)),
        n: z.number().check(z.int(), z.minimum(1)),
        level: z._default(z.number().check(z.gt(0), z.lt(1)), 0.95),
      })
      .check(z.refine((b) => b.hits <= b.n, { message: 'is more than were looked at', path: ['hits'] })),
    ({ hits, n, level }) => ({ share: hits / n, ...wilson(hits, n, level) }),
  );
}

const notHere = (kind: string): DomainError =>
  new DomainError('beans/wrong-place', `A record of the kind “${kind}” is not written here.`, [
    { path: 'record.kind', message: 'does not belong here' },
  ]);

function fileRoutes(router: Router, views: Views, lotOf: (request: { params: unknown }) => string): void {
  const { workshop } = router;
  router.write(
    'POST',
    '/api/beans/lots/:code/files',
    'Attach a photo or paper (Base64)',
    upload,
    (body, request) => fileView(views, takeFile(workshop, body, { lotId: lotOf(request), subject: null })),
    FILE_BODY,
  );
  router.write('DELETE', '/api/beans/files/:id', 'Remove a photo or paper', z.object({}), (_, request) => {
    workshop.removeFile(param(request.params, 'id'));
    return { removed: true };
  });
  router.file('/api/beans/files/:id', 'A photo or paper', async (request) => {
    const file = workshop.beans.files.get(param(request.params, 'id'));
    const bytes = file ? await workshop.fileBytes(file.id) : null;
    if (!file || !bytes) throw new DomainError('http/not-found', 'There is no such file.');
    return { type: file.type, name: file.name, bytes, inline: file.type.startsWith('image/') };
  });
  router.file('/api/beans/lots/:code/claim.pdf', 'Claim sheet for the supplier', async (request) => {
    const lotId = lotOf(request);
    return {
      type: 'application/pdf',
      name: `claim-${param(request.params, 'code')}.pdf`,
      bytes: await claimPdf(views, lotId),
      inline: true,
    };
  });
  router.file(
    '/api/beans/lots/:code/sheet.pdf',
    'Lot sheet to hang on the sacks, with a QR code of its page',
    async (request) => {
      const lotId = lotOf(request);
      const origin = `${request.protocol}://${request.headers.host ?? 'localhost'}`;
      return {
        type: 'application/pdf',
        name: `lot-${param(request.params, 'code')}.pdf`,
        bytes: await lotPdf(views, lotId, origin),
        inline: true,
      };
    },
  );
}

function importRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const column = z.nullable(z.number().check(z.int(), z.minimum(0), z.maximum(500)));
  const weightUnit = z.enum(Object.keys(WEIGHT_UNITS) as [keyof typeof WEIGHT_UNITS]);
  const table = z.object({
    text: z.string().check(z.minLength(1, 'is empty'), z.maxLength(TABLE_BODY)),
    mapping: z.optional(
      z.object(
        Object.fromEntries(IMPORT_FIELDS.map(({ name }) => [name, z.optional(column)])) as Record<
          (typeof IMPORT_FIELDS)[number]['name'],
          z.ZodMiniOptional<typeof column>
        >,
      ),
    ),
    unit: z.optional(weightUnit),
    pricePer: z.optional(weightUnit),
    routeId: id,
  });
  const request = (body: z.infer<typeof table>) => ({
    ...body,
    heavy: heavyUnit(workshop.settings.massSystem),
    currency: workshop.settings.currency,
    timeZone: workshop.settings.timeZone,
  });
  router.calc('/api/beans/import/preview', 'What a table of lots would bring in', table, (body) =>
    previewImport(request(body)),
  );
  router.write(
    'POST',
    '/api/beans/import',
    'Take in a table of lots: all of it or nothing',
    z.extend(table, { personId: id }),
    ({ personId, ...body }) => {
      const preview = previewImport(request(body));
      if (preview.bad > 0)
        throw new DomainError(
          'beans/bad-rows',
          `${preview.bad} of ${preview.rows.length} rows cannot be read. Nothing was taken in.`,
          preview.rows
            .flatMap(({ line, problems }) =>
              problems.map(({ field, message }) => ({ path: `line ${line}, ${field}`, message })),
            )
            .slice(0, 100),
        );
      const codes = preview.rows.map(({ command, at, line }) => {
        if (!command) throw new Error(`no command for line ${line}`);
        const step = workshop.record(command, {
          personId,
          machineId: null,
          minutes: 0,
          energyKwh: 0,
          ...(at === null ? {} : { at }),
        });
        return views.workshop.book.holding(step.slots['good'] ?? '').code;
      });
      return { codes };
    },
    TABLE_BODY * 2,
  );
}
