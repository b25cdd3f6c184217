import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { dueItems, floorView } from './floor';

/** What stands where in the whole house, and what needs a person next. */
export function floorRoutes(router: Router, views: Views): void {
  router.read('/api/ledger/floor', 'What stands where, and what is due', () => floorView(views));
  router.read('/api/ledger/due', 'What needs a person next', () => dueItems(views));
}
