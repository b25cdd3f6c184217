import { DomainError } from '@wunsch/core/errors/domain-error';
import { NO_MOULD, type LiveMould } from '@wunsch/core/work/moulding';
import type { Workshop } from '../journal/workshop';

/** Changes what was filled and weighed of moulding under way. @throws DomainError where that work is none */
export function changeMould(workshop: Workshop, workId: string, change: (mould: LiveMould) => LiveMould): LiveMould {
  const { mould = NO_MOULD } = workshop.changeWork(workId, ({ station, mould: now = NO_MOULD }) => {
    if (station !== 'mould') throw new DomainError('work/closed', 'That work is no moulding.');
    return { mould: change(now) };
  });
  return mould;
}
