import { z } from 'zod/mini';
import type { BatchLooks, WindowsView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id } from '@wunsch/core/fields/fields';
import type { CommandOf } from '@wunsch/core/commands';
import { text } from '@wunsch/core/fields/fields';
import type { Seen } from '@wunsch/core/ledger/types';
import { isFault, looksOf, whyIt } from '@wunsch/core/temper/bloom';
import type { BarFault, RELEASES } from '@wunsch/core/work/moulding';
import { windows } from '@wunsch/core/temper/windows';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { fileView } from '../journal/files';
import { temperCalculators } from './calculators';
import { JudgedPours } from './judged';
import { livePourRoutes } from './live-routes';
import type { Pours } from './pours';
import { windowsHere } from './windows';

const DAY_MS = 86_400_000;

/** What is seen of bars that are seconds for a reason of the temper, and of how they left their moulds. */
const SEEN_OF: Partial<Record<BarFault, Seen[]>> = {
  bloom: ['veil'],
  streak: ['streaks'],
  dull: ['dull'],
  stuck: ['stuck'],
};
const RELEASED: Record<(typeof RELEASES)[number], Seen[]> = { 'by-itself': ['released'], tapped: [], stuck: ['stuck'] };

/** Pours under way and done: followed by a probe or by hand, judged afterwards; what they teach. */
export function temperRoutes(router: Router, views: Views, pours: Pours): void {
  const { workshop } = router;
  const judged = new JudgedPours(views);
  livePourRoutes(router, pours, judged);
  windowRoutes(router, views);
  router.read('/api/temper/steps/:id', 'A pour that is done, judged', (request) => {
    const step = workshop.book.steps.get(param(request.params, 'id'));
    if (!step || step.kind !== 'temper') throw new DomainError('http/not-found', 'There is no such pour.');
    return judged.of(step);
  });
  router.read(
    '/api/temper/batches/:code/looks',
    'How the bars of a batch look, and why',
    async (request): Promise<BatchLooks> => {
      const code = param(request.params, 'code').toUpperCase();
      const batch = [...workshop.batches.values()].find((row) => row.code === code);
      if (!batch) throw new DomainError('trace/unknown-code', `There is no batch ${code}.`);
      const { book } = workshop;
      const steps = views.stepsOfBatch(batch.id);
      const done = await Promise.all(steps.filter(({ kind }) => kind === 'temper').map((step) => judged.of(step)));
      const moulded = steps.find(({ kind }) => kind === 'mould')?.at ?? done.at(-1)?.at ?? 0;
      let moulds = 0;
      const pressed = steps.flatMap((step): (BatchLooks['sights'][number] & { apart: number })[] => {
        const by = { stepId: step.id, at: step.at, person: views.person(step.personId) };
        if (step.kind === 'mould') {
          moulds += 1;
          // What was wrong with bars as they were turned out is the first that is seen of them.
          const { faults = [], release = null } = step.command as CommandOf<'mould'>;
          const seen = [
            ...new Set([...faults.flatMap(({ fault }) => SEEN_OF[fault] ?? []), ...(release ? RELEASED[release] : [])]),
          ];
          if (seen.length === 0) return [];
          return [{ ...by, days: 0, seen, bloom: null, note: '', apart: moulds }];
        }
        if (step.kind !== 'reading') return [];
        const { what, seen, bloom = null, note } = step.command as CommandOf<'reading'>;
        if (what !== 'seen' || !seen) return [];
        const days = Math.max(0, (step.at - moulded) / DAY_MS);
        return [{ ...by, days, seen, bloom, note, apart: moulds }];
      });
      const sights = looksOf(pressed).map(({ apart: _, ...sight }) => sight);
      const reserved = workshop.reserved();
      // What was seen before it was moulded again is not of the bars that are here.
      const lastMouldAt = steps.findLast(({ kind }) => kind === 'mould')?.at ?? 0;
      const isOfThese = (sights.findLast(({ seen }) => seen.some(isFault))?.at ?? 0) >= lastMouldAt;
      const standing = isOfThese ? book.standing : [];
      const here = standing.flatMap(({ id: holdingId, batchId, kind, code: own }): BatchLooks['here'] => {
        if (batchId !== batch.id || (kind !== 'bars' && kind !== 'seconds' && kind !== 'packed')) return [];
        if (reserved.has(holdingId)) return [];
        return [{ holdingId, code: own, kind, ...book.balance(holdingId) }];
      });
      const photos = workshop.beans.picturesOf(`batch:${batch.id}`).map((file) => fileView(views, file));
      return { pours: done, sights, photos, here, cause: whyIt(done, sights) };
    },
  );
  router.read('/api/temper/learned/:code', 'What earlier pours of the same bar teach of its setting', (request) =>
    judged.learnedFully(param(request.params, 'code').toUpperCase()),
  );
  router.still('/api/temper/faults', 'How often which fault came first in a year, at which bench', () =>
    judged.faults(),
  );
  temperCalculators(router);
}

/** Windows of a recipe or a bar: those that its composition speaks for, or its own. */
function windowRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const holdingOf = (request: { params: unknown }) => {
    const code = param(request.params, 'code').toUpperCase();
    const holding = workshop.book.byCode(code);
    if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here has that code.');
    return holding;
  };
  const view = (request: { params: unknown }): WindowsView => {
    const holding = holdingOf(request);
    const { usual, ...here } = windowsHere(views, holding.id);
    return { code: holding.code, ...here, usual: usual.windows };
  };
  router.read('/api/temper/windows/:code', 'Where a pour of it is melted out, cooled to and worked', view);
  router.write(
    'POST',
    '/api/temper/windows/:code',
    'Give the recipe or bar of a code its own windows; null: the usual ones again',
    z.object({ personId: id, windows: z.nullable(windows), why: text(300) }),
    ({ personId, ...value }, request) => {
      const { subject } = windowsHere(views, holdingOf(request).id);
      workshop.addRecord('temper', { kind: 'windows', of: subject, ...value }, { personId });
      return view(request);
    },
  );
}
