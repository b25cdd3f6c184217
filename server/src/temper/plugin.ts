import { z } from 'zod';
import type { BatchLooks, LearnedView, PouredView } from '@wunsch/core/api/temper';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id, type CommandOf } from '@wunsch/core/ledger/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { whyIt } from '@wunsch/core/temper/bloom';
import { judgePour, type TemperReading } from '@wunsch/core/temper/judge';
import { learnedSetting, type PastPour } from '@wunsch/core/temper/learned';
import { windowsOf } from '@wunsch/core/temper/windows';
import { param } from '../http/param';
import type { Views } from '../ledger/views';
import type { Router } from '../http/router';
import { temperCalculators } from './calculators';
import type { Pours } from './pours';

/** A reading that no bowl of chocolate gives. */
const tempC = z.number().min(0, 'is colder than any bowl').max(90, 'is hotter than any bowl of chocolate');

/** Pours under way and done: followed by a probe or by hand, judged afterwards. */
export function temperRoutes(router: Router, views: Views, pours: Pours): void {
  const { workshop } = router;
  router.read('/api/temper/works/:id/pour', 'A pour under way, with its windows and its temperatures', (request) =>
    pours.view(param(request.params, 'id')),
  );
  router.calc(
    '/api/temper/works/:id/probe',
    'Say which probe follows a pour',
    z.object({
      personId: id,
      probe: z.enum(['simulated', 'sent']).nullable(),
      speed: z.number().int().min(1, 'must be at least 1').max(120, 'is faster than that').default(1),
    }),
    async ({ personId, probe, speed }, request) => {
      workshop.checkPerson(personId);
      await pours.follow(
        param(request.params, 'id'),
        probe === null ? null : { probe, speed: probe === 'simulated' ? speed : 1 },
      );
      return { probe };
    },
  );
  router.calc(
    '/api/temper/works/:id/readings',
    'Post a temperature of a pour, read by hand or by a real probe',
    z.object({ tempC }),
    async (body, request) => {
      await pours.take(param(request.params, 'id'), body.tempC);
      return { kept: true };
    },
  );
  router.read('/api/temper/steps/:id', 'A pour that is done, judged', (request) => {
    const step = workshop.book.steps.get(param(request.params, 'id'));
    if (!step || step.kind !== 'temper') throw new DomainError('http/not-found', 'There is no such pour.');
    return poured(views, step);
  });
  router.read(
    '/api/temper/batches/:code/looks',
    'How the bars of a batch look, and why',
    async (request): Promise<BatchLooks> => {
      const code = param(request.params, 'code').toUpperCase();
      const batch = [...workshop.batches.values()].find((row) => row.code === code);
      if (!batch) throw new DomainError('trace/unknown-code', `There is no batch ${code}.`);
      const steps = views.stepsOfBatch(batch.id);
      const pours = await Promise.all(steps.filter(({ kind }) => kind === 'temper').map((step) => poured(views, step)));
      const moulded = steps.find(({ kind }) => kind === 'mould')?.at ?? pours.at(-1)?.at ?? 0;
      const sights = steps.flatMap((step): BatchLooks['sights'] => {
        if (step.kind !== 'reading') return [];
        const { what, seen, bloom = null, note } = step.command as CommandOf<'reading'>;
        if (what !== 'seen' || !seen) return [];
        const days = Math.max(0, (step.at - moulded) / 86_400_000);
        return [{ stepId: step.id, at: step.at, days, seen, bloom, note, person: views.person(step.personId) }];
      });
      return { pours, sights, cause: whyIt(pours, sights) };
    },
  );
  router.read(
    '/api/temper/learned/:code',
    'What earlier pours of the same bar teach of its setting',
    (request): LearnedView => {
      const holding = workshop.book.byCode(param(request.params, 'code').toUpperCase());
      if (!holding) throw new DomainError('trace/unknown-code', 'Nothing here has that code.');
      const { name } = holding;
      const byWay = new Map<string, PastPour[]>();
      for (const step of workshop.book.timeline) {
        if (step.kind !== 'temper' || workshop.book.holdings.get(step.slots['good'] ?? '')?.name !== name) continue;
        const command = step.command as CommandOf<'temper'>;
        const machine = step.machineId === null ? undefined : workshop.machines.get(step.machineId)?.name;
        const on = `${machine ?? 'the bench'}, by ${command.method}`;
        byWay.set(on, [...(byWay.get(on) ?? []), command]);
      }
      return {
        name,
        settings: [...byWay]
          .flatMap(([on, pours]) => {
            const found = learnedSetting(pours, on, workshop.settings.temperatureUnit);
            return found ? [{ ...found, on }] : [];
          })
          .sort((a, b) => b.good - a.good),
      };
    },
  );
  temperCalculators(router);
}

/** What a pour's curve says; where none was logged, the three temperatures of its entry. */
async function poured(views: Views, step: Step): Promise<PouredView> {
  const { workshop } = views;
  const { book } = workshop;
  const command = step.command as CommandOf<'temper'>;
  const made = step.slots['good'] ?? '';
  const meta = workshop.roasts.curveOf(made);
  const curve = meta ? await workshop.readCurve(meta.id) : null;
  const speed = Number(/ (\d+)$/.exec(meta?.source ?? '')?.[1] ?? 1);
  const logged: TemperReading[] = curve
    ? Array.from(curve.seconds, (second, i) => ({ second: second * speed, tempC: curve.beanC[i] ?? NaN }))
    : [];
  const byHand = logged.length < 3;
  const readings = byHand
    ? [command.meltC, command.coolC, command.workC].map((value, index) => ({ second: 900 * index, tempC: value }))
    : logged;
  const { windows } = windowsOf(workshop.compositions.of(made).figures);
  const seeded =
    command.method === 'silk' ||
    command.method === 'seed' ||
    command.sources.some(({ holdingId }) => book.holdings.get(holdingId)?.kind === 'ingredient');
  return {
    stepId: step.id,
    code: book.holding(made).code,
    at: step.at,
    method: command.method,
    test: command.test,
    readings,
    byHand,
    windows,
    verdict: judgePour(readings, { windows, seeded, unit: workshop.settings.temperatureUnit }),
  };
}
