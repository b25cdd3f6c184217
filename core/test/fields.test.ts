import { z } from 'zod/mini';
import { command, commandSchema } from '../src/commands';
import { askedAt, askedOf, elementOf, shapeOf } from '../src/fields/asked';
import { massG, money, name, note, tempC } from '../src/fields/fields';
import { labelOf } from '../src/fields/labels';
import { FIELDS, field } from '../src/fields/registry';
import { entryHead } from '../src/work/start';

const entry = z.extend(entryHead, { command });

test('a field keeps what it reads and takes the words of what it is made from along', () => {
  const netG = field(massG, { label: 'Net weight' });
  expect(FIELDS.get(netG)).toMatchObject({ label: 'Net weight', unit: 'g' });
  expect(FIELDS.get(massG)).toMatchObject({ label: 'Weight' });
  expect(netG.safeParse(0).error?.issues[0]?.message).toBe('must be more than 0 g');
});

test('how a field is typed comes from its schema, also within what may be left out', () => {
  expect(askedOf(z._default(z.nullable(tempC), null))).toMatchObject({
    kind: 'temp',
    unit: '°C',
    optional: true,
    least: -60,
    most: 400,
  });
  expect(askedOf(note)).toMatchObject({ kind: 'text', label: 'Note', optional: true });
  expect(askedOf(name)).toMatchObject({ kind: 'text', optional: false });
  expect(askedOf(z.array(massG))).toMatchObject({ kind: 'series' });
  expect(askedOf(z.array(name))).toMatchObject({ kind: 'words' });
  expect(askedOf(z.array(z.object({ a: money })))).toMatchObject({ kind: 'rows' });
  expect(askedOf(z.array(z.enum(['sun', 'rain'])))).toMatchObject({ kind: 'several', choices: ['sun', 'rain'] });
  expect(askedOf(z.iso.date())).toMatchObject({ kind: 'day' });
  expect(askedOf(z.boolean())).toMatchObject({ kind: 'flag' });
  expect(askedOf(z.number().check(z.int(), z.minimum(1)))).toEqual(
    expect.objectContaining({ kind: 'count', least: 1, optional: false }),
  );
  expect(askedOf(z.literal('x'))).toMatchObject({ kind: 'fixed' });
  expect(askedOf(z.unknown())).toMatchObject({ kind: 'other' });
});

test('a field is found by its path, in the kind of entry that was sent', () => {
  const at = (path: string, value?: unknown) => askedAt(entry, path.split('.'), value)?.label;
  expect(at('command.outG', { command: { kind: 'rest' } })).toBe('Off the shelf (empty: all of it)');
  expect(at('command.outG', { command: { kind: 'roast' } })).toBe('Out of the roaster');
  expect(at('command.sources.0.massG', { command: { kind: 'sort', sources: [{}] } })).toBe('Weight');
  expect(at('command.batch.name')).toBe('Name of the batch');
  expect(at('command.nothing')).toBeUndefined();
  expect(at('personId')).toBe('Who is at the bench');
});

test('a refusal calls fields as the screen does', () => {
  const sent = { schema: entry, value: { command: { kind: 'mould' } } };
  expect(labelOf('command.sources.0.pieces', sent)).toBe('Pieces (line 1)');
  expect(labelOf('goodPieces', sent)).toBe('Good bars');
  expect(labelOf('at', sent)).toBe('The time');
  expect(labelOf('someNewG', sent)).toBe('Some New');
  expect(labelOf('')).toBe('The entry');
});

test('every field of every kind of entry that is typed has a name', () => {
  const nameless: string[] = [];
  for (const option of command.def.options) {
    const kind = option.shape.kind.def.values[0] as Parameters<typeof commandSchema>[0];
    for (const [at, schema] of Object.entries(shapeOf(commandSchema(kind)))) {
      const asked = askedOf(schema);
      if (['mass', 'temp', 'count', 'number', 'day', 'choice', 'series'].includes(asked.kind) && !asked.label)
        nameless.push(`${kind}.${at}`);
    }
  }
  expect(nameless).toEqual([]);
});

test('what a schema has no words for is said in ours', () => {
  const said = (schema: z.ZodMiniType, value: unknown) => schema.safeParse(value).error?.issues[0]?.message;
  expect(said(z.number(), undefined)).toBe('is missing');
  expect(said(z.number(), 'x')).toBe('is not a number');
  expect(said(z.string(), 4)).toBe('is not text');
  expect(said(z.array(z.string()), {})).toBe('is not a list');
  expect(said(z.enum(['set', 'slow']), 'fast')).toBe('is not set or slow');
  expect(said(z.number().check(z.minimum(3)), 2)).toBe('is below 3');
  expect(said(z.array(z.string()).check(z.maxLength(1)), ['a', 'b'])).toBe('has more than 1');
  expect(said(z.string().check(z.maxLength(2)), 'abc')).toBe('is longer than 2 letters');
  expect(said(z.number().check(z.int()), 2.5)).toBe('is not a whole number');
  expect(said(command, { kind: 'bake' })).toBe('is of no kind that is known');
});

test('rows of a list have their fields too', () => {
  const rejects = shapeOf(commandSchema('sort'))['rejects'];
  const row = rejects && elementOf(rejects);
  expect(row && Object.keys(shapeOf(row))).toEqual(['reason', 'massG']);
});
