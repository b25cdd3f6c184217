import { wrap, type Remote } from 'comlink';
import useSWR from 'swr';
import type { LoadView, LoggedLoadData, RoasterView } from '@wunsch/core/api/roast';
import type { RoasterFit } from '@wunsch/core/roast/fit';
import { getJson, useApi } from '../parts/api';
import { timed } from '../parts/worked';
import type { Roasting } from './worker';

let remote: Remote<Roasting> | null = null;

/** The worker, begun when first asked. */
export function roasting(): Remote<Roasting> {
  remote ??= wrap<Roasting>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

export const useRoasters = (): RoasterView[] | undefined => useApi('/api/roast/roasters').data?.roasters;

/** Those that something can be begun on, and one that was chosen before it was retired. */
export const useRoastersInUse = (chosen?: string | null): RoasterView[] | undefined =>
  useRoasters()?.filter(({ id, retired }) => !retired || id === chosen);

export const loggedLoads = async (roasterId: string, nib: boolean): Promise<LoggedLoadData[]> =>
  (await getJson(`/api/roast/roasters/${encodeURIComponent(roasterId)}/loads?nib=${nib ? 1 : 0}`)).loads;

/** Several loads with all that is known of each, in the order asked for. */
export function useLoadViews(codes: readonly string[]): { loads: LoadView[] | undefined; error: unknown } {
  const answer = useSWR<LoadView[], unknown>(
    codes.length === 0 ? null : `/api/roast/loads?together=${codes.join('+')}`,
    () => Promise.all(codes.map((code) => getJson(`/api/roast/loads/${encodeURIComponent(code)}`))),
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
