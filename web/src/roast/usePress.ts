import { send } from '../parts/api';
import { useSave } from '../parts/save';

type Noted = 'signs' | 'stirs' | 'settings' | 'readings' | 'stop' | 'undo';
/** Something is noted of a roast that is live. */
export type Press = (name: Noted, body?: object) => void;
/** The same, for who has to know whether it was kept. */
export type Note = (name: Noted, body: object) => Promise<boolean>;

/** Presses at a roast that is live. */
export function usePress(workId: string): { busy: boolean; error: unknown; press: Press; note: Note } {
  const { busy, error, run } = useSave();
  const note: Note = (name, body) => run(() => send('POST', `/api/roast/live/${workId}/${name}`, body));
  return { busy, error, press: (name, body = {}) => void note(name, body), note };
}
