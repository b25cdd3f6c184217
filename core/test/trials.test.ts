import { normals, seeded } from '../src/stats/chance';
import { fewestArms, fullDesign, inChanceOrder, ladderDesign, regressorsOf, smallDesign } from '../src/trials/design';
import { judgeArms, nearestArm } from '../src/trials/judge';
import { trialPlan, type TrialPlan } from '../src/trials/records';

const HOURS: TrialPlan['factors'] = [{ factor: 'grindH', levels: [24, 36, 48, 60] }];
const THREE: TrialPlan['factors'] = [
  { factor: 'peakC', levels: [116, 120, 124] },
  { factor: 'grindH', levels: [30, 48] },
  { factor: 'restDays', levels: [7, 21] },
];
const WORDS = { arm: (i: number) => `arm ${i + 1}`, one: 'batch', many: 'batches' };

describe('plans', () => {
  test('full, ladder and small', () => {
    expect(fullDesign(THREE)).toHaveLength(12);
    expect(ladderDesign(HOURS)).toEqual([[24], [36], [48], [60]]);
    expect(ladderDesign(THREE)).toEqual([
      [116, 30, 7],
      [120, 30, 7],
      [124, 30, 7],
    ]);
    expect(fewestArms(THREE)).toBe(5);
    const small = smallDesign(THREE, 6);
    expect(small).toHaveLength(6);
    // Every level is made, and every factor can be told.
    THREE.forEach(({ levels }, f) => expect(new Set(small.map((arm) => arm[f]))).toEqual(new Set(levels)));
    expect(() => smallDesign(THREE, 4)).toThrow(/it takes 5/);
    expect(smallDesign(THREE, 40)).toHaveLength(12);
  });

  test('a half of two to the third is as good as the textbook half', () => {
    const two: TrialPlan['factors'] = [
      { factor: 'peakC', levels: [1, 2] },
      { factor: 'grindH', levels: [1, 2] },
      { factor: 'restDays', levels: [1, 2] },
    ];
    const half = smallDesign(two, 4).map((arm) => arm.map((level) => 2 * Number(level) - 3));
    // Columns are orthogonal: each factor’s own effect is told without the others.
    for (let a = 0; a < 3; a += 1)
      for (let b = a + 1; b < 3; b += 1)
        expect(half.reduce((sum, arm) => sum + (arm[a] ?? 0) * (arm[b] ?? 0), 0)).toBe(0);
  });

  test('the order of making is one by chance, and loses none', () => {
    const arms = fullDesign(THREE);
    const mixed = inChanceOrder(arms, seeded(2));
    expect(mixed).not.toEqual(arms);
    expect(new Set(mixed.map(String))).toEqual(new Set(arms.map(String)));
  });

  test('kinds are steps about their middle; figures run from −1 to 1', () => {
    const { row } = regressorsOf([
      { factor: 'beans', levels: ['a', 'b'] },
      { factor: 'micron', levels: [14, 18, 22] },
    ]);
    expect(row(['a', 14])).toEqual([1, 0.5, -0.5, -1, 1]);
    expect(row(['b', 18])).toEqual([1, -0.5, 0.5, 0, 0]);
  });

  test.each([
    [
      'two of one thing',
      {
        factors: [HOURS[0], HOURS[0]],
        arms: [
          [24, 24],
          [36, 36],
        ],
      },
    ],
    [
      'arms that do not fit',
      {
        factors: HOURS,
        arms: [
          [24, 1],
          [36, 2],
        ],
      },
    ],
    ['words for a figure', { factors: [{ factor: 'grindH', levels: ['long', 'short'] }], arms: [['long'], ['short']] }],
    ['a level twice', { factors: [{ factor: 'grindH', levels: [24, 24] }], arms: [[24], [24]] }],
  ])('refused: %s', (_, bad) => {
    expect(trialPlan.safeParse({ name: 'x', design: 'full', ...bad }).success).toBe(false);
  });
});

describe('what was really made', () => {
  const plan = { factors: THREE, arms: fullDesign(THREE) };
  test('is its own arm where it is nearest to it, or nothing was logged', () => {
    expect(nearestArm(plan, 3, [null, null, null])).toBe(3);
    expect(nearestArm({ factors: HOURS, arms: [[24], [36], [48]] }, 1, [37.5])).toBe(1);
  });
  test('is another one where it came nearer to that', () => {
    expect(nearestArm({ factors: HOURS, arms: [[24], [36], [48]] }, 0, [50])).toBe(2);
    expect(plan.arms[nearestArm(plan, 0, [123.4, 47, 8])]).toEqual([124, 48, 7]);
  });
});

describe('what the facts say so far', () => {
  test('made effects are found, and then nothing more is asked for', () => {
    const normal = normals(seeded(4));
    const verdict = judgeArms(
      HOURS,
      [5, 6, 8, 6.4].map((mean, i) => ({
        levels: [24 + 12 * i],
        made: Array.from({ length: 6 }, () => ({ score: mean + 0.3 * normal(), tasters: 6 })),
      })),
      WORDS,
    );
    expect(verdict.sentence).toMatch(/^Arm 3 is likely the best/);
    expect(verdict.arms[2]?.chanceBest).toBeGreaterThan(0.8);
  });

  test('bean samples are compared as kinds', () => {
    const factors: TrialPlan['factors'] = [{ factor: 'beans', levels: ['x', 'y', 'z'] }];
    const verdict = judgeArms(
      factors,
      [
        { levels: ['x'], made: [{ score: 5, tasters: 6 }] },
        {
          levels: ['y'],
          made: [
            { score: 7.5, tasters: 6 },
            { score: 7.2, tasters: 5 },
          ],
        },
        { levels: ['z'], made: [] },
      ],
      WORDS,
    );
    expect(verdict.arms[1]?.expected.mean).toBeGreaterThan((verdict.arms[0]?.expected.mean ?? 9) + 0.8);
    expect(verdict.next?.arm).not.toBe(0);
  });

  test('eight in ten intervals hold eight in ten truths', () => {
    const normal = normals(seeded(12));
    let [inside, of] = [0, 0];
    for (let trial = 0; trial < 80; trial += 1) {
      const [base, slope, bend] = [6 + normal(), 0.8 * normal(), 0.4 * normal()];
      const truth = [-1, -1 / 3, 1 / 3, 1].map((x) => base + slope * x + bend * x * x);
      const verdict = judgeArms(
        HOURS,
        truth.map((mean, i) => ({
          levels: [24 + 12 * i],
          made: i === 3 ? [] : [{ score: mean + Math.hypot(0.5, 1 / Math.sqrt(3)) * normal(), tasters: 3 }],
        })),
        WORDS,
        trial + 1,
      );
      verdict.arms.forEach(({ expected }, i) => {
        of += 1;
        if (expected.low <= (truth[i] ?? 0) && (truth[i] ?? 0) <= expected.high) inside += 1;
      });
    }
    expect(inside / of).toBeGreaterThan(0.72);
    expect(inside / of).toBeLessThan(0.9);
  });
});
