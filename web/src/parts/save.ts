import { useState } from 'react';

/** Said where nobody is chosen. */
export const NOBODY = 'Choose who is at the bench, at the top right.';

/** Who enters something. @throws Error where nobody is chosen */
export function somebody(personId: string | null): string {
  if (personId === null) throw new Error(NOBODY);
  return personId;
}

/** Runs a save: busy while it goes, the refusal if there is one, and who is at the bench. */
export function useSave(): {
  busy: boolean;
  error: unknown;
  run: (work: () => Promise<unknown>) => Promise<boolean>;
  fail: (message: string) => void;
} {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const run = async (work: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    setError(null);
    try {
      await work();
      return true;
    } catch (reason) {
      setError(reason);
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, error, run, fail: (message) => setError(new Error(message)) };
}
