import { RecipeBook } from '../src/recipe/book';
import { recipe, type RecipeRecord, type RecipeRecordValue } from '../src/recipe/records';
import { RoastBook } from '../src/roast/book';
import type { RoastRecordValue } from '../src/roast/records';
import type { CurveMeta } from '../src/workshop/kept';
import { refusal, START } from './fixtures';

/* What is kept beside the ledger: what the newest record says, and that nothing of the older ones is lost. */

let count = 0;
const written = <V>(value: V, at = START + (count += 1)) => ({
  id: `r${(count += 1)}`,
  at,
  recordedAt: at,
  personId: 'ann',
  value,
});

describe('recipes', () => {
  const book = (...values: RecipeRecordValue[]): { kept: RecipeBook; records: RecipeRecord[] } => {
    const kept = new RecipeBook();
    const records = values.map((value) => written(value));
    for (const record of records) kept.add(record);
    return { kept, records };
  };
  const dark = recipe.parse({
    name: 'Dark',
    kind: 'dark',
    lines: [
      { ingredient: 'nibs', grams: 700 },
      { ingredient: 'sugar', grams: 300 },
    ],
    note: '',
  });
  const version = (recipeId: string, number: number, name = 'Dark'): RecipeRecordValue => ({
    kind: 'recipe',
    recipeId,
    version: number,
    recipe: { ...dark, name },
    why: `version ${number}`,
  });
  const weighing = (weighingId: string, nibsG = 700): RecipeRecordValue => ({
    kind: 'weighing',
    weighingId,
    recipe: { id: 'dark', version: 1 },
    name: 'Dark',
    batchId: null,
    machineId: null,
    routeId: null,
    targetMicron: 20,
    stepG: 5,
    tolerancePct: 1,
    lines: [
      { ingredient: 'nibs', grams: nibsG },
      { ingredient: 'sugar', grams: 300 },
    ],
    ladder: null,
  });
  const weighed = (weighingId: string, ingredient: string, massG: number, holdingId = 'tub'): RecipeRecordValue => ({
    kind: 'weighed',
    weighingId,
    ingredient,
    holdingId,
    massG,
    by: 'scale',
  });

  test('versions stand oldest first; each can be found, the newest is what counts', () => {
    const { kept } = book(version('dark', 1, 'Old'), version('milk', 1), version('dark', 2, 'New'));
    expect(kept.recipe('dark').versions.map((row) => [row.version, row.recipe.name, row.why])).toEqual([
      [1, 'Old', 'version 1'],
      [2, 'New', 'version 2'],
    ]);
    expect(kept.newest('dark')?.recipe.name).toBe('New');
    expect(kept.version('dark', 1)?.recipe.name).toBe('Old');
    expect(kept.version('dark', 3)).toBeUndefined();
    expect(kept.newest('white')).toBeUndefined();
    expect(kept.all().map(({ id }) => id)).toEqual(['dark', 'milk']);
    expect(refusal(() => kept.recipe('white'))).toBe('http/not-found');
  });

  test('what is shelved comes back, with all its versions', () => {
    const shelved = (is: boolean): RecipeRecordValue => ({ kind: 'shelved', recipeId: 'dark', shelved: is });
    const { kept } = book(version('dark', 1), shelved(true));
    expect(kept.recipe('dark').shelved).toBe(true);
    kept.add(written(shelved(false)));
    expect(kept.recipe('dark')).toMatchObject({ shelved: false, versions: [{ version: 1 }] });
  });

  test('a ladder knows its batches, and a recipe its ladders', () => {
    const arms = ['65 %', '70 %'].map((name) => ({
      name,
      machineId: null,
      lines: [{ ingredient: 'nibs', grams: 10 }],
    }));
    const { kept } = book(
      version('dark', 1),
      { kind: 'ladder', ladderId: 'l', recipeId: 'dark', name: 'Sweetness', what: 'sugar', arms },
      { kind: 'ladder-batch', ladderId: 'l', arm: 1, batchId: 'b2' },
      { kind: 'ladder-batch', ladderId: 'l', arm: 0, batchId: 'b1' },
    );
    expect(kept.laddersOf('dark').map(({ value }) => value.name)).toEqual(['Sweetness']);
    expect(kept.laddersOf('milk')).toEqual([]);
    expect(kept.batchesOfLadder('l').map(({ value }) => [value.arm, value.batchId])).toEqual([
      [1, 'b2'],
      [0, 'b1'],
    ]);
    expect(kept.ladder('l').value.arms).toHaveLength(2);
    expect(kept.batchesOfLadder('none')).toEqual([]);
    expect(refusal(() => kept.ladder('none'))).toBe('http/not-found');
  });

  test('a weighing run is under way until it is ended, and is found after that too', () => {
    const { kept } = book(weighing('w1'), weighing('w2'));
    expect(kept.openWeighings().map(({ id }) => id)).toEqual(['w1', 'w2']);
    kept.add(written({ kind: 'weighing-ended', weighingId: 'w1', stepId: 's9' }));
    expect(kept.openWeighings().map(({ id }) => id)).toEqual(['w2']);
    expect(kept.weighing('w1')).toMatchObject({ stepId: 's9' });
    expect(kept.weighing('w1').endedAt).not.toBeNull();
    expect(refusal(() => kept.weighing('w3'))).toBe('http/not-found');
  });

  test('what is on the bench of open runs is out of its tub; a run’s own can be left out, an ended one holds nothing', () => {
    const { kept, records } = book(
      weighing('w1'),
      weighing('w2'),
      weighed('w1', 'nibs', 400),
      weighed('w1', 'nibs', 50),
      weighed('w2', 'nibs', 200),
      weighed('w2', 'sugar', 100, 'bag'),
    );
    expect([...kept.weighedOut()]).toEqual([
      ['tub', 650],
      ['bag', 100],
    ]);
    expect([...kept.weighedOut('w1')]).toEqual([
      ['tub', 200],
      ['bag', 100],
    ]);
    kept.add(written({ kind: 'unweighed', weighingId: 'w1', recordId: records[3]?.id ?? '' }));
    expect(kept.weighedOut().get('tub')).toBe(600);
    kept.add(written({ kind: 'weighing-ended', weighingId: 'w1', stepId: null }));
    expect(kept.weighedOut().get('tub')).toBe(200);
  });

  test('a line is begun, right within its tolerance, and over beyond it; never finer than a step of the scale', () => {
    const { kept } = book(weighing('w', 700));
    const line = (of: string) => kept.weighing('w').lines.find(({ ingredient }) => ingredient === of);
    expect(line('nibs')).toMatchObject({ state: 'open', toleranceG: 7, weighedG: 0 });
    // One percent of 300 g is less than a step of 5 g.
    expect(line('sugar')?.toleranceG).toBe(5);
    kept.add(written(weighed('w', 'nibs', 692)));
    expect(line('nibs')?.state).toBe('begun');
    kept.add(written(weighed('w', 'nibs', 1)));
    expect(line('nibs')?.state).toBe('done');
    kept.add(written(weighed('w', 'nibs', 14)));
    expect(line('nibs')).toMatchObject({ state: 'done', weighedG: 707 });
    kept.add(written(weighed('w', 'nibs', 1)));
    expect(line('nibs')?.state).toBe('over');
    kept.add(
      written({ kind: 'replanned', weighingId: 'w', lines: [{ ingredient: 'nibs', grams: 720 }], why: 'overshot' }),
    );
    expect(kept.weighing('w')).toMatchObject({ replanned: ['overshot'], lines: [{ plannedG: 720, state: 'begun' }] });
  });

  test('once it is cleared nothing is there any more', () => {
    const { kept } = book(version('dark', 1), weighing('w'), weighed('w', 'nibs', 3));
    kept.clear();
    expect([kept.all(), kept.everything(), kept.openWeighings(), [...kept.weighedOut()]]).toEqual([[], [], [], []]);
  });
});

