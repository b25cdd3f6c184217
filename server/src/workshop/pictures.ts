import { z } from 'zod';
import type { FileView } from '@wunsch/core/api/beans';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/ledger/commands';
import { LARGEST_FILE, sniff } from '../beans/sniff';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import type { FileMeta } from '../store/records';
import { outsideBars } from '../taste/subjects';
import { ofKind } from '../trace/recalls';
import type { Workshop } from './workshop';

/** A photo or paper as it is sent: Base64, after shrinking in the browser. */
export const upload = z.object({
  personId: id,
  name: z.string().trim().min(1, 'is missing').max(120, 'is longer than 120 letters'),
  caption: z.string().trim().max(200, 'is longer than 200 letters').default(''),
  data: z.base64('is not Base64'),
});
/** Base64 is a third longer than what it carries. */
export const FILE_BODY = Math.ceil(LARGEST_FILE * 1.4) + 10_000;

export const fileView = (views: Views, file: FileMeta): FileView => ({
  id: file.id,
  name: file.name,
  caption: file.caption,
  type: file.type,
  bytes: file.size,
  width: file.width,
  height: file.height,
  at: file.at,
  person: views.person(file.personId),
});

/** Takes a photo or paper in, by what it is and not by its name. */
export function takeFile(
  workshop: Workshop,
  { data, ...rest }: z.infer<typeof upload>,
  of: Pick<FileMeta, 'lotId' | 'subject'>,
): FileMeta {
  const bytes = Buffer.from(data, 'base64');
  const found = sniff(bytes);
  return workshop.addFile({ ...rest, ...found, ...of }, bytes);
}

/** Photos of what was made, and of what a complaint is about. */
export function pictureRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const subject = z.string().regex(/^(?:batch|complaint|bar):[\w-]{1,64}$/, 'is batch:, complaint: or bar: and its id');
  router.write(
    'POST',
    '/api/pictures',
    'Attach a photo (Base64) to a batch, a complaint or a bar of another maker',
    upload.extend({ subject }),
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
