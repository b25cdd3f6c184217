import { useState } from 'react';
import { useNow } from '../app/DueLine';

const TEST_MS = 5 * 60_000;
const SET_MS = 3 * 60_000;
const KEY = 'wunsch.temper-test';

const begun = (): number | null => {
  const kept = Number(localStorage.getItem(KEY));
  return kept > 0 && Date.now() - kept < 4 * TEST_MS ? kept : null;
};

/** The clock of the temper test: a dipped knife or paper sets glossy within three to five minutes. It survives a reload. */
export function TestClock() {
  const [since, setSince] = useState<number | null>(begun);
  const now = useNow(1000);
  const start = (at: number | null): void => {
    if (at === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, String(at));
    setSince(at);
  };
  if (since === null)
    return (
      <button type="button" className="button" onClick={() => start(Date.now())}>
        Test dipped
      </button>
    );
  const passed = Math.max(0, now - since);
  const left = Math.max(0, TEST_MS - passed);
  return (
    <span className="flex items-center gap-3" role="timer" aria-label="Temper test">
      <span className="figure text-2xl">
        {Math.floor(left / 60_000)}:{String(Math.floor((left % 60_000) / 1000)).padStart(2, '0')}
      </span>
      <span className="text-sm">
        {left === 0
          ? 'Five minutes: what is not set and glossy now is not in temper.'
          : passed >= SET_MS
            ? 'Set and glossy by now is well tempered.'
            : 'Set before three minutes with a dull skin: too much crystal.'}
      </span>
      <button type="button" className="button button-quiet" onClick={() => start(null)}>
        {left === 0 ? 'Done' : 'Stop'}
      </button>
    </span>
  );
}
