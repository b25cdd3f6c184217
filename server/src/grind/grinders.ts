import type { GrinderView } from '@wunsch/core/api/grind';
import { carriedOver } from '@wunsch/core/composition/carry-over';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { realFill, type FillFact } from '@wunsch/core/grind/fill';
import { upkeepDue } from '@wunsch/core/grind/upkeep';
import type { CommandOf } from '@wunsch/core/commands';
import { formatMass } from '@wunsch/core/units/mass';
import { newService, type Machine } from '@wunsch/core/workshop/schemas';
import { param } from '../http/param';
import type { Views } from '../ledger/views';
import type { Router } from '../http/router';
import type { GrindRun, GrindRuns } from './study';

/** Pours that say what usually stays in a machine. */
const MOST_POURS = 20;

/** Machines of the grind station as their own bowls know them, and their upkeep. */
export function grinderRoutes(router: Router, views: Views, runs: GrindRuns): void {
  const { workshop } = router;
  const known = (request: { params: unknown }): Machine => {
    const machine = workshop.machines.get(param(request.params, 'id'));
    if (!machine) throw new DomainError('http/not-found', 'There is no such machine.');
    return machine;
  };
  router.read(
    '/api/grind/machines/:id',
    'A machine as its own bowls know it: what it really takes, hours run, upkeep, what stays in it',
    (request) => grinderView(views, runs, known(request)),
  );
  router.write(
    'POST',
    '/api/workshop/machines/:id/services',
    'Record that a machine was dressed, serviced or repaired',
    newService,
    (body, request) => {
      const machine = known(request);
      workshop.checkPerson(body.personId);
      const services = [
        ...(machine.services ?? []),
        { at: workshop.timeOf(body), personId: body.personId, what: body.what, note: body.note },
      ].sort((a, b) => a.at - b.at);
      workshop.putMachine({ ...machine, services });
      return { services: services.length };
    },
  );
}

function grinderView(views: Views, runs: GrindRuns, machine: Machine): GrinderView {
  const { workshop } = views;
  const now = workshop.now();
  const own = runs.ofMachine(machine.id);
  const services = machine.services ?? [];
  const last = (what: string): number => services.findLast((row) => row.what === what)?.at ?? 0;
  const hours = {
    run: runs.lives.hoursSince(machine.id, 0, now),
    sinceDressed: runs.lives.hoursSince(machine.id, last('dressed'), now),
    sinceServiced: runs.lives.hoursSince(machine.id, last('serviced'), now),
  };
  const person = (id: string): string => workshop.people.get(id)?.name ?? '';
  const cleaned = machine.cleanings?.at(-1);
  return {
    id: machine.id,
    name: machine.name,
    fill: realFill(
      own.map((run) => fillFact(views, run)),
      { minG: machine.plateMinG ?? machine.minG, maxG: machine.plateMaxG ?? machine.maxG },
      (mg) => formatMass(mg, workshop.settings.massSystem),
    ),
    hours,
    due: upkeepDue(machine, hours).map(({ sentence }) => sentence),
    services: services
      .map((row) => ({ at: row.at, what: row.what, note: row.note, person: person(row.personId) }))
      .reverse(),
    holdUpsG: own.flatMap((run) => holdUpsG(views, run, machine.id)).slice(-MOST_POURS),
    carries: carriedOver(
      machine.name,
      workshop.compositions.machineUses(machine.id, now + 1),
      machine.cleanings ?? [],
      now + 1,
      [],
    ),
    cleaned: cleaned ? { at: cleaned.at, how: cleaned.how, person: person(cleaned.personId) } : null,
    grinds: own.length,
  };
}

/** A bowl at its fullest, or at the moment that it made trouble. */
function fillFact(views: Views, { batch, massG }: GrindRun): FillFact {
  for (const step of views.stepsOfBatch(batch.id)) {
    if (step.kind !== 'reading') continue;
    const { what, cause } = step.command as CommandOf<'reading'>;
    const trouble =
      what === 'stones-stop' && cause === 'stalled'
        ? 'stalled'
        : what === 'spilled'
          ? 'spilled'
          : what === 'starved'
            ? 'starved'
            : null;
    if (trouble === null) continue;
    const there = views.workshop.book
      .entriesOf(batch.id)
      .filter(({ at }) => at <= step.at)
      .reduce((sum, entry) => sum + entry.massMg, 0);
    return { massG: Math.max(1, there / 1000), trouble };
  }
  return { massG: Math.max(1, massG), trouble: null };
}

/** What was scraped off late, or not at all, after each pour that emptied the bowl. */
function holdUpsG(views: Views, run: GrindRun, machineId: string): number[] {
  if (run.endedAt === null || run.machineId !== machineId) return [];
  const pour = views.stepsOfBatch(run.batch.id).findLast(({ kind }) => kind === 'discharge');
  if (!pour) return [];
  const mg = pour.postings.reduce(
    (sum, row) => (row.loss === 'hold-up' || row.loss === 'unaccounted' ? sum + row.massMg : sum),
    0,
  );
  return mg > 0 ? [mg / 1000] : [];
}
