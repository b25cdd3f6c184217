import { readRecord, recordVersion } from '../src/records';
import { upgraded, versionOf, type Upgrades } from '../src/record/upgrades';

const UPGRADES: Upgrades = {
  look: [
    (value) => ({ ...value, by: 'hand' }),
    ({ minutes, ...value }) => ({ ...value, seconds: 60 * Number(minutes) }),
  ],
};

test('a kind has one version more than it has upgraders; one that never changed is of the first', () => {
  expect(versionOf(UPGRADES, 'look')).toBe(3);
  expect(versionOf(UPGRADES, 'anything')).toBe(1);
});

test('a record goes through every upgrader from its own version on, in order, and is not changed itself', () => {
  const first = Object.freeze({ kind: 'look', minutes: 2 });
  expect(upgraded(UPGRADES, 'look', 1, first)).toEqual({ kind: 'look', seconds: 120, by: 'hand' });
  expect(upgraded(UPGRADES, 'look', 2, { kind: 'look', by: 'probe', minutes: 1 })).toEqual({
    kind: 'look',
    seconds: 60,
    by: 'probe',
  });
  expect(upgraded(UPGRADES, 'look', 3, { kind: 'look', seconds: 5 })).toEqual({ kind: 'look', seconds: 5 });
  expect(first).toEqual({ kind: 'look', minutes: 2 });
});

test('what a newer program wrote is refused, not guessed at', () => {
  expect(() => upgraded(UPGRADES, 'look', 4, {})).toThrow('written by a newer program; this one knows 3');
  expect(readRecord('mould', 9, { kind: 'mould' })).toEqual({
    misfit: 'is of version 9, written by a newer program; this one knows 1',
  });
});

const INSPECTION = {
  kind: 'inspection',
  signs: { webbing: false, droppings: false, larvae: 0, moths: 0, wetSacks: 0, tornSacks: 0, rodents: false },
};

test('an inspection from before anybody was asked whether they looked: they did; one that says no keeps its no', () => {
  expect(recordVersion('beans', 'inspection')).toBe(2);
  expect(readRecord('beans', 1, INSPECTION)).toMatchObject({ value: { signs: { looked: true, webbing: false } } });
  const not = { ...INSPECTION, signs: { ...INSPECTION.signs, looked: false } };
  for (const version of [1, 2])
    expect(readRecord('beans', version, not)).toMatchObject({ value: { signs: { looked: false } } });
});

test('what is no record, or does not fit, is told by its field', () => {
  expect(readRecord('beans', 1, null)).toEqual({ misfit: 'value is no record' });
  expect(readRecord('beans', 1, { kind: 'inspection', signs: 4 })).toMatchObject({
    misfit: expect.any(String) as string,
  });
  expect(readRecord('taste', 1, { kind: 'unheard of' })).toEqual({ misfit: 'kind is of no kind that is known' });
});
