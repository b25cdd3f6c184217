import { z } from 'zod/mini';
import { id } from '@wunsch/core/fields/fields';
import { instant, words } from '@wunsch/core/rows';
import { MOST_READINGS, type Channel, type Readings } from '@wunsch/core/run/readings';

/** How a curve is written in an export now. */
export const CURVE_VERSION = 2;

const head = {
  id,
  loadId: z.nullable(id),
  name: words,
  source: words,
  startedAt: instant,
  seconds: z.array(z.number().check(z.minimum(-1e9), z.maximum(1e9))).check(z.maxLength(MOST_READINGS)),
};
const column = z.array(z.nullable(z.number().check(z.minimum(-1e6), z.maximum(1e6)))).check(z.maxLength(MOST_READINGS));

/** As it was until version 0.16: two columns, of the beans and of the air; a bowl stood where the beans do. */
const first = z.object({ ...head, beanC: column, airC: column });
const second = z.object({
  ...head,
  v: z.literal(CURVE_VERSION, 'is of a newer version than this program knows'),
  channels: z
    .array(z.object({ name: z.string().check(z.minLength(1), z.maxLength(40)), unit: z.enum(['°C', 'µm', 'g', '%']) }))
    .check(z.minLength(1), z.maxLength(8)),
  values: z.array(column).check(z.maxLength(8)),
});

/** A curve of any version, read from an export. @throws ZodError through `fits` */
export const curveOfAnyVersion = (value: unknown, fits: <T>(schema: z.ZodMiniType<T>) => T): z.infer<typeof second> => {
  if (typeof value === 'object' && value !== null && 'v' in value) return fits(second);
  const { beanC, airC, ...rest } = fits(first);
  const ofBowl = rest.source.startsWith('pour ') || rest.source === 'bowl';
  const channels: Channel[] = (ofBowl ? ['bowl'] : ['bean', 'air']).map((name) => ({ name, unit: '°C' }));
  return { ...rest, v: CURVE_VERSION, channels, values: ofBowl ? [beanC] : [beanC, airC] };
};

/** The readings of a curve; null where its columns do not have the same length. */
export function readingsOfRow({ channels, seconds, values }: z.infer<typeof second>): Readings | null {
  if (values.length !== channels.length || values.some((of) => of.length !== seconds.length)) return null;
  return {
    channels,
    seconds: Float64Array.from(seconds),
    values: values.map((of) => Float64Array.from(of, (it) => it ?? NaN)),
  };
}
