import type { Area } from '../ledger/area';
import { stepWords } from '../ledger/thing-words';
import { mouldDue } from './due';

export const area: Area = {
  things: { moulding: stepWords('moulding') },
  workWords: () => 'Turn out and count',
  workDue: (_, { work, code, link }) => mouldDue(work, code, link),
};
