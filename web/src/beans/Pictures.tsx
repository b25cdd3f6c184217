import { FilePdfIcon, TrashIcon } from '@phosphor-icons/react';
import { useRef, useState } from 'react';
import type { FileView } from '@wunsch/core/api/beans';
import { isSure } from '../parts/asking';
import { send } from '../parts/api';
import { useKept } from '../parts/draft';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';
import { prepare } from '../parts/shrink';

/** Takes a photograph or a paper and attaches it at once. */
export function AddFile({ code }: { code: string }) {
  const { personId } = useHere();
  const input = useRef<HTMLInputElement>(null);
  const [caption, setCaption, forget] = useKept(`file.${code}.caption`, '');
  const [done, setDone] = useState<string | null>(null);
  const { busy, error, run, fail } = useSave();
  const add = async (file: File): Promise<void> => {
    setDone(null);
    if (personId === null) return fail(NOBODY);
    const saved = await run(async () => {
      const { data, name } = await prepare(file);
      await send('POST', `/api/beans/lots/${encodeURIComponent(code)}/files`, { personId, name, caption, data });
    });
    if (!saved) return;
    setDone(file.name);
    forget();
  };
  return (
    <div>
      <div className="flex flex-wrap items-end gap-3">
        <label className="label min-w-52 flex-1">
          What the next picture or paper shows
          <input
            className="entry"
            value={caption}
            onChange={(event) => setCaption(event.target.value)}
            placeholder="seam of sack 3"
          />
        </label>
        <input
          ref={input}
          type="file"
          accept="image/*,application/pdf"
          className="sr-only"
          aria-label="Picture or PDF to attach"
          tabIndex={-1}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void add(file);
          }}
        />
        <button type="button" className="button" disabled={busy} onClick={() => input.current?.click()}>
          {busy ? 'Shrinking and sending …' : 'Attach a picture or PDF'}
        </button>
      </div>
      {done !== null && (
        <p role="status" className="mt-1 text-sm">
          {done} is attached.
        </p>
      )}
      <Refusal error={error} />
    </div>
  );
}

/** Pictures and papers of a lot. */
export function Pictures({ code, files }: { code: string; files: readonly FileView[] }) {
  const show = useShow();
  const { error, run } = useSave();
  const remove = async (file: FileView): Promise<void> => {
    const title = `Remove “${file.caption || file.name}”?`;
    if (await isSure({ title, what: 'It is deleted for good.', yes: 'Remove it' }))
      void run(() => send('DELETE', `/api/beans/files/${file.id}`));
  };
  return (
    <div>
      {files.length > 0 && (
        <ul className="mb-4 grid grid-cols-2 gap-3 sm:grid-cols-3">
          {files.map((file) => (
            <li key={file.id}>
              <a
                href={`/api/beans/files/${file.id}`}
                target="_blank"
                rel="noreferrer"
                className="block overflow-hidden rounded-md bg-sunk"
              >
                {file.type.startsWith('image/') ? (
                  <img
                    src={`/api/beans/files/${file.id}`}
                    alt={file.caption || file.name}
                    loading="lazy"
                    className="aspect-[8/5] w-full object-cover"
                  />
                ) : (
                  <span className="flex aspect-[8/5] items-center justify-center">
                    <FilePdfIcon size={40} aria-label="PDF" />
                  </span>
                )}
              </a>
              <div className="flex items-start justify-between gap-1">
                <span className="min-w-0 pt-1.5 text-sm leading-tight">
                  <span className="block truncate">{file.caption || file.name}</span>
                  <span className="text-soft">
                    {file.person}, {show.day(file.at)}
                  </span>
                </span>
                <button
                  type="button"
                  className="inline-flex size-11 flex-none items-center justify-center text-soft hover:text-ink"
                  aria-label={`Remove ${file.caption || file.name}`}
                  onClick={() => void remove(file)}
                >
                  <TrashIcon size={16} aria-hidden />
                </button>
              </div>
            </li>
          ))}
        </ul>
      )}
      <Refusal error={error} />
      <AddFile code={code} />
    </div>
  );
}
