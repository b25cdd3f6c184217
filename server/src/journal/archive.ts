import { PassThrough, Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { exportPieces } from './export';
import type { Workshop } from './workshop';

/** One time for everything in it: the same workshop always gives the same bytes. */
const MTIME = new Date('2000-01-01T00:00:00Z');

/** The whole workshop as a ZIP: the JSON document, and each photo and paper as the file that it is. */
export async function archive(workshop: Workshop): Promise<Readable> {
  const zip = new ZipFile();
  const out = new PassThrough();
  const options = { mtime: MTIME, mode: 0o600 };
  const hashes = new Set<string>();
  for (const { sha256 } of workshop.beans.files.values())
    if (await workshop.store.files.has(sha256)) hashes.add(sha256);
  zip.on('error', (error: Error) => out.destroy(error));
  zip.addReadStreamLazy('workshop.json', options, (taken) => taken(null, Readable.from(exportPieces(workshop, false))));
  for (const hash of [...hashes].sort())
    zip.addReadStreamLazy(`files/${hash}`, { ...options, compress: false }, (taken) =>
      taken(null, workshop.store.files.open(hash)),
    );
  zip.end();
  zip.outputStream.pipe(out);
  return out;
}
