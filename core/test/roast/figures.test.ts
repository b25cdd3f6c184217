import { clean, curveOf, smooth } from '../../src/roast/curve';
import { areaAbove, killFigure, minutesAbove, reaches, roastFigures } from '../../src/roast/figures';

// A tent: 80 °C, up to 120 at ten minutes, down to 80 at twenty.
const MINUTES = [0, 10, 20];
const TENT = [80, 120, 80];

describe('figures of a roast', () => {
  test('minutes and area above a base, by hand', () => {
    expect(minutesAbove(MINUTES, TENT, 100)).toBeCloseTo(10, 12);
    // A triangle ten minutes wide and 20 °C high.
    expect(areaAbove(MINUTES, TENT, 100)).toBeCloseTo(100, 12);
    expect(areaAbove(MINUTES, TENT, 80)).toBeCloseTo(400, 12);
    expect(minutesAbove(MINUTES, TENT, 120)).toBe(0);
    expect(minutesAbove(MINUTES, TENT, 60)).toBeCloseTo(20, 12);
  });

  test('a gap counts for nothing', () => {
    expect(minutesAbove([0, 5, 6, 15, 20], [110, 110, NaN, 110, 110], 100)).toBeCloseTo(10, 12);
  });

  test('when a temperature is first reached', () => {
    expect(reaches([0, 600, 1200], TENT, 100)).toBeCloseTo(300, 9);
    expect(reaches([0, 600, 1200], TENT, 80)).toBe(0);
    expect(reaches([0, 600, 1200], TENT, 121)).toBeNull();
  });

  test('peak, ends, minutes in bands and climb of a made roast', () => {
    const rows = Array.from({ length: 1201 }, (_, s) => [s, 20 + (5 * s) / 60, 150] as const);
    const figures = roastFigures(smooth(clean(curveOf(rows))), { bands: [60, 90, 105] });
    expect(figures).toMatchObject({ minutes: 20, baseC: 100 });
    expect(figures.startC).toBeCloseTo(20, 6);
    expect(figures.peak?.tempC).toBeCloseTo(120, 6);
    expect(figures.peak?.second).toBeCloseTo(1200, 6);
    // 5 °C a minute: six minutes from 60 to 90, three from 90 to 105, three above.
    expect(figures.bands.map(({ minutes }) => Math.round(1000 * minutes) / 1000)).toEqual([6, 3, 3]);
    expect(figures.areaAboveBase).toBeCloseTo((4 * 20) / 2, 6);
    expect(figures.climbEnd).toBeCloseTo(5, 6);
    expect(figures.climbMost?.perMin).toBeCloseTo(5, 6);
  });
});

describe('heat-kill figure', () => {
  const values = { dMin: 2, zC: 10, refC: 100 };

  test('held at the reference it is the minutes over D', () => {
    expect(killFigure([0, 7], [100, 100], values)).toBeCloseTo(3.5, 12);
  });

  test('ten degrees more count tenfold, ten less a tenth', () => {
    expect(killFigure([0, 1], [110, 110], values)).toBeCloseTo(5, 12);
    expect(killFigure([0, 1], [90, 90], values)).toBeCloseTo(0.05, 12);
  });

  test('along a straight rise it is the exact integral', () => {
    // ∫₀¹⁰ 10^((90 + 2t − 100)/10) dt = 10/(2 ln 10) · (10¹ − 10⁻¹), over D = 2.
    const exact = ((10 / (2 * Math.LN10)) * (10 - 0.1)) / 2;
    expect(killFigure([0, 10], [90, 110], values)).toBeCloseTo(exact, 9);
    // The same in a thousand pieces.
    const minutes = Array.from({ length: 1001 }, (_, i) => i / 100);
    expect(
      killFigure(
        minutes,
        minutes.map((m) => 90 + 2 * m),
        values,
      ),
    ).toBeCloseTo(exact, 9);
  });

  test('what the probe did not hear is not counted', () => {
    expect(killFigure([0, 1, 2, 3], [100, NaN, NaN, 100], values)).toBe(0);
  });
});

test('a gap counts nothing, whether its rows are empty or missing', () => {
  const values = { dMin: 2, zC: 20, refC: 120 };
  const minutes = Array.from({ length: 121 }, (_, i) => i / 6);
  const hot = minutes.map(() => 120);
  const whole = killFigure(minutes, hot, values);
  const silent = hot.map((c, i) => (i > 30 && i < 90 ? NaN : c));
  const kept = minutes.map((_, i) => i).filter((i) => !(i > 30 && i < 90));
  const missing = killFigure(
    kept.map((i) => minutes[i] ?? 0),
    kept.map((i) => hot[i] ?? 0),
    values,
  );
  expect(whole).toBeCloseTo(10, 9);
  expect(killFigure(minutes, silent, values)).toBeCloseTo(5, 9);
  expect(missing).toBeCloseTo(5, 9);
  expect(
    minutesAbove(
      kept.map((i) => minutes[i] ?? 0),
      kept.map(() => 110),
      100,
    ),
  ).toBeCloseTo(10, 9);
});
