import type { Problem } from '@wunsch/core/api/types';
import type { HoldingView } from '@wunsch/core/api/types';
import { ApiError } from '../src/parts/api';
import {
  fieldProblems,
  figuresOf,
  massMgOf,
  scaled,
  sourcesFixed,
  sourcesOf,
  takesNear,
  takeSpec,
  unread,
  usualTakes,
  withUnit,
} from '../src/entry/takes';
import { takeGrams, partName, partGrams } from '../src/mould/parts';
import type { ProductView } from '@wunsch/core/api/products';
import { another, clockWords, EMPTY_IMPRESSION, sheetOf } from '../src/taste/impression';

/* What is taken of what was picked; parts of pieces out of the pantry; a sheet that is filled while one tastes. */

const tub = (id: string, freeG: number, rest: Partial<HoldingView> = {}): HoldingView =>
  ({ id, code: id.toUpperCase(), pieces: 0, freeMg: freeG * 1000, ...rest }) as HoldingView;

test('nothing typed takes all, or in turn until there is enough', () => {
  const tubs = [tub('a', 500), tub('b', 300), tub('c', 200)];
  expect([...usualTakes(tubs)]).toEqual([
    ['a', 500],
    ['b', 300],
    ['c', 200],
  ]);
  expect([...usualTakes(tubs, 600)]).toEqual([
    ['a', 500],
    ['b', 100],
    ['c', 0],
  ]);
});

test('a tub is weighed, bars are counted', () => {
  const mass = (mg: number): string => `${mg / 1000} g`;
  expect(takeSpec(tub('a', 500), mass)).toMatchObject({ name: 'take.a', type: 'mass', label: 'A, of 500 g' });
  expect(takeSpec(tub('b', 70, { pieces: 1 }), mass)).toMatchObject({ type: 'pieces', label: 'B, of 1 piece' });
  expect(takeSpec(tub('b', 700, { pieces: 10 }), mass).label).toBe('B, of 10 pieces');
});

test('weights typed before a unit was chosen are in that unit; others stay', () => {
  const specs = [takeSpec(tub('a', 500), String)];
  const fields = { 'take.a': { text: '2' }, 'take.b': { text: '3' } };
  expect(withUnit(fields, specs, 'kg')['take.a']).toEqual({ text: '2', unit: 'kg' });
  expect(withUnit(fields, specs, 'kg')['take.b']).toEqual({ text: '3' });
  const chosen = { 'take.a': { text: '2', unit: 'g' as const } };
  expect(withUnit(chosen, specs, 'kg')).toEqual(chosen);
});

test('all weighings of a field are off by the same slip, and are put right together', () => {
  expect(scaled({ text: '2', parts: [1000, 500], unit: 'g' }, 1000, 'kg')).toEqual({
    text: '2',
    unit: 'kg',
    parts: [1_000_000, 500_000],
  });
  expect(scaled({ text: '', unit: 'g' }, 1000, 'kg')).toMatchObject({ text: '', unit: 'kg' });
});

test('what the server says of a field stands at that field', () => {
  const problem = (errors: Problem['errors']) => new ApiError({ errors } as Problem);
  const chosen = [tub('a', 500), tub('b', 300)];
  const specs = [
    ...chosen.map((row) => takeSpec(row, String)),
    { name: 'goodG', label: 'Good', type: 'mass' as const },
    { name: 'cocoa', at: 'batch.cocoaPct', label: 'Cocoa', type: 'number' as const },
    { name: 'takings.b', at: 'takings', label: 'Takings', type: 'number' as const },
  ];
  const said = (path: string) => fieldProblems(problem([{ path, label: '', message: 'no' }]), chosen, specs);
  expect(said('command.sources.1.massG')).toEqual({ 'take.b': 'no' });
  expect(said('command.sources.1.takings')).toEqual({ 'takings.b': 'no' });
  expect(said('command.rejects.0.massG')).toEqual({ goodG: 'no' });
  expect(said('command.batch.cocoaPct')).toEqual({ cocoa: 'no' });
  expect(said('at')).toEqual({ '~at': 'no' });
  // What has no field here is said elsewhere.
  expect(said('machineId')).toEqual({});
});

test('grams of an ingredient come from the oldest purchase first; more than there is is asked for all the same', () => {
  const pantry = [
    tub('p1', 100, { materialId: 'nuts' }),
    tub('p2', 400, { materialId: 'nuts' }),
    tub('p3', 900, { materialId: 'salt' }),
    tub('p4', 0, { materialId: 'nuts' }),
  ];
  expect(takeGrams(pantry, 'nuts', 250)).toEqual([
    { holdingId: 'p1', massG: 100 },
    { holdingId: 'p2', massG: 150 },
  ]);
  expect(takeGrams(pantry, 'nuts', 600)).toEqual([
    { holdingId: 'p1', massG: 200 },
    { holdingId: 'p2', massG: 400 },
  ]);
  expect(takeGrams(pantry, 'milk', 10)).toEqual([]);
});

