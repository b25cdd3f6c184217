import { send } from '../parts/api';
import { useSave } from '../parts/save';

/** Something is noted of a roast that is live. */
export type Press = (name: 'signs' | 'stirs' | 'settings' | 'readings' | 'stop' | 'undo', body?: object) => void;

/** Presses at a roast that is live. */
export function usePress(workId: string): { busy: boolean; error: unknown; press: Press } {
  const { busy, error, run } = useSave();
  const press: Press = (name, body = {}) => void run(() => send('POST', `/api/roast/live/${workId}/${name}`, body));
  return { busy, error, press };
}
