import type { ComponentType } from 'react';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import type { Station } from '@wunsch/core/work/stations';
import type { Show } from './workshop';

/** What a station's state is put together from. */
export interface Standing {
  view: BenchView;
  /** What can be taken now, and grams of it, in words. */
  free: readonly HoldingView[];
  mass: (mg: number) => string;
  waitingMg: number;
}

/** A caution; where it speaks of degrees or sacks, in those of the workshop. */
export type CautionWords = string | ((show: Pick<Show, 'temp' | 'sack'>) => string);

/** One station as the interface knows it: all that other rooms see of it. */
export interface Screen {
  Bench: ComponentType<{ view: BenchView }>;
  /** The usual cautions, at the place where they matter. Local codes and licensed practice decide. */
  cautions: readonly CautionWords[];
  /** What an unroasted way asks for here; and one whose nibs are roasted, not its beans. */
  unroasted?: CautionWords;
  nibRoast?: CautionWords;
  /** What this station shows at the foot of another's bench. */
  elsewhere?: Partial<Record<Station, ComponentType>>;
  /** How things stand, where loads under way and tubs that wait do not say it. */
  state?: (standing: Standing) => string;
}

/** `one block`, `9 blocks`. */
export const counted = (n: number, one: string, many: string): string => (n === 1 ? `one ${one}` : `${n} ${many}`);
