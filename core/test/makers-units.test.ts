import { checkCount } from '../src/beans/sacks';
import { adviseSort, summarise } from '../src/sort/judge';
import { formatHeavy } from '../src/units/mass';
import { judgeRoom } from '../src/beans/room';
import { claimSheet } from '../src/beans/claim';
import { fermentAdvice } from '../src/beans/harvest';
import { forecastConche } from '../src/grind/conche';
import { climateWarning } from '../src/orders/stock';
import { formatTemperature, type TemperatureUnit } from '../src/units/temperature';

/* Whatever judges says it in the degrees and the weights that the maker reads. */

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
    (unit) => fermentAdvice(heap(6, 30_000, 18), [], { temperatureUnit: unit }).why,
    '30 kg in a room of 18 °C. Under 60 kg',
    '30 kg in a room of 64 °F. Under 60 kg',
  ],
  [
    'a cold heap',
    (unit) => fermentAdvice(heap(60), [point(58, 33)], { temperatureUnit: unit }).sentence,
    '33 °C in the middle after 58 h: colder than a healthy run (',
    '91 °F in the middle after 58 h: colder than a healthy run (',
  ],
  [
    'a hot heap',
    (unit) => fermentAdvice(heap(60), [point(58, 56)], { temperatureUnit: unit }).why,
    'Over about 52 °C',
    'Over about 126 °F',
  ],
  [
    'a healthy heap',
    (unit) => fermentAdvice(heap(40), [point(36, 40)], { temperatureUnit: unit }).sentence,
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

test('sacks are said in the unit that they are weighed in', () => {
  expect([formatHeavy(1200), formatHeavy(45_359.237, 'imperial'), formatHeavy(1200, 'metric', 2)]).toEqual([
    '1.2 kg',
    '100.0 lb',
    '1.20 kg',
  ]);
  const sacks = [{ no: 1, grossG: 59_600, tareG: 600, place: '' }];
  const invoice = { sacks: 1, netG: 60_000 };
  expect(checkCount(sacks, invoice, null).sentence).toContain('59.0 kg net, 1.0 kg (1.7 %) short of the invoice');
  expect(checkCount(sacks, invoice, null, 'imperial').sentence).toContain('130.1 lb net, 2.2 lb (1.7 %) short of');
});

test('so is what was sorted', () => {
  const session = {
    stepId: 's',
    at: 0,
    personId: 'ann',
    inG: 20_000,
    goodG: 19_300,
    rejectsG: { flat: 700 },
    minutes: 120,
  };
  const summary = summarise([session]);
  const measures = { inspected: null, familyShares: [], family: 'Fiji', rejectPct: null, flatPct: null };
  const said = (['metric', 'imperial'] as const).map((massSystem) => adviseSort(summary, { ...measures, massSystem }));
  expect(said.map(({ evidence }) => /in, .* picked out/u.exec(evidence)?.[0])).toEqual([
    'in, 0.70 kg picked out',
    'in, 1.54 lb picked out',
  ]);
});

test('so is what is claimed, and a heap', () => {
  const claim = claimSheet({
    netG: 100_000,
    perKg: 6,
    currency: 'EUR',
    massSystem: 'imperial',
    limits: {
      flatPct: 2,
      rejectPct: null,
      weightPct: 0,
      mouldyPct: null,
      slatyPct: null,
      defectivePct: null,
      moisturePct: null,
    },
    arrival: null,
    count: checkCount([{ no: 1, grossG: 97_000, tareG: 0, place: '' }], { sacks: 1, netG: 100_000 }, 0),
    sort: { sessions: 1, inG: 40_000, rejectShare: 0.1, flatShare: 0.04 },
  });
  expect(claim.rows.map(({ interval }) => interval)).toEqual(['weighed', 'of 88.2 lb sorted']);
  expect(claim.items.map(({ weight, money }) => [weight, money])).toEqual([
    ['6.6 lb', '€18.00'],
    ['4.4 lb', '€12.00'],
  ]);
  expect(claim.sentence).toBe('11.0 lb claimed, €30.00 at the invoice price.');
  expect(fermentAdvice(heap(6, 30_000, 18), [], { massSystem: 'imperial' }).why).toMatch(
    /^66 lb in .* Under 132 lb the/,
  );
});