describe('roasts', () => {
  const meta = (id: string, loadId: string | null, more: Partial<CurveMeta> = {}): CurveMeta => ({
    id,
    loadId,
    name: id,
    source: 'sent',
    startedAt: START,
    readings: 10,
    channels: [
      { name: 'bean', unit: '°C' },
      { name: 'air', unit: '°C' },
    ],
    ...more,
  });
  const book = (...values: RoastRecordValue[]): RoastBook => {
    const kept = new RoastBook();
    for (const value of values) kept.add(written<RoastRecordValue>(value));
    return kept;
  };

  test('a curve is found by its load, also one that its load is named for later', () => {
    const kept = book();
    kept.addCurve(meta('c1', null));
    expect(kept.curveOf('l1')).toBeNull();
    const before = kept.curveRevision;
    kept.addCurve(meta('c1', 'l1'));
    expect(kept.curveOf('l1')?.id).toBe('c1');
    expect(kept.curveRevision).toBeGreaterThan(before);
    const same = kept.curveRevision;
    kept.addCurve(meta('c1', 'l1', { readings: 20 }));
    expect(kept.curveRevision).toBe(same);
    expect(kept.curveOf('l1')?.readings).toBe(20);
  });

  test('a curve that goes takes its load’s with it, but not one that took its place', () => {
    const kept = book();
    kept.addCurve(meta('old', 'l1'));
    kept.addCurve(meta('new', 'l1'));
    kept.removeCurve('old');
    expect(kept.curveOf('l1')?.id).toBe('new');
    kept.removeCurve('new');
    expect(kept.curveOf('l1')).toBeNull();
    expect(kept.curves.size).toBe(0);
  });

  test('curves that read the same channels share the list; others keep their own', () => {
    const kept = book();
    kept.addCurve(meta('a', 'l1'));
    kept.addCurve(meta('b', 'l2'));
    kept.addCurve(meta('c', 'l3', { channels: [{ name: 'bean', unit: '°C' }] }));
    const channelsOf = (load: string) => kept.curveOf(load)?.channels;
    expect(channelsOf('l2')).toBe(channelsOf('l1'));
    expect(channelsOf('l3')).toEqual([{ name: 'bean', unit: '°C' }]);
    expect(channelsOf('l1')).toHaveLength(2);
  });

  test('scores and words of a load stand in their order; records are let go of, curves stay', () => {
    const kept = book(
      { kind: 'word', loadId: 'l1', word: 'smoky' },
      { kind: 'word', loadId: 'l2', word: 'bread' },
      { kind: 'word', loadId: 'l1', word: 'brownie' },
    );
    kept.addCurve(meta('a', 'l1'));
    expect(kept.wordsOf('l1').map(({ value }) => value.word)).toEqual(['smoky', 'brownie']);
    expect(kept.scoresOf('l1')).toEqual([]);
    kept.clear();
    expect(kept.wordsOf('l1')).toEqual([]);
    expect(kept.everything()).toEqual([]);
    expect(kept.curveOf('l1')?.id).toBe('a');
    kept.clearCurves();
    expect(kept.curveOf('l1')).toBeNull();
  });

  test('what was never written down is refused', () => {
    const kept = book();
    expect(refusal(() => kept.program('none'))).toBe('http/not-found');
    expect(refusal(() => kept.trial('none'))).toBe('http/not-found');
    expect(kept.hasProgram('none')).toBe(false);
  });
});
