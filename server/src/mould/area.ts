import type { Area } from '../ledger/area';
import { mouldDue } from './due';

export const area: Area = {
  workWords: () => 'Turn out and count',
  workDue: (_, { work, code, link }) => mouldDue(work, code, link),
};
