import type { BackupsView } from '@wunsch/core/api/reads';
import { useState } from 'react';
import { send, useApi } from '../parts/api';
import { Box } from '../parts/fields';
import { Refusal, Section } from '../parts/pieces';
import { useSave } from '../parts/save';
import { count, span, useHere, useShow } from '../parts/workshop';

const REASONS: Record<BackupsView['backups'][number]['reason'], string> = {
  daily: 'of the day',
  asked: 'asked for',
  'before-restore': 'before a restore',
  'before-migration': 'before an update',
};
const SHOWN = 8;

const size = (bytes: number): string =>
  bytes < 1e6 ? `${count(Math.ceil(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** Whole copies of the workshop: how old the newest is, one more by a press, and the way back to one. */
export function BackupSection() {
  const { view } = useHere();
  const show = useShow();
  const answer = useApi('/api/workshop/backups');
  const [chosen, setChosen] = useState<string | null>(null);
  const [typed, setTyped] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const { busy, error, run } = useSave();
  if (!answer.data) return null;
  const { backups, directory, now } = answer.data;
  const [newest] = backups;
  const restore = (name: string): void =>
    void run(async () => {
      const { data } = await send('POST', `/api/workshop/backups/${encodeURIComponent(name)}/restore`, {
        confirm: typed,
      });
      setTold(`It is in its place. What was here before is kept as ${data.before}.`);
      setChosen(null);
      setTyped('');
    });
  return (
    <Section
      title="Backups"
      aside={newest ? `newest ${span(now - newest.at)} old` : <strong className="text-crimson">none yet</strong>}
    >
      <p className="text-sm text-soft">
        One a day on which something was entered, each read back before it counts, in <code>{directory}</code>. Copy
        that directory to another machine: a copy on the same disk is lost with it.
      </p>
      <ul className="rows mt-2">
        {backups.slice(0, SHOWN).map(({ name, reason, at, bytes }) => (
          <li key={name} className="py-1.5">
            <div className="flex flex-wrap items-center gap-x-4">
              <span className="min-w-0 flex-1 basis-48">
                {show.moment(at)}{' '}
                <span className="text-sm text-soft">
                  {REASONS[reason]}, {size(bytes)}
                </span>
              </span>
              <a
                className="link inline-flex min-h-11 items-center"
                href={`/api/workshop/backups/${name}`}
                download={name}
              >
                Download
              </a>
              <button
                type="button"
                className="button button-quiet"
                onClick={() => setChosen(chosen === name ? null : name)}
              >
                Put it in place
              </button>
            </div>
            {chosen === name && (
              <div className="mb-2 rounded-md bg-crimson-wash px-4 py-3">
                <p>
                  Everything entered since {show.moment(at)} leaves the book. It is backed up first, so that this can be
                  undone the same way. Type the name of the workshop, <strong>{view.settings.name}</strong>, to go on.
                </p>
                <div className="mt-2 flex flex-wrap items-end gap-3">
                  <Box label="Name of the workshop" value={typed} onChange={setTyped} />
                  <button
                    type="button"
                    className="button"
                    disabled={busy || typed.trim().toLowerCase() !== view.settings.name.trim().toLowerCase()}
                    onClick={() => restore(name)}
                  >
                    {busy ? 'Restoring …' : 'Put this backup in place'}
                  </button>
                </div>
              </div>
            )}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="button mt-3"
        disabled={busy}
        onClick={() => void run(() => send('POST', '/api/workshop/backups', {}))}
      >
        {busy ? 'Working …' : 'Back up now'}
      </button>
      {told && (
        <p role="status" className="mt-3 rounded-md bg-leaf-wash px-4 py-3">
          {told}
        </p>
      )}
      <Refusal error={error} />
    </Section>
  );
}
