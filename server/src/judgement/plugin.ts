import { z } from 'zod/mini';
import type { JudgementWordView } from '@wunsch/core/api/judgement';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { judgementRecord, wordsInForce } from '@wunsch/core/judgement/records';
import { id } from '@wunsch/core/fields/fields';
import { found } from '../http/found';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';

const [word] = judgementRecord.def.options;

/** Words against verdicts: kept beside what was said then, shown wherever the verdict is, and taken back by a record. */
export function judgementRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const words = (): JudgementWordView[] =>
    wordsInForce(workshop.records.of('judgement')).map((row) => ({ ...row, person: views.person(row.personId) }));
  router.read('/api/judgement/words', 'What people said against verdicts, oldest first', () => ({ words: words() }));
  router.write(
    'POST',
    '/api/judgement/words',
    'Overrule a verdict with a word that is kept',
    z.extend(z.omit(word, { kind: true }), { personId: id }),
    ({ personId, ...rest }) => {
      const record = workshop.addRecord('judgement', { kind: 'word', ...rest }, { personId });
      return found(
        words().find(({ id: recordId }) => recordId === record.id),
        'There is no such word.',
      );
    },
  );
  router.write(
    'POST',
    '/api/judgement/words/:id/taken-back',
    'Take a word back: it stays in the records and is shown no more',
    z.object({ personId: id }),
    ({ personId }, request) => {
      const recordId = param(request.params, 'id');
      if (!words().some((row) => row.id === recordId))
        throw new DomainError('judgement/unknown-word', 'There is no such word, or it was taken back already.');
      workshop.addRecord('judgement', { kind: 'taken-back', recordId }, { personId });
      return { words: words() };
    },
  );
}
