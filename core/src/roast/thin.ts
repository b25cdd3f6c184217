import { createLTTB } from 'downsample/methods/LTTB.js';
import { curveOf, type Curve } from './curve';
import { gapsOf } from '../run/gaps';

type Row = readonly [second: number, beanC: number, airC: number];

const byBean = createLTTB<Row>({ x: (row: Row) => row[0], y: (row: Row) => row[1] });
const byAir = createLTTB<Row>({ x: (row: Row) => row[0], y: (row: Row) => row[2] });

/**
 * A curve of at most so many readings that looks the same (largest triangle, three buckets; Steinarsson 2013). Where the
 * probe was silent one empty reading is kept, so that a gap stays a gap.
 */
export function thin(curve: Curve, most: number): Curve {
  const n = curve.seconds.length;
  if (n <= most) return curve;
  const rows = Array.from(curve.seconds, (second, i): Row => [second, curve.beanC[i] ?? NaN, curve.airC[i] ?? NaN]);
  const beans = rows.filter(([, beanC]) => Number.isFinite(beanC));
  const [heard, sample, of] =
    beans.length >= 3
      ? [beans, byBean, curve.beanC]
      : [rows.filter(([, , airC]) => Number.isFinite(airC)), byAir, curve.airC];
  if (heard.length < 3) return curveOf(rows.filter((_, i) => i % Math.ceil(n / most) === 0));
  const kept = Array.from(sample(heard, Math.max(3, most)));
  for (const { fromS, toS } of gapsOf(curve.seconds, of)) kept.push([(fromS + toS) / 2, NaN, NaN]);
  return curveOf(kept.sort(([a], [b]) => a - b));
}
