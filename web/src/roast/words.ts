import type { Range } from '@wunsch/core/roast/band';
import type { ProgramStep } from '@wunsch/core/roast/records';
import type { School } from '@wunsch/core/work/roasting-words';
import type { Show } from '../parts/workshop';

export const SCHOOL_NAMES: Record<School, string> = {
  steps: 'Steps',
  steady: 'Steady',
  'hot and quick': 'Hot and quick',
  'low and long': 'Low and long',
  drum: 'Drum',
  pan: 'Pan or pot',
  nib: 'Nibs',
  own: 'Own way',
};

export const ROASTER_NAMES = { oven: 'Oven', drum: 'Drum', pan: 'Pan or clay pot', other: 'Another way' } as const;

/** `121 °C (117 to 125)`. */
export const rangeWords = ({ mid, low, high }: Range, words: (value: number) => string): string =>
  `${words(mid)} (${words(low)} to ${words(high)})`;

/** Minutes as makers say them: whole ones plain, others with a half or quarter. */
export const minutesWords = (minutes: number): string => `${Math.round(minutes * 4) / 4}\u00a0min`;

/** `160 °C 6 min, 145 °C 8 min, 130 °C until the beans have 120 °C`. */
export function stepWords({ setC, minutes, until }: ProgramStep, show: Show): string {
  const at = show.temp(setC);
  if (until === null) return `${at} ${minutesWords(minutes)}`;
  const end = until.what === 'bean' ? `the beans have ${show.temp(until.beanC)}` : `“${until.sign}”`;
  return `${at} until ${end}, at most ${minutesWords(minutes)}`;
}
