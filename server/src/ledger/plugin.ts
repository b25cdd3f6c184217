import type { StepVersions } from '@wunsch/core/api/reads';
import { param } from '../http/param';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { ClosedWork, EnteredStep, CorrectionPreview, StepView } from '@wunsch/core/api/types';
import { command, type Command } from '@wunsch/core/commands';
import { entryHead, startWork, type EntryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import { STATIONS } from '@wunsch/core/work/stations';
import type { Step } from '@wunsch/core/ledger/types';
import type { Router } from '../http/router';
import { judgeStep } from './judged-yield';
import { chocolatePct } from './chocolate-part';
import type { Views } from './views';

const entry = z.extend(entryHead, { command });
/** Later steps that are corrected along with the first, all or none. */
const along = z._default(
  z.array(z.object({ stepId: id, command })).check(z.maxLength(2000, 'are too many at once')),
  [],
);
const reason = z.string().check(z.trim(), z.minLength(3, 'says why, in a word or two'), z.maxLength(500));

/** Where each kind of step is posted; the step itself is checked by its own schema. */
const PATHS: Record<Command['kind'], string> = {
  receive: '/api/beans/lots',
  dry: '/api/beans/dryings',
  buy: '/api/money/purchases',
  sort: '/api/sort/sessions',
  roast: '/api/roast/loads',
  winnow: '/api/winnow/sessions',
  charge: '/api/grind/charges',
  discharge: '/api/grind/discharges',
  reading: '/api/grind/readings',
  rest: '/api/rest/blocks',
  temper: '/api/temper/pours',
  silk: '/api/temper/silk',
  remelt: '/api/temper/remelts',
  mould: '/api/mould/sessions',
  pack: '/api/pack/sessions',
  taste: '/api/taste/tastings',
  sell: '/api/money/sales',
  return: '/api/money/returns',
  adjust: '/api/ledger/counts',
  open: '/api/ledger/opening',
};

/** Steps, corrections, work under way; the floor and the benches read from them. */
export function ledgerRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const answer = (step: Step): EnteredStep => ({ step: views.step(step), judgement: judgeStep(views, step.id) });

  router.write('POST', '/api/ledger/steps', 'Enter any step', entry, ({ command: entered, ...head }) =>
    answer(workshop.record(entered, head)),
  );
  for (const option of command.def.options) {
    const kind = option.shape.kind.def.values[0] as Command['kind'];
    const body = z.extend(entryHead, { command: option });
    router.write('POST', PATHS[kind], `Enter a step: ${kind}`, body, ({ command: entered, ...head }) =>
      answer(workshop.record(entered, head)),
    );
  }
  router.write(
    'POST',
    '/api/ledger/steps/:id/correct',
    'Supersede a step',
    z.extend(entry, { reason, along }),
    ({ command: entered, reason: why, along: later, ...head }, request) =>
      answer(
        workshop.record(
          entered,
          head,
          { supersedes: param(request.params, 'id'), reason: why },
          undefined,
          new Map(later.map((row) => [row.stepId, row.command])),
        ),
      ),
  );
  router.calc(
    '/api/ledger/steps/:id/preview',
    'What a correction would do to every later step, with proposals; enters nothing',
    z.extend(entry, { along }),
    ({ command: entered, along: later, ...head }, request) =>
      previewView(
        views,
        entered,
        head,
        param(request.params, 'id'),
        new Map(later.map((row) => [row.stepId, row.command])),
      ),
  );
  router.write(
    'POST',
    '/api/ledger/steps/:id/withdraw',
    'Take a step back',
    z.object({ personId: id, reason }),
    (body, request) => answer(workshop.withdraw(param(request.params, 'id'), body.personId, body.reason)),
  );
  router.write('POST', '/api/ledger/works', 'Begin work that is weighed out later', startWork, (body) =>
    views.work(workshop.startWork(body)),
  );
  router.write(
    'POST',
    '/api/ledger/works/:id/finish',
    'Weigh work out',
    entry,
    ({ command: entered, ...head }, request) => answer(workshop.finishWork(param(request.params, 'id'), entered, head)),
  );
  router.write('POST', '/api/ledger/works/:id/pause', 'Stop the clock of hands', z.object({}), (_, request) =>
    views.work(workshop.pauseWork(param(request.params, 'id'), true)),
  );
  router.write('POST', '/api/ledger/works/:id/resume', 'Start the clock of hands again', z.object({}), (_, request) =>
    views.work(workshop.pauseWork(param(request.params, 'id'), false)),
  );
  router.write('DELETE', '/api/ledger/works/:id', 'Put work back as if not begun', z.object({}), (_, request) => {
    workshop.putBack(param(request.params, 'id'));
    return { putBack: true };
  });

  router.read('/api/ledger/works/:id', 'How a piece of work ended', async (request): Promise<ClosedWork> => {
    const id = param(request.params, 'id');
    const closed = await workshop.closedWork(id);
    if (!closed)
      throw new DomainError(
        'http/not-found',
        workshop.works.has(id) ? 'It is still under way.' : 'There is no such work.',
      );
    const step = workshop.book.steps.get(closed.closedBy ?? '');
    return { closedAt: closed.closedAt, step: step ? views.step(step) : null };
  });
  router.read('/api/ledger/steps/:id', 'One step with all its versions', (request) =>
    versions(views, param(request.params, 'id')),
  );
  const listQuery = z.object({
    station: z.optional(z.enum([...STATIONS, 'pantry', 'store'])),
    before: z.optional(z.coerce.number().check(z.int())),
    limit: z._default(z.coerce.number().check(z.int(), z.minimum(1), z.maximum(200)), 50),
  });
  router.read(
    '/api/ledger/steps',
    'Steps in force, newest first; page with `before`',
    (_, query) => {
      const { timeline } = workshop.book;
      const steps: StepView[] = [];
      let next: number | null = null;
      for (let i = Math.min(query.before ?? timeline.length, timeline.length) - 1; i >= 0; i -= 1) {
        const step = timeline.at(i);
        if (!step || (query.station !== undefined && step.station !== query.station)) continue;
        if (steps.length === query.limit) {
          next = i + 1;
          break;
        }
        steps.push(views.step(step));
      }
      return { steps, next };
    },
    listQuery,
  );
  router.read('/api/ledger/holdings/:code', 'One tub, block or bar', (request) => {
    const holding = workshop.book.byCode(param(request.params, 'code'));
    if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here carries that code.');
    return {
      holding: views.holding(holding.id),
      composition: views.composition(holding.id),
      chocolatePct: chocolatePct(views, holding.id),
      origin: views.origin(holding.id),
      steps: workshop.book
        .entriesOf(holding.id)
        .map(({ stepId }) => workshop.book.steps.get(stepId))
        .filter((s) => s !== undefined)
        .map((s) => views.step(s)),
    };
  });
}

