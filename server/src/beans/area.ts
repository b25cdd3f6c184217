import type { Area } from '../ledger/area';
import { beansDue } from './store';

export const area: Area = { due: beansDue };
