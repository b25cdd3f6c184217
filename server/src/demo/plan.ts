import type { Station } from '@wunsch/core/work/stations';
import type { Origin } from './scenario';

/** What happens to one batch, and where it stops for now. */
export interface Plan {
  origin: Origin;
  at: number;
  /** Halts with work under way (or goods waiting) at this station. */
  stop?: Station | 'charge';
  small?: boolean;
  /** Nib yield lost to a winnower that has drifted. */
  drift?: number;
  flatBeans?: boolean;
  burntLoad?: boolean;
  lateButter?: boolean;
  ranOver?: boolean;
  bloomed?: boolean;
  disagree?: boolean;
  twoLots?: boolean;
}
