import { readFields, usualWords } from '../src/entry/entry';
import { fieldsFor } from '../src/entry/fields-for';
import { setDecimalMark } from '../src/parts/number';
import '../src/kinds';

const METRIC = { temperature: 'C', heavy: 'kg' } as const;

afterEach(() => setDecimalMark('.'));

test('a bench asks for a field as its schema describes it', () => {
  const [good, setC, release] = fieldsFor('mould', 'goodPieces', 'setC', 'release');
  expect(good).toMatchObject({ name: 'goodPieces', label: 'Good bars', type: 'pieces' });
  expect(good?.optional).toBeUndefined();
  expect(setC).toMatchObject({ label: 'Set at', type: 'temp', optional: true, usual: [12, 18] });
  expect(release).toMatchObject({ type: 'choice', choices: [{ value: 'by-itself', label: 'By themselves' }, {}, {}] });
  expect(fieldsFor('discharge', 'outsG', 'micron')).toMatchObject([
    { type: 'masses', hint: 'Add each block: every weighing is one block.' },
    { type: 'number', unit: 'µm' },
  ]);
  expect(fieldsFor('pack', 'bestBefore')).toMatchObject([{ type: 'date' }]);
});

test('a screen calls a field otherwise, and puts it under a name of its own', () => {
  const [name] = fieldsFor('charge', ['batch.name', { name: 'batchName' }]);
  expect(name).toMatchObject({ name: 'batchName', at: 'batch.name', label: 'Name of the batch', hint: 'Fiji 68 %' });
  const [packs] = fieldsFor('pack', ['pieces', { label: 'Packs' }]);
  expect(packs).toMatchObject({ name: 'pieces', label: 'Packs' });
  expect(packs?.at).toBeUndefined();
});

test('a place that the command does not have is told at once, not on a screen', () => {
  expect(() => fieldsFor('rest', 'outGrams')).toThrow('There is no outGrams here.');
});

test('words with commas between are typed as text and read by their screen', () => {
  const [allergens] = fieldsFor('open', ['allergens', { name: 'allergenWords' }]);
  expect(allergens).toMatchObject({ type: 'text', at: 'allergens' });
  const specs = fieldsFor('open', 'name', ['allergens', { name: 'allergenWords' }]);
  const fields = { name: { text: 'Old bars' }, allergenWords: { text: 'milk, nuts' } };
  expect(readFields('open', fields, METRIC, specs)).toEqual({
    values: { name: 'Old bars', allergenWords: 'milk, nuts' },
    problems: {},
  });
});

test('what the schema refuses stands at its field before anything is sent', () => {
  const { problems } = readFields(
    'discharge',
    { outsG: { text: '30', unit: 'kg' }, micron: { text: '900' }, holdUpG: { text: '25000', unit: 'kg' } },
    METRIC,
  );
  expect(problems['holdUpG']).toBe('is more than 20 t');
  expect(problems['micron']).toBe('is above 500');
  expect(problems['outsG']).toBeUndefined();
});

test('what is usual is said only of a figure outside of it, in the units that are typed', () => {
  const [setC] = fieldsFor('mould', 'setC');
  const said = (text: string, unit: 'C' | 'F' = 'C') => setC && usualWords(setC, text, unit);
  expect(said('15')).toBeNull();
  expect(said('')).toBeNull();
  expect(said('warm')).toBeNull();
  expect(said('22')).toBe('usually 12 to 18 °C');
  expect(said('60', 'F')).toBeNull();
  expect(said('72', 'F')).toBe('usually 53.6 to 64.4 °F');
  const [moisture] = fieldsFor('receive', 'moisturePct');
  setDecimalMark(',');
  expect(moisture && usualWords(moisture, '9,5', 'C')).toBe('usually 6 to 8 %');
});
