import { meanInterval, type MeanInterval } from '../stats/intervals';

/** ISO 2291 moisture, % by weight: more than this grows mould, less than the other makes the shell brittle. */
export const MOISTURE = { most: 8, least: 6 } as const;

export interface ReadingVerdict {
  interval: MeanInterval;
  tone: 'good' | 'watch' | 'bad';
  sentence: string;
}

/** Moisture readings of one arrival. @param values % by weight; @returns null without readings */
export function judgeMoisture(values: readonly number[]): ReadingVerdict | null {
  const interval = meanInterval(values);
  if (!interval) return null;
  const { mean, max, min, n } = interval;
  const text = `${mean.toFixed(1)} % over ${n} ${n === 1 ? 'reading' : 'readings'}`;
  if (mean > MOISTURE.most)
    return {
      interval,
      tone: 'bad',
      sentence: `${text}: over ${MOISTURE.most} %, mould will grow. Dry it or refuse it.`,
    };
  if (max > MOISTURE.most)
    return {
      interval,
      tone: 'watch',
      sentence: `${text}, but one reads ${max.toFixed(1)} %: find the wet sack and keep it apart.`,
    };
  if (interval.high > MOISTURE.most && n > 1)
    return {
      interval,
      tone: 'watch',
      sentence: `${text}: the readings differ too much to rule out more than ${MOISTURE.most} %.`,
    };
  if (mean < MOISTURE.least)
    return {
      interval,
      tone: 'watch',
      sentence: `${text}: under ${MOISTURE.least} %, the shell is brittle and breaks into the nibs.`,
    };
  return {
    interval,
    tone: n === 1 ? 'watch' : 'good',
    sentence:
      n === 1
        ? `${text}: within bounds, but one reading is one place in one sack.`
        : `${text}, ${min.toFixed(1)} to ${max.toFixed(1)}: keeps well.`,
  };
}

export type BeanSize = 'standard' | 'medium' | 'small' | 'very small';

/** Size by beans in 100 g (ISO 2451): up to 100 standard, 101–110 medium, 111–120 small, more very small. */
export const beanSize = (per100g: number): BeanSize =>
  per100g <= 100 ? 'standard' : per100g <= 110 ? 'medium' : per100g <= 120 ? 'small' : 'very small';

/** Bean counts of one arrival. @param values beans in 100 g; @returns null without counts */
export function judgeCounts(
  values: readonly number[],
): (ReadingVerdict & { size: BeanSize; meanBeanG: number }) | null {
  const interval = meanInterval(values);
  if (!interval) return null;
  const size = beanSize(Math.round(interval.mean));
  const meanBeanG = 100 / interval.mean;
  return {
    interval,
    size,
    meanBeanG,
    tone: size === 'standard' || size === 'medium' ? 'good' : 'watch',
    sentence: `${interval.mean.toFixed(0)} beans in 100 g (${meanBeanG.toFixed(2)} g each): ${size}${size === 'standard' || size === 'medium' ? '' : ', more shell for the nib, and a quicker roast'}.`,
  };
}
