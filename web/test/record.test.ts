import fc from 'fast-check';
import { z } from 'zod/mini';
import { papers } from '@wunsch/core/beans/records';
import { field } from '@wunsch/core/fields/registry';
import { massG, money, name, note, tempC } from '@wunsch/core/fields/fields';
import { READY_MADE } from '@wunsch/core/roast/ready-made';
import { loadFacts, program } from '@wunsch/core/roast/records';
import { productFacts } from '@wunsch/core/products/records';
import { machineFacts, newRoute, settingsChange, DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { setDecimalMark } from '../src/parts/number';
import { inUnits, readFigure, readTyped, typedOf, unitShown, type Typed, type Units } from '../src/record/typed';
import { askedOf } from '@wunsch/core/fields/asked';

const METRIC: Units = { heavy: 'kg', light: 'g', temperature: 'C' };
const IMPERIAL: Units = { heavy: 'lb', light: 'oz', temperature: 'F' };
afterEach(() => setDecimalMark('.'));

const sheet = z.object({
  kind: z.literal('made-up'),
  name,
  heavy: field(z._default(z.nullable(massG), null), { weighed: 'heavy' }),
  light: z.optional(massG),
  piece: field(z.optional(massG), { weighed: 'piece' }),
  at: z._default(z.nullable(tempC), null),
  words: z._default(z.array(z.string().check(z.minLength(1))), []),
  figures: z._default(z.array(z.number()), []),
  day: z.optional(z.iso.date()),
  word: z._default(z.enum(['', 'sun', 'rain']), ''),
  on: z._default(z.boolean(), false),
  within: z._default(z.nullable(z.object({ a: z.number(), b: z.number() })), null),
  rows: z._default(z.array(z.object({ channel: name, price: money })), []),
  note,
  untouched: z.optional(z.unknown()),
});
const read = (change: Record<string, Typed>, units = METRIC, value: unknown = {}) =>
  readTyped(sheet, { ...(typedOf(sheet, value, units) as object), ...change }, units);

test('an untouched form of nothing says nothing', () => {
  expect(read({})).toEqual({
    value: {
      kind: 'made-up',
      name: '',
      heavy: null,
      at: null,
      words: [],
      figures: [],
      word: '',
      on: false,
      within: null,
      rows: [],
      note: '',
    },
    problems: {},
  });
});

test('figures are read in the units of whoever types: kg or lb, g or oz, °C or °F; a piece always in g', () => {
  const typed = { heavy: '2.5', light: '10', piece: '70', at: '30' };
  expect(read(typed).value).toMatchObject({ heavy: 2500, light: 10, piece: 70, at: 30 });
  const imperial = read(typed, IMPERIAL).value as Record<'heavy' | 'light' | 'piece' | 'at', number>;
  expect(imperial.heavy).toBeCloseTo(1133.981, 2);
  expect(imperial.light).toBeCloseTo(283.495, 2);
  expect(imperial.piece).toBe(70);
  expect(imperial.at).toBeCloseTo(-1.111, 3);
  expect(unitShown(askedOf(sheet.shape.heavy), IMPERIAL)).toBe('lb');
  expect(unitShown(askedOf(sheet.shape.piece), IMPERIAL)).toBe('g');
  expect(unitShown(askedOf(sheet.shape.at), IMPERIAL)).toBe('°F');
});

test('a comma is a decimal mark where the workshop writes one', () => {
  setDecimalMark(',');
  expect(read({ heavy: '2,5' }).value).toMatchObject({ heavy: 2500 });
});

test('what cannot be read is named by its path, everything else is still there', () => {
  const { value, problems } = read({
    heavy: 'two',
    figures: '6.8 x',
    rows: [{ channel: 'shop', price: '1o' }],
    within: { a: '1', b: 'b' },
    name: 'Harbour bar',
  });
  expect(problems).toEqual({
    heavy: 'is not a number',
    figures: 'is not figures side by side, as 6.8 7.1',
    'rows.0.price': 'is not a number',
    'within.b': 'is not a number',
  });
  expect(value).toMatchObject({ name: 'Harbour bar' });
});

test('lists apart by commas, figures side by side, a group that is empty is none', () => {
  expect(read({ words: ' milk, hazelnut ;; ', figures: '6.8; 7.1 7' }).value).toMatchObject({
    words: ['milk', 'hazelnut'],
    figures: [6.8, 7.1, 7],
  });
  expect(read({ within: { a: '', b: ' ' } }).value).toMatchObject({ within: null });
  expect(read({ within: { a: '1', b: '' } }).value).toMatchObject({ within: { a: 1 } });
});

test('rows left empty at the end say nothing; an empty one between others is asked about', () => {
  const empty = { channel: '', price: '' };
  const shop = { channel: 'shop', price: '5' };
  expect(read({ rows: [shop, empty, empty] }).value).toMatchObject({ rows: [{ channel: 'shop', price: 5 }] });
  expect(read({ rows: [empty, shop] }).value).toMatchObject({ rows: [{ channel: '' }, { channel: 'shop', price: 5 }] });
});

test('a draft that was typed in kilograms says the same in pounds; what cannot be read stays as it stands', () => {
  const typed = typedOf(sheet, { name: 'Oven', rows: [{ channel: 'shop', price: 5 }] }, METRIC) as Record<
    string,
    Typed
  >;
  const draft = { ...typed, heavy: '10', at: '100', light: 'two', words: 'milk, nuts' };
  expect(inUnits(sheet, draft, METRIC, METRIC)).toBe(draft);
  expect(inUnits(sheet, draft, METRIC, IMPERIAL)).toMatchObject({ ...draft, heavy: '22.046', at: '212', kind: {} });
});

test('what a form does not ask for goes on as it was', () => {
  const kept = { deep: [1, { two: 2 }] };
  expect(read({}, METRIC, { untouched: kept }).value).toMatchObject({ untouched: kept });
});

test('a value that nobody touched is sent back exactly, whatever it was rounded to on screen', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.001, max: 1e6, noNaN: true }),
      fc.double({ min: -20, max: 300, noNaN: true }),
      (grams, at) => {
        const value = { name: 'x', heavy: grams, light: grams, at };
        for (const units of [METRIC, IMPERIAL]) {
          const typed = typedOf(sheet, value, units);
          expect(readTyped(sheet, typed, units, { value, typed }).value).toMatchObject(value);
        }
      },
    ),
    { numRuns: 100 },
  );
});

