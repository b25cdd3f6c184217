import type { DueItem } from '@wunsch/core/api/types';
import { nextAttended } from '@wunsch/core/run/attended';
import { upkeepDue } from '@wunsch/core/grind/upkeep';
import { localIn } from '@wunsch/core/units/zone';
import { machinesAt } from '@wunsch/core/workshop/machines';
import type { Views } from '../ledger/views';
import { grindRuns } from './study';

const HOUR_MS = 3_600_000;

/** What bowls on the stones and the machines themselves need next. */
export function grindDue(views: Views): DueItem[] {
  const { workshop } = views;
  const { settings } = workshop;
  const runs = grindRuns(views);
  const now = workshop.now();
  const local = localIn(settings.timeZone);
  const items: DueItem[] = [];
  for (const grind of views.grinds()) {
    const { batch, machine } = grind;
    const link = `/station/grind?batch=${batch.code}`;
    const run = runs.run(batch);
    if (run)
      for (const act of runs.actViews(run, now))
        if (act.doneAt === null && act.dueAt !== null)
          items.push({
            id: `act-${act.id}`,
            station: 'grind',
            text: `${act.what}, ${batch.code}`,
            link,
            at: act.dueAt,
          });
    // Where no size is aimed at, none is read.
    if (machine?.coarse === true || machine?.conches === true) continue;
    const last = grind.readings.findLast(({ what }) => what === 'micron' || what === 'felt')?.at ?? grind.startedAt;
    items.push({
      id: `reading-${batch.id}`,
      station: 'grind',
      text: `Read the gauge, ${batch.code}`,
      link,
      at: nextAttended(last + settings.readingHours * HOUR_MS, settings.attended, local),
    });
  }
  for (const machine of machinesAt(workshop.machines.values(), 'grind')) {
    if (machine.dressEveryH == null && machine.serviceEveryH == null) continue;
    const since = (what: string): number =>
      runs.lives.hoursSince(machine.id, machine.services?.findLast((row) => row.what === what)?.at ?? 0, now);
    for (const { what, title, now: due } of upkeepDue(machine, {
      sinceDressed: since('dressed'),
      sinceServiced: since('serviced'),
    }))
      if (due)
        items.push({ id: `upkeep-${machine.id}-${what}`, station: 'grind', text: title, link: '/workshop', at: now });
  }
  return items;
}
