import fc from 'fast-check';
import { normals, seeded } from '../src/stats/chance';
import { judgeHistory } from '../src/taste/history';
import { FALSE_RATE, judgeMatters, pulled, survivors, type MattersRow } from '../src/taste/matters';
import { comesUp, FIRST_WORDS, Vocabulary, type WordAct } from '../src/taste/vocabulary';

const NAMES = { peakC: 'Roast', micron: 'Fineness', restDays: 'Rest', grindH: 'Hours', shellPct: 'Shell' };

/** Batches with facts by chance, and scores that follow some of them. */
function book(
  seed: number,
  batches: number,
  effects: Partial<Record<keyof typeof NAMES, number>>,
  gaps = 0,
): MattersRow[] {
  const chance = seeded(seed);
  const normal = normals(chance);
  return Array.from({ length: batches }, (_, i) => {
    const z = { peakC: normal(), micron: normal(), restDays: normal(), grindH: normal(), shellPct: normal() };
    const facts = Object.fromEntries(
      Object.entries(z).map(([key, value]) => [key, chance() < gaps ? null : 20 + 3 * value]),
    );
    const score = Object.entries(effects).reduce(
      (sum, [key, effect]) => sum + effect * z[key as keyof typeof z],
      6 + 0.5 * normal(),
    );
    return { code: `B${i}`, score, facts };
  });
}

describe('what matters', () => {
  test.each([
    ['held against each other', 24, 0],
    ['one by one', 9, 0],
    ['with gaps', 30, 0.15],
  ])('a book of nothing shows something as often as is said, at the most: %s', (_, batches, gaps) => {
    let wrong = 0;
    for (let seed = 1; seed <= 600; seed += 1)
      if (judgeMatters(book(seed, batches, {}, gaps), NAMES).facts.some(({ says }) => says === 'found')) wrong += 1;
    // Two standard errors of 600 books.
    expect(wrong / 600).toBeLessThanOrEqual(FALSE_RATE + 0.025);
    expect(wrong / 600).toBeGreaterThan(0.04);
  });

  test('what is there is found, with its side; the rest is not told apart from nothing', () => {
    const verdict = judgeMatters(book(4, 40, { micron: -0.6, restDays: 0.5 }), NAMES);
    const of = (fact: string) => verdict.facts.find((row) => row.fact === fact);
    expect(verdict.together).toBe(true);
    expect(of('micron')?.says).toBe('found');
    expect(of('micron')?.effect).toBeLessThan(-0.3);
    expect(of('restDays')?.effect).toBeGreaterThan(0.25);
    expect(of('shellPct')?.says).not.toBe('found');
    expect(verdict.sentence).toMatch(/^Goes with the score: /);
    expect(verdict.caveat).toMatch(/^One such table in 10 .* need not be the cause/);
    expect(of('micron')?.partial).toHaveLength(40);
  });

  test('a fact that goes along with another one is not taken for it', () => {
    const normal = normals(seeded(6));
    const rows = Array.from({ length: 60 }, (_, i): MattersRow => {
      const roast = normal();
      return {
        code: `B${i}`,
        score: 6 + 0.8 * roast + 0.3 * normal(),
        facts: { peakC: 120 + 3 * roast, micron: 20 + roast + 0.7 * normal(), restDays: 20 + normal() },
      };
    });
    const { facts } = judgeMatters(rows, { peakC: 'Roast', micron: 'Fineness', restDays: 'Rest' });
    expect(facts[0]).toMatchObject({ fact: 'peakC', says: 'found' });
    expect(Math.abs(facts.find(({ fact }) => fact === 'micron')?.effect ?? 9)).toBeLessThan(0.25);
  });

  test('too few, never logged and always the same are said, not guessed', () => {
    const few = judgeMatters(book(1, 5, { micron: -2 }), NAMES);
    expect(few.facts.every(({ says }) => says === 'unknown')).toBe(true);
    const rows = book(2, 20, {}).map((row) => ({ ...row, facts: { ...row.facts, restDays: 14, shellPct: null } }));
    const { facts } = judgeMatters(rows, NAMES);
    expect(facts.find(({ fact }) => fact === 'restDays')?.why).toMatch(/the same in all/);
    expect(facts.find(({ fact }) => fact === 'shellPct')?.why).toMatch(/Logged for 0 of 20/);
  });

  test('pulling is the closed form of a normal about none', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.01, max: 5, noNaN: true }),
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        (estimate, error, prior) => {
          const { mean, sd } = pulled(estimate, error, prior);
          const precision = 1 / prior ** 2 + 1 / error ** 2;
          expect(mean).toBeCloseTo(estimate / error ** 2 / precision, 9);
          expect(sd).toBeCloseTo(Math.sqrt(1 / precision), 9);
        },
      ),
    );
  });

  test('the step-up of Benjamini and Hochberg on their own example', () => {
    // J. R. Stat. Soc. B 57 (1995), p. 295: fifteen hypotheses at 0.05, the four smallest fall.
    const ps = [
      0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.324, 0.4262, 0.5719, 0.6528, 0.759, 1,
    ];
    expect(survivors(ps, 0.05).filter(Boolean)).toHaveLength(4);
    expect(survivors([], 0.1)).toEqual([]);
  });
});

