import type { Channel } from '../run/readings';

/** The channel of a bowl's temperature. */
export const BOWL = 'bowl';
/** What is read of a pour. */
export const POUR_CHANNELS: readonly Channel[] = [{ name: BOWL, unit: '°C' }];
