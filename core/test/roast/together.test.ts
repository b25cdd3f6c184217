import {
  makeReady,
  NAMES,
  PRIOR_SD,
  priorOf,
  said,
  type Common,
  type LoggedLoad,
  type Ready,
} from '../../src/roast/logged';
import { fitTogether, slopesOf, variances, WORTH, SCATTER } from '../../src/roast/together';
import { normals, seeded } from '../../src/stats/chance';

const MINUTES = Array.from({ length: 60 }, (_, i) => i / 2);
const SETTINGS = [
  { second: 0, setC: 160, step: 0 },
  { second: 600, setC: 140, step: 1 },
];

/** A load without readings yet. */
const blank = (code: string): LoggedLoad => ({
  code,
  massG: 3000,
  layerMm: null,
  moisture: 0.07,
  beanStartC: 20,
  weightLeft: 0.95,
  settings: SETTINGS,
  preheatC: 160,
  minutes: MINUTES,
  beanC: MINUTES.map((minute) => 20 + minute),
  airC: MINUTES.map(() => 140),
});

const ready = (load: LoggedLoad): Ready => {
  const row = makeReady(load);
  if (!row) throw new Error('too few readings');
  return row;
};

/** A load as a roaster of these figures would have it, read with an error. */
function roastedBy(code: string, common: Common, own: readonly [number, number], errorC: number, seed: number): Ready {
  const row = ready(blank(code));
  const normal = normals(seeded(seed));
  const exact = said(row, common, own);
  const n = row.bean.minutes.length;
  return ready({
    ...row.load,
    beanC: row.bean.minutes.map((_, i) => (exact[i] ?? 0) / row.beanWeight + errorC * normal()),
    airC: row.air.minutes.map((_, i) => (exact[n + i] ?? 0) / row.airWeight + errorC * normal()),
    weightLeft: (exact.at(-1) ?? 0) * 0.003,
  });
}

const prior = priorOf('oven');
/** A roaster that is not what one begins with: quicker, further under its setting, slower air. */
const TRUE = prior.map((value, k) => value + [0.25, 0, -0.3, 3, 0.3, 8, 0.05, 0.02, 0.1][k]!);

test('slopes are those of what is said: half a nudge either way agrees with them', () => {
  const row = roastedBy('a', TRUE, [0.05, -0.02], 0, 1);
  row.own = [0.05, -0.02];
  row.x = 0.4;
  const slopes = slopesOf(row, TRUE, said(row, TRUE, row.own));
  expect(slopes.common).toHaveLength(NAMES.length);
  const agrees = (name: string, slope: Float64Array | undefined, shifted: (by: number) => Float64Array): void => {
    const h = 1e-4;
    const [up, down] = [shifted(h), shifted(-h)];
    const central = up.map((value, j) => (value - (down[j] ?? 0)) / (2 * h));
    const largest = Math.max(...central.map(Math.abs), 1e-9);
    const close = central.map((value, j) => Number(Math.abs((slope?.[j] ?? NaN) - value) < 0.02 * largest));
    expect({ name, off: close.filter((one) => one === 0).length }).toEqual({ name, off: 0 });
  };
  NAMES.forEach((name, k) =>
    agrees(name, slopes.common[k], (by) =>
      said(
        row,
        TRUE.map((value, j) => (j === k ? value + by : value)),
        row.own,
      ),
    ),
  );
  agrees('its own warming', slopes.own[0], (by) => said(row, TRUE, [0.05 + by, -0.02]));
  agrees('its own drying', slopes.own[1], (by) => said(row, TRUE, [0.05, -0.02 + by]));
});

test('loads without an error give back the roaster that made them', () => {
  const rows = [0, 1, 2, 3, 4].map((i) => roastedBy(`L${i}`, TRUE, [0, 0], 0, i));
  const { common } = fitTogether(rows, prior, 14);
  const curve = (figures: Common) => said(rows[0] as Ready, figures, [0, 0]);
  const [found, real] = [curve(common), curve(TRUE)];
  const { beanWeight } = rows[0] as Ready;
  // Figures can stand in for each other; what they make the probe say is known.
  for (let i = 0; i < 60; i += 1) expect(Math.abs((found[i] ?? 0) - (real[i] ?? 0)) / beanWeight).toBeLessThan(0.6);
});

test('with no load it is what one begins with, as unsure as that', () => {
  const { common, covariance, scatter } = fitTogether([], prior, 14);
  expect(common).toEqual(prior);
  PRIOR_SD.forEach((sd, k) => expect(covariance.get(k, k)).toBeCloseTo(sd ** 2, 6));
  expect(scatter).toEqual([SCATTER, SCATTER]);
  expect(WORTH).toBeGreaterThan(0);
});

