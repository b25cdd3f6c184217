import type { Area } from '../ledger/area';
import { looksDue } from './due';

export const area: Area = {
  workWords: ({ silk }) => (silk === true ? 'Look at the silk' : 'Take the pour off'),
  due: looksDue,
};
