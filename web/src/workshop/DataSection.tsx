import { useState } from 'react';
import { send } from '../parts/api';
import { Refusal, Section } from '../parts/pieces';
import { useHere } from '../parts/workshop';

export function Data() {
  const { view } = useHere();
  const [error, setError] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const [typed, setTyped] = useState('');
  const restore = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setBusy(true);
    try {
      await send('POST', '/api/workshop/restore', file);
      setError(null);
    } catch (reason) {
      setError(reason);
    } finally {
      setBusy(false);
    }
  };
  const begin = async (): Promise<void> => {
    setBusy(true);
    try {
      await send('POST', '/api/demo/reset', { confirm: typed.trim().toLowerCase() });
      setTyped('');
      setError(null);
    } catch (reason) {
      setError(reason);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Section title="The data is yours">
      <div className="flex flex-wrap gap-3">
        <a className="button" href="/api/workshop/export.zip" download="wunsch-workshop.zip">
          Everything, with photos and papers (ZIP)
        </a>
        <a className="button" href="/api/workshop/export.json" download="wunsch-workshop.json">
          Everything as one JSON file
        </a>
        <a className="button" href="/api/trace/steps.csv" download="wunsch-steps.csv">
          Every posting as CSV
        </a>
      </div>
      {view.empty && (
        <label className="label mt-4 block">
          {busy ? 'Restoring … this takes a while for many years' : 'Restore an export into this empty workshop'}
          <input
            type="file"
            accept=".zip,.json,.gz,application/json,application/zip"
            className="entry py-2"
            disabled={busy}
            onChange={(event) => {
              const file = event.target.files?.[0];
              // The same file can be chosen again.
              event.target.value = '';
              void restore(file);
            }}
          />
        </label>
      )}
      {view.settings.demo && (
        <div className="mt-5">
          <p className="text-sm text-soft">
            This workshop is made up. Beginning again throws away everything entered here, and makes the demo anew, up
            to today.
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-3">
            <label className="label">
              Type “begin again”
              <input className="entry" value={typed} onChange={(event) => setTyped(event.target.value)} />
            </label>
            <button
              type="button"
              className="button"
              disabled={busy || typed.trim().toLowerCase() !== 'begin again'}
              onClick={() => void begin()}
            >
              {busy ? 'Beginning …' : 'Begin the demo again'}
            </button>
          </div>
        </div>
      )}
      <Refusal error={error} />
    </Section>
  );
}
