import type { BeanRecordValue } from '@wunsch/core/beans/records';
import { send } from '../parts/api';
import { somebody, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

/** A record as it is sent: defaults may be left out. */
export type NewRecord = { kind: BeanRecordValue['kind'] } & Record<string, unknown>;

/** Writes records about a lot (or, without a code, about the bean store). */
export function useRecords(code: string | null): ReturnType<typeof useSave> & {
  write: (record: NewRecord, key?: string, at?: string) => Promise<boolean>;
  /** The same for a record form, which tells of a refusal itself. @throws ApiError, or Error where nobody is chosen */
  enter: (record: NewRecord, key: string, at?: string) => Promise<unknown>;
} {
  const { personId } = useHere();
  const save = useSave();
  const path = code === null ? '/api/beans/records' : (`/api/beans/lots/${encodeURIComponent(code)}/records` as const);
  const enter = (record: NewRecord, key?: string, at?: string): Promise<unknown> =>
    send('POST', path, { personId: somebody(personId), record, ...(at === undefined ? {} : { at }) }, key);
  const write = (record: NewRecord, key?: string, at?: string): Promise<boolean> =>
    save.run(async () => enter(record, key, at));
  return { ...save, write, enter };
}
