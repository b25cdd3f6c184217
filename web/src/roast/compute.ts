import { wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import useSWR from 'swr';
import type { LoadView, LoggedLoadData, RoasterView } from '@wunsch/core/api/roast';
import type { RoasterFit } from '@wunsch/core/roast/fit';
import { getJson, useApi } from '../parts/api';
import type { Roasting } from './worker';

let remote: Remote<Roasting> | null = null;

/** The worker, begun when first asked. */
export function roasting(): Remote<Roasting> {
  remote ??= wrap<Roasting>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** Does the work and notes how long it took, for whoever measures (User Timing). */
export async function timed<T>(name: string, work: () => Promise<T>): Promise<T> {
  const start = performance.now();
  const answer = await work();
  performance.measure(name, { start });
  return answer;
}

export const useRoasters = (): RoasterView[] | undefined =>
  useApi<{ roasters: RoasterView[] }>('/api/roast/roasters').data?.roasters;

export const loggedLoads = async (roasterId: string, nib: boolean): Promise<LoggedLoadData[]> =>
  (
    await getJson<{ loads: LoggedLoadData[] }>(
      `/api/roast/roasters/${encodeURIComponent(roasterId)}/loads?nib=${nib ? 1 : 0}`,
    )
  ).loads;

/** Several loads with all that is known of each, in the order asked for. */
export function useLoadViews(codes: readonly string[]): { loads: LoadView[] | undefined; error: unknown } {
  const answer = useSWR<LoadView[], unknown>(
    codes.length === 0 ? null : `/api/roast/loads?together=${codes.join('+')}`,
    () => Promise.all(codes.map((code) => getJson<LoadView>(`/api/roast/loads/${encodeURIComponent(code)}`))),
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  return { loads: answer.data, error: answer.error };
}

/** What a roaster does, fitted in the worker from its logged loads; begun again when one is added. */
export function useFit(roaster: RoasterView | null | undefined, nib: boolean): RoasterFit | undefined {
  const key = roaster === undefined ? null : ['roast-fit', roaster?.id, roaster?.facts.kind, roaster?.curves, nib];
  return useSWR(
    key,
    async () => {
      const loads = roaster ? await loggedLoads(roaster.id, nib) : [];
      return timed('roast-fit', () => roasting().fit(roaster?.facts.kind ?? 'oven', loads));
    },
    { revalidateOnFocus: false, revalidateIfStale: false, dedupingInterval: 60_000 },
  ).data;
}

/**
 * Something worked out elsewhere from what is on screen: one question is under way at a time, and when it is answered
 * the newest is asked, so that a dragged line is followed as fast as the worker can. The last answer stays meanwhile.
 *
 * @param question changes when it has to be asked again; null for not yet; @param name what it is measured as
 */
export function useWorked<T>(question: string | null, work: () => Promise<T>, name = 'roast-worked'): T | null {
  const [answer, setAnswer] = useState<T | null>(null);
  const state = useRef<{ asked: string | null; busy: boolean; next: (() => void) | null }>({
    asked: null,
    busy: false,
    next: null,
  });
  useEffect(() => {
    const now = state.current;
    if (question === null || question === now.asked) return;
    const ask = (): void => {
      now.asked = question;
      now.busy = true;
      void timed(name, work)
        .then((value) => setAnswer(value))
        .catch(() => undefined)
        .finally(() => {
          now.busy = false;
          const { next } = now;
          now.next = null;
          next?.();
        });
    };
    if (now.busy) now.next = ask;
    else ask();
    // The question says what the work depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [question]);
  return answer;
}
