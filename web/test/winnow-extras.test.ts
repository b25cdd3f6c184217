import {
  dialsOf,
  extrasCommand,
  extrasField,
  extrasOf,
  extrasProblem,
  sieveOf,
  type Extras,
} from '../src/winnow/extras';

const EXTRAS: Extras = {
  method: 'column',
  dials: { air: '4,5', gapMm: '6' },
  shell: [{ sampleG: 100, foundG: 1.2 }],
  nib: [],
  passes: [{ what: 'first', nibsG: 3500, minutes: 15 }],
  sieve: { goodG: '80', finesG: '' },
  typed: { nib: { size: '100', found: ' ' } },
};
const fieldsOf = (extras: Extras) => Object.fromEntries([extrasField(extras)]);

test('what a winnowing adds survives its draft', () => {
  expect(extrasOf(fieldsOf(EXTRAS))).toEqual(EXTRAS);
  expect(extrasOf({})).toMatchObject({ method: '', passes: [] });
});

test('the command carries what was filled in and leaves the rest out', () => {
  expect(extrasCommand(fieldsOf(EXTRAS))).toEqual({
    method: 'column',
    settings: { air: 4.5, gapMm: 6 },
    shellSamples: [{ sampleG: 100, foundG: 1.2 }],
    passes: [{ what: 'first', nibsG: 3500, minutes: 15 }],
    sieve: { coarseG: 0, goodG: 80, finesG: 0, dustG: 0 },
  });
  expect(extrasCommand({})).toEqual({});
  expect(sieveOf(extrasOf({}))).toBeNull();
  expect(dialsOf({ ...EXTRAS, dials: { air: '' } })).toEqual({ air: null });
});

test('a dial that is no number keeps the entry from being sent', () => {
  expect(extrasProblem(fieldsOf(EXTRAS))).toBeNull();
  expect(extrasProblem(fieldsOf({ ...EXTRAS, dials: { air: 'low' } }))).toContain('“low”');
  expect(extrasProblem(fieldsOf({ ...EXTRAS, sieve: { dustG: 'some' } }))).toContain('“some”');
});

test('what is typed as a pass or a sample and not added yet keeps the entry from being sent without it', () => {
  const typed = (part: Extras['typed']) => extrasProblem(fieldsOf({ ...EXTRAS, typed: part }));
  expect(typed({ pass: { what: 'again', nibs: '', minutes: '4' } })).toBeNull();
  expect(typed({ pass: { what: 'again', nibs: '210', minutes: '' } })).toBe(
    '“210” is typed as a pass and not added: add it, or clear it.',
  );
  expect(typed({ shell: { size: '100', found: '1.4' } })).toContain('a sample of shell in nibs');
  expect(typed({ nib: { size: '50', found: 'two' } })).toContain('“two”');
});
