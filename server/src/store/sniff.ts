import { imageSize } from 'image-size';
import { DomainError } from '@wunsch/core/errors/domain-error';

/** Bytes of one photo or paper, after shrinking in the browser. */
export const LARGEST_FILE = 6 * 1024 * 1024;
/** Pixels of one picture: more would fill the memory of whatever opens it. */
const MOST_PIXELS = 50_000_000;

const PICTURES: Record<string, string> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

export interface Sniffed {
  type: string;
  width: number | null;
  height: number | null;
}

const refuse = (code: string, message: string, say: string): never => {
  throw new DomainError(`beans/${code}`, message, [{ path: 'data', message: say }]);
};

/** What a file is, by its content and never by its name. @throws DomainError for anything but a picture or a PDF */
export function sniff(bytes: Uint8Array): Sniffed {
  if (bytes.length === 0) refuse('empty-file', 'That file is empty.', 'is empty');
  if (bytes.length > LARGEST_FILE)
    refuse(
      'file-too-large',
      `That file has ${(bytes.length / 1e6).toFixed(1)} MB; at most ${Math.floor(LARGEST_FILE / 1e6)} MB are kept.`,
      'is too large',
    );
  if (Buffer.from(bytes.subarray(0, 5)).toString('latin1') === '%PDF-')
    return { type: 'application/pdf', width: null, height: null };
  try {
    const { type, width, height } = imageSize(bytes);
    const known = PICTURES[type ?? ''];
    if (known !== undefined && width > 0 && height > 0 && width * height <= MOST_PIXELS)
      return { type: known, width, height };
  } catch {
    // Falls through: not a picture.
  }
  return refuse(
    'not-a-picture',
    'That is neither a picture (JPEG, PNG, WebP) nor a PDF, whatever its name says.',
    'is neither a picture nor a PDF',
  );
}
