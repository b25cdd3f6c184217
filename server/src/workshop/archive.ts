import { PassThrough, Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { exportPieces } from './export';
import type { Workshop } from './workshop';

/** One time for everything in it: the same workshop always gives the same bytes. */
const MTIME = new Date('2000-01-01T00:00:00Z');

/** The whole workshop as a ZIP: the JSON document, and each photo and paper as the file that it is. */
export function archive(workshop: Workshop): Readable {
  const zip = new ZipFile();
  const out = new PassThrough();
  const options = { mtime: MTIME, mode: 0o600 };
  const hashes = new Set([...workshop.beans.files.values()].map(({ sha256 }) => sha256));
  zip.on('error', (error: Error) => out.destroy(error));
  zip.addReadStreamLazy('workshop.json', options, (taken) => taken(null, Readable.from(exportPieces(workshop, false))));
  for (const hash of [...hashes].sort())
    zip.addReadStreamLazy(`files/${hash}`, { ...options, compress: false }, (taken) => {
      workshop.store.files.read(hash).then(
        (bytes) => taken(null, Readable.from(bytes ? [Buffer.from(bytes)] : [])),
        (error: unknown) => taken(error, Readable.from([])),
      );
    });
  zip.end();
  zip.outputStream.pipe(out);
  return out;
}
