import { z } from 'zod/mini';
import '../src/fields/refusals';
import { loadFacts, program, roasterFacts, signMark, type Program } from '../src/work/roasting';

/* What is said of a field that cannot be read, in the trade's words; and what a roaster, a program and a load may be. */

/** The refusals of a value, as `path message`. */
function said(schema: z.ZodMiniType, value: unknown): string[] {
  const { success, error } = schema.safeParse(value);
  return success ? [] : error.issues.map(({ path, message }) => `${path.join('.')} ${message}`.trim());
}

describe('fields without words of their own', () => {
  test.each<[string, z.ZodMiniType, unknown, string]>([
    ['nothing', z.number(), undefined, 'is missing'],
    ['null', z.string(), null, 'is missing'],
    ['a word for a number', z.number(), '12', 'is not a number'],
    ['a number for a word', z.string(), 12, 'is not text'],
    ['a word for yes or no', z.boolean(), 'yes', 'is neither true nor false'],
    ['one for many', z.array(z.string()), 'a', 'is not a list'],
    ['a word for a record', z.object({}), 'a', 'cannot be read'],
    ['a fraction', z.number().check(z.int()), 1.5, 'is not a whole number'],
    ['none of two', z.enum(['oven', 'drum']), 'pan', 'is not oven or drum'],
    ['none of three', z.enum(['oven', 'drum', 'pan']), 'pot', 'is not oven, drum or pan'],
    ['one of very many', z.enum(Array.from({ length: 20 }, (_, i) => `c${i}`)), 'x', 'is none that is known'],
    ['an empty word', z.string().check(z.minLength(1)), '', 'is missing'],
    ['a long word', z.string().check(z.maxLength(3)), 'abcd', 'is longer than 3 letters'],
    ['too few', z.array(z.number()).check(z.minLength(2)), [1], 'has fewer than 2'],
    ['too many', z.array(z.number()).check(z.maxLength(1)), [1, 2], 'has more than 1'],
    ['too little', z.number().check(z.minimum(5)), 4, 'is below 5'],
    ['too much', z.number().check(z.maximum(5)), 6, 'is above 5'],
    ['off the step', z.number().check(z.multipleOf(5)), 6, 'is no multiple of 5'],
    ['what does not belong', z.strictObject({}), { salt: 1 }, 'has what does not belong here: salt'],
    [
      'no kind that is known',
      z.union([z.object({ a: z.number() }), z.object({ b: z.number() })]),
      {},
      'is of no kind that is known',
    ],
    ['neither of two', z.union([z.number(), z.boolean()]), 'x', 'cannot be read'],
  ])('%s', (_, schema, value, words) => expect(said(schema, value)).toEqual([words]));

  test('a field that says it itself keeps its own words', () => {
    expect(said(z.string().check(z.minLength(3, 'says why')), 'a')).toEqual(['says why']);
  });
});

const STEP = { setC: 140, minutes: 12, note: '' };
const PROGRAM = {
  name: 'Falling steps',
  reason: '',
  loadG: 5000,
  preheatC: 160,
  steps: [STEP],
  note: '',
};

describe('a roast program', () => {
  test('has its usual values where nothing is said', () => {
    expect(program.parse(PROGRAM)).toMatchObject<Partial<Program>>({
      kind: 'bean',
      school: 'own',
      roasterId: null,
      stirEveryMin: null,
      coolMin: 60,
      suits: [],
      steps: [{ ...STEP, until: null }],
    });
  });

  test('a step may end when the beans are so warm, or at a sign', () => {
    const until = (value: unknown) => said(program, { ...PROGRAM, steps: [{ ...STEP, until: value }] });
    expect(until({ what: 'bean', beanC: 121 })).toEqual([]);
    expect(until({ what: 'sign', sign: 'pops' })).toEqual([]);
    expect(until({ what: 'sign', sign: '  ' })).toEqual(['steps.0.until.sign is missing']);
    expect(until({ what: 'bean' })).toEqual(['steps.0.until.beanC is missing']);
    expect(until({ what: 'moon' })[0]).toMatch(/^steps\.0\.until/u);
  });

  test.each<[string, object, string]>([
    ['no name', { name: ' ' }, 'name is missing'],
    ['a name for two', { name: 'x'.repeat(81) }, 'name is longer than 80 letters'],
    ['no step', { steps: [] }, 'steps needs a step'],
    ['too many steps', { steps: Array.from({ length: 25 }, () => STEP) }, 'steps has too many steps'],
    ['a step of no length', { steps: [{ ...STEP, minutes: 0 }] }, 'steps.0.minutes must be more than 0'],
    ['stirred all the time', { stirEveryMin: 0 }, 'stirEveryMin must be more than 0'],
    ['a school that is none', { school: 'moon' }, 'school'],
    ['no kind', { kind: 'pod' }, 'kind is not bean or nib'],
  ])('with %s is refused at its field', (_, more, words) =>
    expect(said(program, { ...PROGRAM, ...more })[0]?.startsWith(words)).toBe(true),
  );
});

describe('a load', () => {
  test('may have nothing but its weights', () => {
    expect(loadFacts.parse({})).toEqual({
      programId: null,
      version: null,
      plan: null,
      moisturePct: null,
      layerMm: null,
      beanStartC: null,
      probe: 'hand',
      seconds: null,
      settings: [],
      signs: [],
      stirs: [],
    });
  });

  test.each<[string, object, string]>([
    ['wet beans', { moisturePct: 31 }, 'moisturePct is wetter than any beans to roast'],
    ['bone-dry beans', { moisturePct: 0.2 }, 'moisturePct'],
    ['a layer of nothing', { layerMm: 0 }, 'layerMm must be more than 0'],
    ['a tray like a barrel', { layerMm: 501 }, 'layerMm is deeper than any tray'],
    ['a roast of two days', { seconds: 100_000 }, 'seconds'],
    ['a stir before it began', { stirs: [-1] }, 'stirs.0'],
    ['a half version', { version: 1.5 }, 'version'],
    ['a setting of no step', { settings: [{ second: 0, setC: 120, step: -2 }] }, 'settings.0.step'],
  ])('%s is refused at its field', (_, more, words) => {
    const [first = ''] = said(loadFacts, more);
    expect(first.startsWith(words)).toBe(true);
  });

  test('a sign has its name and its second, a word if there is one', () => {
    expect(said(signMark, { second: 600, what: 'pops', word: '' })).toEqual([]);
    expect(said(signMark, { second: 600, what: '', word: '' })).toEqual(['what is missing']);
    expect(said(signMark, { second: -1, what: 'pops', word: '' })).toEqual(['second is below 0']);
  });
});

describe('the kill step of a roaster', () => {
  const kill = { dMin: 2.5, zC: 22, refC: 120, source: 'study of March, full trays' };
  const of = (more: object): string[] => said(roasterFacts, { how: '', kill: { ...kill, ...more } });

  test('is the maker’s own validation, whole or not at all', () => {
    expect(roasterFacts.parse({ how: '' }).kill).toBeNull();
    expect(of({})).toEqual([]);
    expect(of({ source: '' })).toEqual(['kill.source says who validated it, and when']);
    expect(of({ zC: undefined })).toEqual(['kill.zC is missing']);
    expect(of({ dMin: 0 })).toEqual(['kill.dMin must be more than 0']);
    expect(of({ refC: 'hot' })).toEqual(['kill.refC is not a number']);
  });
});