test('parts of pieces: as the product says for so many pieces, and what is typed stands', () => {
  const product = {
    facts: {
      parts: [
        { materialId: 'nuts', grams: 4, role: 'inclusion' },
        { materialId: 'salt', grams: 0.15, role: 'topping' },
        { materialId: 'nuts', grams: 1, role: 'topping' },
      ],
    },
  } as unknown as ProductView;
  const fields = { goodPieces: { text: '10' }, secondsPieces: { text: '2' } };
  expect(partGrams(undefined, { fields })).toEqual([]);
  expect(partGrams(product, { fields })).toEqual([
    { materialId: 'nuts', text: '60' },
    { materialId: 'salt', text: '1.8' },
  ]);
  expect(partGrams(product, { fields, choices: { [partName('nuts')]: '55' } })[0]).toEqual({
    materialId: 'nuts',
    text: '55',
  });
  // Before anything is counted nothing is proposed.
  expect(partGrams(product, { fields: {} }).map(({ text }) => text)).toEqual(['', '']);
});

test('of a sheet its figures are kept, not where its clock stood', () => {
  const filled = { ...EMPTY_IMPRESSION, overall: 7, meltAt: 5, meltSeconds: 41, pauseAt: 9, scales: { bitter: 3 } };
  const kept = sheetOf(filled);
  expect(kept).toMatchObject({ overall: 7, seconds: 41 });
  expect(Object.keys(kept)).not.toEqual(expect.arrayContaining(['meltAt']));
  expect(sheetOf(EMPTY_IMPRESSION).seconds).toBe(0);
});

test('another look begins where the figures were, and its melt anew', () => {
  const next = another({ ...EMPTY_IMPRESSION, overall: 7, shine: 3, note: 'first', meltSeconds: 50, pauses: [4] });
  expect(next).toEqual({ ...EMPTY_IMPRESSION, overall: 7, shine: 3 });
});

test('seconds as a clock shows them', () => {
  expect([0, 9, 60, 125.9].map(clockWords)).toEqual(['0:00', '0:09', '1:00', '2:05']);
});

describe('what goes in', () => {
  const bars = tub('b', 700, { pieces: 10, massMg: 700_000 });
  const sack = tub('a', 500);

  test('is what was typed, in the screen’s unit; else the usual grams, and all pieces', () => {
    const usual = new Map([['a', 320]]);
    expect(sourcesOf([sack, bars], {}, 'kg', usual)).toEqual([
      { holdingId: 'a', massG: 320 },
      { holdingId: 'b', pieces: 10 },
    ]);
    const typed = { 'take.a': { text: '0.25' }, 'take.b': { text: '4' } };
    const sources = sourcesOf([sack, bars], typed, 'kg', usual);
    expect(sources).toEqual([
      { holdingId: 'a', massG: 250 },
      { holdingId: 'b', pieces: 4 },
    ]);
    // Pieces weigh as much as they do on the mean.
    expect([massMgOf(sack, sources[0]), massMgOf(bars, sources[1]), massMgOf(sack, undefined)]).toEqual([
      250_000, 280_000, 0,
    ]);
  });

  test('of work under way is what it took: by the piece where it was counted', () => {
    const taken = [
      { holdingId: 'a', massMg: 2500, pieces: 0 },
      { holdingId: 'b', massMg: 700_000, pieces: 10 },
    ];
    expect(sourcesFixed(taken)).toEqual([
      { holdingId: 'a', massG: 2.5 },
      { holdingId: 'b', pieces: 10 },
    ]);
  });

  test('is held against what there is where that is far less, else against what usually goes in', () => {
    const near = (text: string, usualInG: number | null) =>
      takesNear([sack], { 'take.a': { text } }, 'g', usualInG).near['take.a'];
    expect(near('4001', 300)).toEqual({ value: 500, of: 'There is' });
    expect(near('4000', 300)).toEqual({ value: 300, of: 'Usually goes in' });
    expect(near('4000', 900)).toEqual({ value: 500, of: 'Usually goes in' });
    expect(near('4000', null)).toBeUndefined();
    expect(near('x', 300)).toBeUndefined();
    // Pieces are asked about nowhere; of two tubs each has its half.
    expect(takesNear([bars], { 'take.b': { text: '999' } }, 'g', 300)).toEqual({ figures: {}, near: {} });
    expect(takesNear([sack, tub('c', 900)], { 'take.c': { text: '10' } }, 'g', 300).near['take.c']?.value).toBe(150);
  });

  test('figures of several weighings count together, of several readings the first', () => {
    expect(figuresOf({ goodG: 9, outsG: [1, 2, 4], channels: [5, 6], note: 'x', hold: null })).toEqual({
      goodG: 9,
      outsG: 7,
      channels: 5,
    });
  });

  test('a weight, a count or a time that is no number is told; nothing is none', () => {
    const specs = [takeSpec(sack, String), takeSpec(bars, String)];
    const fields = { 'take.a': { text: '2o' }, 'take.b': { text: 'four' } };
    expect(unread(specs, fields, 'g')).toEqual({ 'take.a': 'is not a number', 'take.b': 'is not a number' });
    expect(unread(specs, { 'take.a': { text: '  ' }, 'take.b': { text: '' } }, 'g')).toEqual({});
    expect(unread(specs, { 'take.a': { text: '1.5 kg' } }, 'g')).toEqual({});
  });
});