/** A correction and all it reaches, before and after. */
function previewView(
  views: Views,
  entered: Command,
  head: EntryHead,
  stepId: string,
  later: ReadonlyMap<string, Command>,
): CorrectionPreview {
  const { reached, problem } = views.workshop.previewCorrection(entered, head, stepId, later);
  return {
    steps: reached.map(({ old, command: proposed, next, problem: refused }) => ({
      before: views.step(old),
      command: proposed,
      entered: old.command as Command,
      after: next ? views.step(next).lines : null,
      problem: refused?.message ?? null,
    })),
    problem: problem?.message ?? null,
  };
}

function versions(views: Views, stepId: string): StepVersions {
  const { book } = views.workshop;
  let step = book.steps.get(stepId);
  if (!step) throw new DomainError('ledger/unknown-step', 'There is no such step.');
  for (let next = book.successorOf(step.id); next !== undefined; next = book.successorOf(step.id))
    step = book.steps.get(next) ?? step;
  const chain: Step[] = [];
  for (let at: Step | undefined = step; at; at = at.supersedes === null ? undefined : book.steps.get(at.supersedes))
    chain.push(at);
  return {
    step: views.step(step),
    judgement: judgeStep(views, step.id),
    versions: chain.map((row) => views.step(row)),
  };
}
