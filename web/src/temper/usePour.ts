import type { LivePour } from '@wunsch/core/work/tempering';
import { ask, send, useApi } from '../parts/api';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

/** A pour under way, asked for every second, and what can be said of it. */
export function usePour(workId: string) {
  const { personId } = useHere();
  const path = `/api/temper/works/${workId}` as const;
  const pour = useApi(`${path}/pour`, 1000);
  const { busy, error, run, fail } = useSave();
  const asSomebody = async (work: (id: string) => Promise<unknown>): Promise<boolean> => {
    if (personId === null) {
      fail(NOBODY);
      return false;
    }
    return run(async () => {
      await work(personId);
      await pour.mutate();
    });
  };
  const write = (way: 'plan' | 'marks' | `acts/${string}`, body: object): Promise<boolean> =>
    asSomebody((id) => send('POST', `${path}/${way}`, { personId: id, ...body }));
  return {
    data: pour.data,
    path,
    busy,
    error,
    follow: (probe: 'simulated' | 'sent' | null, speed = 1) =>
      asSomebody((id) => ask(`${path}/probe`, { personId: id, probe, speed })),
    read: (tempC: number) => asSomebody(() => ask(`${path}/readings`, { tempC })),
    plan: (body: { school: LivePour['school']; acts?: LivePour['acts']; bowlKg?: number; roomC?: number }) =>
      write('plan', body),
    setDone: (actId: string, done: boolean) => write(`acts/${actId}`, { done }),
    mark: (what: LivePour['marks'][number]['what']) => write('marks', { what }),
    unmark: () => asSomebody(() => send('DELETE', `${path}/marks/last`)),
  };
}
export type Poured = ReturnType<typeof usePour>;
