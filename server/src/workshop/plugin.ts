import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import type { WorkshopView } from '@wunsch/core/api/types';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { carriedOver } from '@wunsch/core/composition/carry-over';
import { ingredientFacts } from '@wunsch/core/composition/ingredient-facts';
import type { Material } from '@wunsch/core/ledger/types';
import {
  machineFacts,
  newCleaning,
  newMaterial,
  newPerson,
  newRoute,
  settingsChange,
} from '@wunsch/core/workshop/schemas';
import { changeRates } from '@wunsch/core/money/rates';
import { isCurrency } from '@wunsch/core/units/money';
import { dayText } from '@wunsch/core/units/zone';
import { param } from '../http/param';
import type { Router } from '../http/router';

/** Settings, team, machines, materials, routes. */
export function workshopRoutes(router: Router): void {
  const { workshop } = router;
  router.read('/api/workshop', 'Settings and reference lists', (): WorkshopView => ({
    settings: workshop.settings,
    people: [...workshop.people.values()],
    machines: [...workshop.machines.values()],
    materials: [...workshop.materials.values()],
    routes: [...workshop.routes.values()],
    version: workshop.version,
    empty: workshop.book.steps.size === 0,
    troubles: workshop.troubles,
  }));
  router.write('PUT', '/api/workshop/settings', 'Change settings', settingsChange, ({ ratesFrom, ...body }) => {
    if (body.currency !== workshop.settings.currency && workshop.book.steps.size > 0) {
      throw new DomainError(
        'workshop/currency-fixed',
        'The currency cannot change once there is work: every cost is kept in it.',
        [{ path: 'currency', message: 'is fixed once there is work' }],
      );
    }
    const old = workshop.settings;
    const next = { ...body, demo: old.demo, earlierRates: old.earlierRates };
    if (!isCurrency(body.currency))
      throw new DomainError('workshop/no-currency', `There is no currency ${body.currency}.`, [
        { path: 'currency', message: 'is no currency' },
      ]);
    workshop.putSettings(changeRates(old, next, ratesFrom ?? dayText(workshop.now(), body.timeZone)));
    return workshop.settings;
  });
  const known = <T>(map: Map<string, T>, id: string): T => {
    const found = map.get(id);
    if (found === undefined) throw new DomainError('http/not-found', 'There is nothing here with that id.');
    return found;
  };
  /** Two of one name cannot be told apart in any log. */
  const unlike = <T extends { id: string; name: string }>(
    map: Map<string, T>,
    name: string,
    own: string | null,
  ): void => {
    const like = name.trim().toLowerCase();
    const other = [...map.values()].find((row) => row.id !== own && row.name.trim().toLowerCase() === like);
    if (other)
      throw new DomainError(
        'workshop/same-name',
        `There is a “${other.name}” already: choose a name that tells them apart.`,
        [{ path: 'name', message: 'is taken' }],
      );
  };
  const leastAndMost = ({ minG, maxG }: { minG: number | null; maxG: number | null }): void => {
    if (minG !== null && maxG !== null && minG > maxG)
      throw new DomainError('workshop/least-over-most', 'The least that a machine takes is not more than the most.', [
        { path: 'minG', message: 'is more than the most' },
      ]);
  };
  /** What an ingredient is made of is here, and not made of it in turn. */
  const madeOfKnown = (material: Material): void => {
    const find = (id: string): Material | undefined => (id === material.id ? material : workshop.materials.get(id));
    (material.madeOf ?? []).forEach(({ materialId }, index) => {
      if (find(materialId)?.kind !== 'ingredient')
        throw new DomainError('recipe/unknown-ingredient', 'There is no such ingredient here.', [
          { path: `madeOf.${index}.materialId`, message: 'is not known here' },
        ]);
    });
    ingredientFacts(material, dayText(workshop.now(), workshop.settings.timeZone), find);
    // What is made of it must not become a circle either.
    for (const other of workshop.materials.values())
      if (other.id !== material.id) ingredientFacts(other, '9999-12-31', find);
  };
  router.write('POST', '/api/workshop/people', 'Add to the team', newPerson, (body) => {
    unlike(workshop.people, body.name, null);
    const person = { id: nanoid(10), name: body.name, active: true };
    workshop.putPerson(person);
    return person;
  });
  router.write(
    'PUT',
    '/api/workshop/people/:id',
    'Rename, or take off the quick list',
    z.extend(newPerson, { active: z.boolean() }),
    (body, request) => {
      unlike(workshop.people, body.name, param(request.params, 'id'));
      const person = { ...known(workshop.people, param(request.params, 'id')), ...body };
      workshop.putPerson(person);
      return person;
    },
  );
  router.write('POST', '/api/workshop/machines', 'Add a machine', machineFacts, (body) => {
    unlike(workshop.machines, body.name, null);
    leastAndMost(body);
    const machine = { ...body, id: nanoid(10) };
    workshop.putMachine(machine);
    return machine;
  });
  router.write('PUT', '/api/workshop/machines/:id', 'Change a machine', machineFacts, (body, request) => {
    unlike(workshop.machines, body.name, param(request.params, 'id'));
    leastAndMost(body);
    const machine = { ...known(workshop.machines, param(request.params, 'id')), ...body };
    workshop.putMachine(machine);
    return machine;
  });
  router.write('POST', '/api/workshop/materials', 'Add an ingredient or packaging', newMaterial, (body) => {
    unlike(workshop.materials, body.name, null);
    const material = { ...body, id: nanoid(10) };
    madeOfKnown(material);
    workshop.putMaterial(material);
    return material;
  });
  router.write(
    'PUT',
    '/api/workshop/materials/:id',
    'Change an ingredient or packaging',
    newMaterial,
    (body, request) => {
      const material = { ...known(workshop.materials, param(request.params, 'id')), ...body };
      madeOfKnown(material);
      workshop.putMaterial(material);
      return material;
    },
  );
  router.write(
    'POST',
    '/api/workshop/machines/:id/cleanings',
    'Record a cleaning that takes allergens away',
    newCleaning,
    (body, request) => {
      const machine = known(workshop.machines, param(request.params, 'id'));
      workshop.checkPerson(body.personId);
      const cleanings = [
        ...(machine.cleanings ?? []),
        { at: workshop.timeOf(body), personId: body.personId, how: body.how },
      ];
      const cleaned = { ...machine, cleanings: cleanings.sort((a, b) => a.at - b.at) };
      workshop.putMachine(cleaned);
      return cleaned;
    },
  );
  router.read(
    '/api/workshop/machines/:id/allergens',
    'What a machine saw since it was last cleaned of allergens',
    (request) => {
      const machine = known(workshop.machines, param(request.params, 'id'));
      const now = workshop.now() + 1;
      return {
        carries: carriedOver(
          machine.name,
          workshop.compositions.machineUses(machine.id, now),
          machine.cleanings ?? [],
          now,
          [],
        ),
        cleanings: (machine.cleanings ?? []).map((row) => ({
          ...row,
          person: workshop.people.get(row.personId)?.name ?? '',
        })),
      };
    },
  );
  router.write('POST', '/api/workshop/routes', 'Add a route', newRoute, (body) => {
    const route = { ...body, id: nanoid(10) };
    workshop.putRoute(route);
    return route;
  });
  router.write('PUT', '/api/workshop/routes/:id', 'Change a route', newRoute, (body, request) => {
    const route = { ...known(workshop.routes, param(request.params, 'id')), ...body };
    workshop.putRoute(route);
    return route;
  });
}
