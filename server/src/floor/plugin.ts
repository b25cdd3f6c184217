import { STATIONS } from '@wunsch/core/work/stations';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { benchView } from './bench';
import { dueItems, floorView } from './floor';

/** What stands where in the whole house and at each bench, and what needs a person next. */
export function floorRoutes(router: Router, views: Views): void {
  router.read('/api/ledger/floor', 'What stands where, and what is due', () => floorView(views));
  router.read('/api/ledger/due', 'What needs a person next', () => dueItems(views));
  for (const station of STATIONS)
    router.still(`/api/${station}/bench`, `The bench at ${station}`, () => benchView(views, station));
}
