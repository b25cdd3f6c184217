import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Router } from '../http/router';
import { FILE_BODY, fileView, takeFile, upload } from '../journal/files';
import type { Views } from '../ledger/views';
import { outsideBars } from '../taste/subjects';
import { ofKind } from '../trace/recalls';

/** Photos of what was made, and of what a complaint is about. */
export function pictureRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const subject = z
    .string()
    .check(z.regex(/^(?:batch|complaint|bar):[\w-]{1,64}$/, 'is batch:, complaint: or bar: and its id'));
  router.write(
    'POST',
    '/api/pictures',
    'Attach a photo (Base64) to a batch, a complaint or a bar of another maker',
    z.extend(upload, { subject }),
    ({ subject: of, ...body }) => {
      const [kind, own = ''] = of.split(':');
      const isKnown =
        kind === 'batch'
          ? workshop.batches.has(own)
          : kind === 'bar'
            ? outsideBars(views).some((row) => row.id === own)
            : ofKind(views, 'complaint').some(({ value }) => value.complaintId === own);
      if (!isKnown)
        throw new DomainError('http/not-found', `There is no such ${kind ?? 'thing'}.`, [
          { path: 'subject', message: 'is not known' },
        ]);
      return fileView(views, takeFile(workshop, body, { lotId: null, subject: of }));
    },
    FILE_BODY,
  );
}
