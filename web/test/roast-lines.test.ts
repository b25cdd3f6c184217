import { curveFrom, joined } from '../src/roast/data';
import { curveLines, plainLine, settingLine } from '../src/roast/lines';

const same = (celsius: number): number => celsius;
const fahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32;

describe('curves on their way to the screen', () => {
  const curve = {
    seconds: [0, 10, 20, 30],
    beanC: [20, 25, null, 35],
    airC: [null, null, null, null],
  };

  test('silence travels as null and is NaN again', () => {
    const { beanC } = curveFrom(curve);
    expect(Array.from(beanC)).toEqual([20, 25, NaN, 35]);
  });

  test('a gap stays a gap, and a probe that never spoke draws no line', () => {
    const { bean, air } = curveLines(curve, same);
    expect(bean.map(({ y }) => y)).toEqual([20, 25, null, 35]);
    expect(bean.map(({ x }) => x)).toEqual([0, 0.167, 0.333, 0.5]);
    expect(air).toEqual([]);
  });

  test('in the maker’s unit, and from the second that is laid at zero', () => {
    const { bean } = curveLines(curve, fahrenheit, 30);
    expect(bean[0]).toEqual({ x: -0.5, y: 68 });
    expect(bean[3]).toEqual({ x: 0, y: 95 });
  });

  test('what comes behind is put behind; what is there already is put right', () => {
    const more = { seconds: [20, 30, 40], beanC: [30, 35, 40], airC: [150, 151, 152] };
    expect(joined(curve, 2, more)).toEqual({
      seconds: [0, 10, 20, 30, 40],
      beanC: [20, 25, 30, 35, 40],
      airC: [null, null, 150, 151, 152],
    });
    // A line taken up again begins with everything.
    expect(joined(curve, 0, more)).toEqual(more);
  });

  test('settings are stairs, the last one until now', () => {
    const settings = [
      { second: 0, setC: 160, step: 0 },
      { second: 360, setC: 145, step: 1 },
    ];
    expect(settingLine(settings, 600, same)).toEqual([
      { x: 0, y: 160 },
      { x: 6, y: 160 },
      { x: 6, y: 145 },
      { x: 10, y: 145 },
    ]);
  });

  test('a long line is thinned, and keeps its end', () => {
    const minutes = Float64Array.from({ length: 1001 }, (_, i) => i / 10);
    const line = plainLine(minutes, minutes, same, 100);
    expect(line.length).toBeLessThanOrEqual(102);
    expect(line.at(-1)).toEqual({ x: 100, y: 100 });
  });
});