test('more loads make every figure surer, and none less sure than it began', () => {
  const rows = Array.from({ length: 8 }, (_, i) => roastedBy(`L${i}`, TRUE, [0, 0], 1, 20 + i));
  const of = (count: number) =>
    fitTogether(
      rows.slice(0, count).map((row) => ({ ...row })),
      prior,
      14,
    ).covariance;
  const [one, eight] = [of(1), of(8)];
  PRIOR_SD.forEach((sd, k) => {
    expect(one.get(k, k)).toBeLessThanOrEqual(sd ** 2 * (1 + 1e-9));
    expect(eight.get(k, k)).toBeLessThanOrEqual(one.get(k, k) * 1.02);
  });
  for (let p = 0; p < NAMES.length; p += 1)
    for (let q = 0; q < p; q += 1) expect(eight.get(p, q)).toBeCloseTo(eight.get(q, p), 10);
});

test('loads that differ from each other have the scatter learned, and their own figures found', () => {
  const normal = normals(seeded(5));
  const owns = Array.from({ length: 12 }, () => [0.2 * normal(), 0] as [number, number]);
  const unlike = owns.map((own, i) => roastedBy(`L${i}`, TRUE, own, 0.5, 40 + i));
  const alike = owns.map((_, i) => roastedBy(`M${i}`, TRUE, [0, 0], 0.5, 60 + i));
  const [wide, narrow] = [fitTogether(unlike, prior, 14), fitTogether(alike, prior, 14)];
  expect(wide.scatter[0]).toBeGreaterThan(1.8 * narrow.scatter[0]);
  const mean = owns.reduce((sum, [own]) => sum + own, 0) / owns.length;
  wide.rows.forEach(({ own }, i) => expect(own[0]).toBeCloseTo((owns[i]?.[0] ?? NaN) - mean, 0.8));
});

test('a probe that was knocked for three minutes hardly moves the fit', () => {
  const rows = () => [0, 1, 2, 3].map((i) => roastedBy(`L${i}`, TRUE, [0, 0], 0.5, 80 + i));
  const knocked = rows().map((row, i) =>
    i > 0 ? row : ready({ ...row.load, beanC: Array.from(row.load.beanC, (c, j) => (j >= 30 && j < 36 ? c + 60 : c)) }),
  );
  const ownOf = (all: Ready[]) => fitTogether(all, prior, 14).rows[0]?.own ?? [NaN, NaN];
  const [well, bad] = [ownOf(rows()), ownOf(knocked)];
  // In squares the six readings would make it look as if its beans took on a sixteenth less warmth.
  expect(Math.abs(bad[0] - well[0])).toBeLessThan(0.02);
});

test('from where it ended, with the slopes there, it ends where it would with slopes of its own', () => {
  const rows = Array.from({ length: 7 }, (_, i) => roastedBy(`L${i}`, TRUE, [0.03 * (i - 3), 0], 1, 100 + i));
  const whole = fitTogether(rows, prior, 14);
  const kept = new Map(
    rows.map((row) => [row.load.code, slopesOf(row, whole.common, said(row, whole.common, row.own))]),
  );
  const some = () => whole.rows.slice(1).map((row) => ({ ...row }));
  const quick = fitTogether(some(), prior, 3, { ...whole, slopes: ({ load }) => kept.get(load.code) });
  const full = fitTogether(some(), prior, 14, { ...whole, slopes: () => undefined });
  const left = rows[0] as Ready;
  const [a, b] = [said(left, quick.common, [0, 0]), said(left, full.common, [0, 0])];
  // What is foretold of the load that was left out, °C.
  for (let i = 0; i < 60; i += 1) expect(Math.abs((a[i] ?? 0) - (b[i] ?? 0)) / left.beanWeight).toBeLessThan(0.4);
});

test('what a fit expects to miss a new load by grows with what it does not know', () => {
  const rows = Array.from({ length: 6 }, (_, i) => roastedBy(`L${i}`, TRUE, [0, 0], 1, 120 + i));
  const sdAt = (fitted: ReturnType<typeof fitTogether>, reading: number): number => {
    const row = rows[5] as Ready;
    const values = said(row, fitted.common, [0, 0]);
    return Math.sqrt(variances(row, fitted, values)[reading] ?? NaN) / row.beanWeight;
  };
  const [none, one, five] = [0, 1, 5].map((count) =>
    fitTogether(
      rows.slice(0, count).map((row) => ({ ...row })),
      prior,
      14,
    ),
  ) as [ReturnType<typeof fitTogether>, ReturnType<typeof fitTogether>, ReturnType<typeof fitTogether>];
  for (const reading of [10, 25, 45]) {
    expect(sdAt(one, reading)).toBeLessThan(sdAt(none, reading));
    expect(sdAt(five, reading)).toBeLessThan(sdAt(one, reading));
    expect(sdAt(five, reading)).toBeGreaterThan(0);
  }
  // As it goes in every load is as warm as the room: nothing to miss.
  expect(sdAt(five, 0)).toBeLessThan(sdAt(five, 20));
});
