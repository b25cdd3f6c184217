import { judgeRoom } from '../src/beans/room';
import { fermentAdvice } from '../src/beans/harvest';
import { forecastConche } from '../src/grind/conche';
import { climateWarning } from '../src/orders/stock';
import { formatTemperature, type TemperatureUnit } from '../src/units/temperature';

/* Whatever judges a temperature says it in the degrees that the maker reads. */

const HOUR = 3_600_000;
const point = (hours: number, coreC: number) => ({
  at: hours * HOUR,
  topC: null,
  ph: null,
  coreC,
  turned: true,
  smell: '',
  cut: 0,
  cutBrown: 0,
});
const heap = (now: number, wetG = 400_000, ambientC = 27) => ({ openedAt: 0, wetG, ambientC, now: now * HOUR });

const SENTENCES: [string, (unit: TemperatureUnit) => string, string, string][] = [
  ['a warm store', (unit) => judgeRoom(26.5, 50, unit).sentence, '26.5 °C at 50 %', '79.7 °F at 50 %'],
  ['a wet store', (unit) => judgeRoom(20, 70, unit).sentence, '20 °C at 70 %', '68 °F at 70 %'],
  [
    'a cool room for a heap',
    (unit) => fermentAdvice(heap(6, 30_000, 18), [], unit).why,
    '30 kg in a room of 18 °C. Under 60 kg',
    '30 kg in a room of 64 °F. Under 60 kg',
  ],
  [
    'a cold heap',
    (unit) => fermentAdvice(heap(60), [point(58, 33)], unit).sentence,
    '33 °C in the middle after 58 h: colder than a healthy run (',
    '91 °F in the middle after 58 h: colder than a healthy run (',
  ],
  ['a hot heap', (unit) => fermentAdvice(heap(60), [point(58, 56)], unit).why, 'Over about 52 °C', 'Over about 126 °F'],
  [
    'a healthy heap',
    (unit) => fermentAdvice(heap(40), [point(36, 40)], unit).sentence,
    '40 °C in the middle after 36 h: a healthy run.',
    '104 °F in the middle after 36 h: a healthy run.',
  ],
  [
    'a conche',
    (unit) =>
      forecastConche(
        [
          { atH: 0, score: 7 },
          { atH: 10, score: 6 },
        ],
        [{ atH: 0, tempC: 60 }],
        3,
        10,
        undefined,
        unit,
      ).sentence,
    'at 60 °C.',
    'at 140 °F.',
  ],
  [
    'a warm shelf',
    (unit) => climateWarning(23, 50, (c) => formatTemperature(c, unit)) ?? '',
    '23 °C: over 20 °C fat bloom comes sooner. Usual are 16 °C to 18 °C.',
    '73.4 °F: over 68 °F fat bloom comes sooner. Usual are 60.8 °F to 64.4 °F.',
  ],
];

test.each(SENTENCES)('%s, in Celsius and in Fahrenheit', (_, say, celsius, fahrenheit) => {
  const [c, f] = (['C', 'F'] as const).map((unit) => say(unit).replaceAll('\u00a0', ' '));
  expect(c).toContain(celsius);
  expect(f).toContain(fahrenheit);
  expect(f).not.toContain('°C');
});