describe('last year’s bar', () => {
  const batch = (i: number, score: number, micron: number) => ({
    code: `B${i}`,
    at: i,
    score,
    facts: { micron, peakC: 120 + (i % 3) },
  });
  const usual = [7, 7.2, 6.9, 7.1, 7, 6.8, 7.1].map((score, i) => batch(i, score, 18 + (i % 2)));

  test('as always, and said so; fewer than five have no band', () => {
    expect(judgeHistory(usual.slice(0, 4), NAMES)).toBeNull();
    expect(judgeHistory(usual, NAMES)?.sentence).toMatch(/^As always: 7 batches between 6.8 and 7.2/);
  });

  test('one outside is named with what differed in its making', () => {
    const verdict = judgeHistory([...usual, batch(8, 4.5, 34)], NAMES);
    expect(verdict?.outside).toHaveLength(1);
    expect(verdict?.outside[0]?.differed[0]).toMatchObject({ fact: 'micron', value: 34 });
    expect(verdict?.sentence).toContain('B8 (4.5): Fineness was 34');
  });
});

describe('own words', () => {
  test('begin small and plain; what is said joins them', () => {
    const vocabulary = new Vocabulary([{ kind: 'word', word: 'grandma’s attic' }]);
    const words = vocabulary.words(['honey', 'honey', 'wet slate']);
    expect(words[0]).toEqual({ word: 'honey', near: [], uses: 2 });
    expect(words.map(({ word }) => word)).toEqual(
      expect.arrayContaining(['grandma’s attic', 'wet slate', ...FIRST_WORDS]),
    );
  });

  test('joins in any order keep every saying, and never go round in a ring', () => {
    const word = fc.constantFrom('a', 'b', 'c', 'd', 'e');
    const act: fc.Arbitrary<WordAct> = fc.oneof(
      fc.record({ kind: fc.constant('join' as const), word, into: word }).filter((row) => row.word !== row.into),
      fc.record({ kind: fc.constant('part' as const), word }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), fc.array(word, { maxLength: 40 }), (acts, said) => {
        const vocabulary = new Vocabulary(acts);
        const words = vocabulary.words(said);
        expect(words.reduce((sum, { uses }) => sum + uses, 0)).toBe(said.length);
        for (const row of words) expect(vocabulary.meaning(row.word)).toBe(row.word);
      }),
    );
  });

  test('what comes up here and not elsewhere is its own', () => {
    const rows = [
      ...Array.from({ length: 12 }, (_, i) => ({ words: i < 9 ? ['cherry', 'cocoa'] : ['cocoa'], groups: ['Hill'] })),
      ...Array.from({ length: 20 }, (_, i) => ({
        words: i < 2 ? ['sour cherry', 'cocoa'] : ['cocoa'],
        groups: ['Delta'],
      })),
    ];
    const up = comesUp(rows, 'Hill', new Vocabulary([{ kind: 'join', word: 'sour cherry', into: 'cherry' }]));
    expect(up.find(({ word }) => word === 'cherry')).toMatchObject({ here: 9, of: 12, elsewhere: 0.1, own: true });
    expect(up.find(({ word }) => word === 'cocoa')?.own).toBe(false);
  });
});
