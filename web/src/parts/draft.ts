import { useCallback, useEffect, useState } from 'react';

/** What was typed and not yet saved, kept in this browser until it is saved or thrown away. */
export interface Draft<T> {
  value: T;
  /** Goes with the save, so that saving the same draft twice (two tabs, a double press) enters it once. */
  key: string;
  touched: boolean;
  set: (change: (value: T) => T) => void;
  clear: () => void;
}

interface Kept<T> {
  value: T;
  key: string;
}

const name = (id: string): string => `wunsch.draft.${id}`;

/** A random key; also without a secure context, as on a workshop's own network. */
export const newKey = (): string =>
  typeof crypto.randomUUID === 'function'
    ? crypto.randomUUID()
    : [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** What was typed in a form and not saved, with its key; null where nothing was. */
export function loadDraft<T>(id: string): Kept<T> | null {
  try {
    const text = localStorage.getItem(name(id));
    return text === null ? null : (JSON.parse(text) as Kept<T>);
  } catch {
    return null;
  }
}

/** Keeps what is typed. A full or forbidden storage costs the draft its reload, nothing else. */
export function saveDraft(id: string, value: unknown, key: string): void {
  try {
    localStorage.setItem(name(id), JSON.stringify({ value, key }));
  } catch {
    // Nothing can be kept here.
  }
}

/** What was typed in a form and not saved; null where nothing was. */
export const draftOf = <T>(id: string): T | null => loadDraft<T>(id)?.value ?? null;

export const dropDraft = (id: string): void => localStorage.removeItem(name(id));

/** Whether something was typed and not saved: a form that is not shown at first opens on it again. */
export const hasDraft = (id: string): boolean => loadDraft(id) !== null;

/**
 * A draft that survives a reload.
 *
 * @param id which draft, unique to the form and its subject
 * @param initial what an untouched form holds
 */
export function useDraft<T>(id: string, initial: () => T): Draft<T> {
  const [state, setState] = useState<{ id: string; kept: Kept<T>; touched: boolean }>(() => open(id, initial));
  if (state.id !== id) setState(open(id, initial));

  useEffect(() => {
    if (!state.touched) return;
    saveDraft(state.id, state.kept.value, state.kept.key);
  }, [state]);

  const set = useCallback((change: (value: T) => T) => {
    setState((now) => ({ ...now, touched: true, kept: { ...now.kept, value: change(now.kept.value) } }));
  }, []);
  const clear = useCallback(() => {
    localStorage.removeItem(name(id));
    setState({ id, kept: { value: initial(), key: newKey() }, touched: false });
    // `initial` is a fresh function on every render; only the identity of the draft matters here.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [id]);
  return { value: state.kept.value, key: state.kept.key, touched: state.touched, set, clear };
}

/**
 * What is typed beside a form, a word or a figure on one line: kept in this browser until it is saved.
 *
 * @param id which of them, unique to its place and its subject
 * @param initial what stands there before anything is typed
 * @returns what stands there, what changes it, and what forgets it
 */
export function useKept<T>(id: string, initial: T): readonly [T, (next: T | ((now: T) => T)) => void, () => void] {
  const { value, set, clear } = useDraft(id, () => initial);
  return [value, (next) => set((now) => (next instanceof Function ? next(now) : next)), clear] as const;
}

function open<T>(id: string, initial: () => T): { id: string; kept: Kept<T>; touched: boolean } {
  const kept = loadDraft<T>(id);
  return { id, kept: kept ?? { value: initial(), key: newKey() }, touched: kept !== null };
}
