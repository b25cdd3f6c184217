import { DomainError } from '@wunsch/core/errors/domain-error';
import { NO_POUR, type LivePour } from '@wunsch/core/work/tempering';
import type { Workshop } from '../journal/workshop';

/** Changes what is planned for a pour under way, and what was marked of it. @throws DomainError where that work is none */
export function changePour(workshop: Workshop, workId: string, change: (pour: LivePour) => LivePour): LivePour {
  const { pour = NO_POUR } = workshop.changeWork(workId, ({ station, pour: now = NO_POUR }) => {
    if (station !== 'temper') throw new DomainError('work/closed', 'That work is no pour.');
    return { pour: change(now) };
  });
  return pour;
}