test('every record of the workshop comes through its form as it was', () => {
  const machine = {
    name: 'Small stone grinder',
    station: 'grind' as const,
    minG: 5000,
    maxG: 15_000,
    kw: 0.37,
    rpm: 140,
    lid: true,
    roaster: null,
  };
  const product = productFacts.parse({
    name: 'Harbour bar',
    declaredG: 70,
    form: 'topped',
    parts: [{ materialId: 'm1', role: 'topping', grams: 4.25 }],
    packaging: [{ materialId: 'm2', perPiece: 0.1 }],
    prices: [
      { channel: 'market', price: 7.5 },
      { channel: 'shops', price: 5 },
    ],
    recipeIds: ['r1', 'r2'],
  });
  const route = { name: 'Nib roast', note: 'a note', stations: ['beans', 'sort', 'winnow'], ceilingC: 47 };
  const { demo: _d, earlierRates: _e, ...rates } = DEFAULT_SETTINGS;
  const cases: [z.ZodMiniType, unknown][] = [
    [machineFacts, machine],
    [productFacts, product],
    [newRoute, route],
    [settingsChange, rates],
    [papers, papers.parse({ kind: 'papers', location: { lat: -1.5, lon: 30.25 }, certificates: ['organic'] })],
  ];
  for (const [schema, value] of cases) {
    const was = schema.parse(value);
    for (const units of [METRIC, IMPERIAL]) {
      const { value: again, problems } = readTyped(schema, typedOf(schema, was, units), units, {
        value: was,
        typed: typedOf(schema, was, units),
      });
      expect(problems).toEqual({});
      expect(schema.parse(again)).toMatchObject(was as object);
    }
  }
});

