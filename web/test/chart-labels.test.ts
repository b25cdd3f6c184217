import { endLabels, stretchLabels } from '../src/charts/labels';

const line = (name: string, ...points: [x: number, y: number | null][]) => ({
  name,
  points: points.map(([x, y]) => ({ x, y })),
});

describe('names at the ends of lines', () => {
  test('stand at the last point that was read, the highest first', () => {
    const labels = endLabels([line('low', [0, 20], [10, 100], [12, null]), line('high', [0, 20], [10, 150])], 1);
    expect(labels.map(({ name, y }) => [name, y])).toEqual([
      ['high', 150],
      ['low', 100],
    ]);
    expect(labels.map(({ offsetY }) => offsetY)).toEqual([0, 0]);
  });

  test('are moved apart where ends lie close, down the page only', () => {
    const labels = endLabels([line('a', [10, 120]), line('b', [10, 119]), line('c', [10, 118])], 0.5);
    // A degree is two pixels; names need fifteen each.
    expect(labels.map(({ offsetY }) => offsetY)).toEqual([0, 13, 26]);
  });

  test('of lines that end almost together stand under one another, of shorter ones at their own end', () => {
    const labels = endLabels([line('whole', [30, 120]), line('nearly', [28, 118]), line('half', [15, 90])], 1);
    expect(Object.fromEntries(labels.map(({ name, x }) => [name, x]))).toEqual({ whole: 30, nearly: 30, half: 15 });
  });

  test('a line without a name or without a reading has none', () => {
    expect(endLabels([line('', [1, 2]), line('silent', [1, null]), line('empty')], 1)).toEqual([]);
  });
});

describe('words at the beginnings of stretches', () => {
  const gaps = (...from: number[]) => from.map((x) => ({ from: x, word: 'not read' }));

  test('the same word is not said twice in one place; further on it is, and on a narrow axis less soon', () => {
    expect(stretchLabels(gaps(5, 6, 7, 60), 1 / 7).map(({ word }) => word)).toEqual(['not read', '', '', 'not read']);
    expect(stretchLabels(gaps(5, 30, 60), 1 / 2).map(({ word }) => word)).toEqual(['not read', '', 'not read']);
  });

  test('another word that would run into it stands a line lower, whichever was found first', () => {
    const labels = stretchLabels([{ from: 12, word: 'stood still' }, ...gaps(10)], 1 / 7);
    expect(labels).toEqual([
      { word: 'stood still', line: 1 },
      { word: 'not read', line: 0 },
    ]);
  });

  test('a line is used again where it is free', () => {
    const labels = stretchLabels([...gaps(10), { from: 12, word: 'jumped' }, { from: 40, word: 'jumped' }], 1 / 7);
    expect(labels.map(({ line }) => line)).toEqual([0, 1, 0]);
  });
});
