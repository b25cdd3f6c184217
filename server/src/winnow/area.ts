import type { Area } from '../ledger/area';

export const area: Area = { workWords: () => 'Weigh nibs and husk' };
