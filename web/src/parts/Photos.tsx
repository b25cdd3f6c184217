import { CameraIcon } from '@phosphor-icons/react';
import { useRef } from 'react';
import type { FileView } from '@wunsch/core/api/beans';
import { prepare } from './shrink';
import { send } from './api';
import { Refusal } from './pieces';
import { NOBODY, useSave } from './save';
import { useHere, useShow } from './workshop';

/** Photos of something, and taking another. */
export function Photos({
  subject,
  photos,
  caption,
  words = 'Photograph them',
}: {
  /** What they are of: `batch:…`, `complaint:…`. */
  subject: string;
  photos: readonly FileView[];
  caption: string;
  words?: string;
}) {
  const { personId } = useHere();
  const show = useShow();
  const input = useRef<HTMLInputElement>(null);
  const { busy, error, run, fail } = useSave();
  const add = (file: File): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      const { data, name } = await prepare(file);
      await send('POST', '/api/pictures', { personId, subject, name, caption: caption.slice(0, 200), data });
    });
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        className="sr-only"
        aria-label="Photo"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) add(file);
        }}
      />
      <button type="button" className="button button-quiet" disabled={busy} onClick={() => input.current?.click()}>
        <CameraIcon size={20} aria-hidden /> {busy ? 'Sending …' : words}
      </button>
      <Refusal error={error} />
      {photos.length > 0 && (
        <ul className="flex w-full flex-wrap gap-3" aria-label="Photos">
          {photos.map((file) => (
            <li key={file.id} className="w-40">
              <a href={`/api/beans/files/${file.id}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/beans/files/${file.id}`}
                  alt={file.caption || file.name}
                  loading="lazy"
                  className="aspect-[8/5] w-full rounded-md object-cover"
                />
              </a>
              <span className="block text-sm leading-tight text-soft">
                {file.caption || file.name}. {file.person}, {show.day(file.at)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
