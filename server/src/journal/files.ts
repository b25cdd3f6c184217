import { z } from 'zod/mini';
import type { FileView } from '@wunsch/core/api/beans';
import { id } from '@wunsch/core/fields/fields';
import type { FileMeta } from '@wunsch/core/workshop/kept';
import { LARGEST_FILE, sniff } from '../store/sniff';
import type { Workshop } from './workshop';

/** A photo or paper as it is sent: Base64, after shrinking in the browser. */
export const upload = z.object({
  personId: id,
  name: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120, 'is longer than 120 letters')),
  caption: z._default(z.string().check(z.trim(), z.maxLength(200, 'is longer than 200 letters')), ''),
  data: z.base64('is not Base64'),
});
/** Base64 is a third longer than what it carries. */
export const FILE_BODY = Math.ceil(LARGEST_FILE * 1.4) + 10_000;

/** A file as it is shown. @param views says who somebody is */
export const fileView = (views: { person(id: string): string }, file: FileMeta): FileView => ({
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