const staged = z.object({
  until: z._default(
    z.nullable(
      z.discriminatedUnion('what', [
        z.object({ what: z.literal('bean'), beanC: field(tempC, { label: 'Beans at' }) }),
        z.object({ what: z.literal('sign'), sign: z.string().check(z.minLength(1, 'is missing')) }),
      ]),
    ),
    null,
  ),
});

test('one of several groups: all their fields stand in the form, those of the chosen one are read', () => {
  expect(askedOf(staged.shape.until).kind).toBe('variant');
  expect(typedOf(staged, { until: null }, METRIC)).toEqual({ until: { what: '', beanC: '', sign: '' } });
  const typed = typedOf(staged, { until: { what: 'bean', beanC: 118 } }, IMPERIAL);
  expect(typed).toEqual({ until: { what: 'bean', beanC: '244.4', sign: '' } });
  const said = (until: Record<string, Typed>) => readTyped(staged, { until }, METRIC);
  expect(said({ what: '', beanC: '118', sign: 'pops' }).value).toEqual({ until: null });
  expect(said({ what: 'bean', beanC: '118,5', sign: 'pops' }).value).toEqual({ until: { what: 'bean', beanC: 118.5 } });
  expect(said({ what: 'sign', beanC: 'hot', sign: 'pops' })).toEqual({
    value: { until: { what: 'sign', sign: 'pops' } },
    problems: {},
  });
  expect(said({ what: 'bean', beanC: 'hot', sign: '' }).problems).toEqual({ 'until.beanC': 'is not a number' });
});

test('a figure of the group that it was is sent back exactly; of another group nothing is taken over', () => {
  const value = { until: { what: 'bean', beanC: 118.04 } };
  const typed = typedOf(staged, value, METRIC) as { until: Record<string, Typed> };
  const before = { value, typed };
  expect(typed.until['beanC']).toBe('118');
  expect(readTyped(staged, typed, METRIC, before).value).toEqual(value);
  const other = { until: { ...typed.until, what: 'sign', sign: '118' } };
  expect(readTyped(staged, other, METRIC, before).value).toEqual({ until: { what: 'sign', sign: '118' } });
});

test('every program of the house is typed and read back as it is, in both systems of units', () => {
  for (const ready of READY_MADE)
    for (const units of [METRIC, IMPERIAL]) {
      const typed = typedOf(program, ready, units);
      const { value, problems } = readTyped(program, typed, units, { value: ready, typed });
      expect(problems).toEqual({});
      expect(program.parse(value)).toEqual(ready);
      // Without knowing what it was, a figure is off by what its text leaves out.
      const bare = program.parse(readTyped(program, typed, units).value);
      bare.steps.forEach((row, i) => expect(Math.abs(row.setC - (ready.steps[i]?.setC ?? 0))).toBeLessThan(0.06));
    }
});

test('a figure of no record is read and refused by the schema of its field', () => {
  const { moisturePct } = loadFacts.shape;
  expect(readFigure(moisturePct, '7,5', METRIC)).toEqual({ value: 7.5, problem: undefined });
  expect(readFigure(moisturePct, ' ', METRIC)).toEqual({ value: null, problem: undefined });
  expect(readFigure(moisturePct, '7o', METRIC)).toEqual({ value: null, problem: 'is not a number' });
  expect(readFigure(moisturePct, '900', METRIC)).toEqual({ value: null, problem: 'is wetter than any beans to roast' });
  expect(readFigure(moisturePct, '-3', METRIC).problem).toMatch(/^is below 0\.5/);
  expect(readFigure(tempC, '212', IMPERIAL).value).toBeCloseTo(100, 8);
});
