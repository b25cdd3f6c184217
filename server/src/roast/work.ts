import { DomainError } from '@wunsch/core/errors/domain-error';
import type { LiveRoast } from '@wunsch/core/work/roasting';
import type { Work } from '@wunsch/core/workshop/work';
import type { Workshop } from '../journal/workshop';

/** Changes the facts of a roast that is live. @throws DomainError where that work is none */
export const changeRoast = (workshop: Workshop, workId: string, change: (roast: LiveRoast) => LiveRoast): Work =>
  workshop.changeWork(workId, ({ roast }) => {
    if (!roast) throw new DomainError('work/closed', 'That work is no roast that is followed live.');
    return { roast: change(roast) };
  });
