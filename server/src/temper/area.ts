import type { Area } from '../ledger/area';
import { stepWords } from '../ledger/thing-words';
import { looksDue } from './due';

export const area: Area = {
  workWords: ({ silk }) => (silk === true ? 'Look at the silk' : 'Take the pour off'),
  due: looksDue,
  things: { pour: stepWords('pour') },
};
