import type { Readable } from 'node:stream';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Router } from '../http/router';
import { archive } from '../journal/archive';
import { exportStream } from '../journal/export';
import { readExport } from '../journal/incoming';
import { checkEmpty, restoreWorkshop } from '../journal/restore';
import type { Workshop } from '../journal/workshop';

/**
 * Restores what a stream holds: read outside the turn of the writers, put in place within it.
 *
 * @param before called within the turn, when everything was read and nothing was changed
 */
export async function restoreFrom(
  workshop: Workshop,
  stream: Readable,
  before: () => Promise<unknown> | void,
): Promise<{ steps: number }> {
  if (workshop.restoring)
    throw new DomainError('work/closed', 'Something is being restored already. Wait until that is done.');
  workshop.restoring = true;
  try {
    const incoming = await readExport(stream, workshop.store);
    try {
      await workshop.exclusively(async () => {
        await before();
        await restoreWorkshop(workshop, incoming);
      });
    } finally {
      await incoming.close();
    }
    return { steps: workshop.book.steps.size };
  } finally {
    workshop.restoring = false;
    await workshop.exclusively(() => workshop.sweepFiles());
  }
}

export function dataRoutes(router: Router): void {
  const { workshop } = router;
  router.download('/api/workshop/export.json', 'Everything, as one JSON document', () =>
    Promise.resolve({ type: 'application/json; charset=utf-8', stream: exportStream(workshop) }),
  );
  router.download(
    '/api/workshop/export.zip',
    'Everything: one JSON document, and photos and papers beside it',
    async () => ({
      type: 'application/zip',
      stream: await archive(workshop),
    }),
  );
  router.upload(
    '/api/workshop/restore',
    'Restore an export (the JSON document or the ZIP) into an empty workshop',
    async (stream) => {
      checkEmpty(workshop);
      return restoreFrom(workshop, stream, () => checkEmpty(workshop));
    },
  );
}
