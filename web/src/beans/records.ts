import type { BeanRecordValue } from '@wunsch/core/beans/records';
import { send } from '../parts/api';
import { newKey } from '../parts/draft';
import { NOBODY, useSave } from '../parts/save';
import { useHere } from '../parts/workshop';

/** A record as it is sent: defaults may be left out. */
export type NewRecord = { kind: BeanRecordValue['kind'] } & Record<string, unknown>;

/** Writes records about a lot (or, without a code, about the bean store). */
export function useRecords(code: string | null): ReturnType<typeof useSave> & {
  write: (record: NewRecord, key?: string, at?: string) => Promise<boolean>;
} {
  const { personId } = useHere();
  const save = useSave();
  const path = code === null ? '/api/beans/records' : `/api/beans/lots/${encodeURIComponent(code)}/records`;
  const write = async (record: NewRecord, key = newKey(), at?: string): Promise<boolean> => {
    if (personId === null) {
      save.fail(NOBODY);
      return false;
    }
    return save.run(() => send('POST', path, { personId, record, ...(at === undefined ? {} : { at }) }, key));
  };
  return { ...save, write };
}
