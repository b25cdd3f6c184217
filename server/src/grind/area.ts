import type { Area } from '../ledger/area';
import { grindDue } from './due';

export const area: Area = {
  due: grindDue,
  bench: (views) => ({ grinds: views.grinds(true) }),
  workingMg: (views) => views.grinds().reduce((sum, { massMg }) => sum + massMg, 0),
};
