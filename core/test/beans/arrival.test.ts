import { NO_BEANS, type Tally } from '../../src/beans/cut-test';
import { judgeCounts, judgeMoisture } from '../../src/beans/readings';
import { beanRecord, contractLimits, inspection, type Inspection } from '../../src/beans/records';
import { checkCount, netOf, sackStock } from '../../src/beans/sacks';
import { claimSheet } from '../../src/beans/claim';
import { judgeRoom } from '../../src/beans/room';
import { judgeArrival } from '../../src/beans/verdict';
import { dewPointC } from '../../src/units/humidity';

const limits = contractLimits.parse({});
const clean: Tally = { ...NO_BEANS, brown: 270, partly: 27, slaty: 2, flat: 1 };
const found = (rest: Partial<Inspection> = {}): Inspection =>
  inspection.parse({
    kind: 'inspection',
    smells: ['clean cocoa', 'fruity'],
    moisturePct: [6.9, 7.1, 7.0],
    per100g: [92, 95, 94],
    signs: {},
    cut: { planned: 300, beyond: false, tally: clean },
    ...rest,
  });
const sack = (no: number, grossG: number, tareG = 600) => ({ no, grossG, tareG, place: 'A1' });

describe('sacks against the invoice', () => {
  const twelve = Array.from({ length: 12 }, (_, i) => sack(i + 1, 62_600));

  it('adds up net weights and finds the short weight beyond what is let pass', () => {
    expect(netOf(twelve)).toBe(744_000);
    const check = checkCount(twelve, { sacks: 12, netG: 750_000 }, 0.5);
    expect(check).toMatchObject({ differenceG: -6000, shortG: 6000 });
    expect(check.differencePct).toBeCloseTo(-0.8, 9);
    expect(check.sentence).toContain('short of the invoice, more than the 0.5 % let pass');
    expect(checkCount(twelve, { sacks: 12, netG: 747_000 }, 0.5).shortG).toBe(0);
  });

  it('notices a sack too few', () => {
    expect(checkCount(twelve.slice(1), { sacks: 12, netG: null }, null).sentence).toMatch(/^1 sack missing/);
  });

  it('draws them down in order, and a named one by its name', () => {
    const rows = sackStock(
      [sack(1, 10_600), sack(2, 10_600), sack(3, 10_600)],
      17_000,
      new Map([[3, 4_000]]),
      new Map([[2, 'cold room']]),
    );
    expect(rows.map(({ leftG, state }) => [leftG, state])).toEqual([
      [1_000, 'open'],
      [10_000, 'whole'],
      [6_000, 'open'],
    ]);
    expect(rows[1]?.place).toBe('cold room');
    expect(rows.reduce((sum, { leftG }) => sum + leftG, 0)).toBe(17_000);
  });
});

describe('readings', () => {
  it('judge moisture by mean, spread and the odd one out', () => {
    expect(judgeMoisture([6.9, 7.1, 7.0])?.tone).toBe('good');
    expect(judgeMoisture([8.6, 8.9])?.tone).toBe('bad');
    expect(judgeMoisture([6.8, 7.0, 8.4])?.sentence).toContain('wet sack');
    expect(judgeMoisture([5.2, 5.3, 5.2])?.sentence).toContain('brittle');
    expect(judgeMoisture([7])?.tone).toBe('watch');
    expect(judgeMoisture([])).toBeNull();
  });

  it('put beans in the size classes of ISO 2451', () => {
    expect([100, 101, 110, 111, 120, 121].map((n) => judgeCounts([n])?.size)).toEqual([
      'standard',
      'medium',
      'medium',
      'small',
      'small',
      'very small',
    ]);
  });
});

describe('verdict on an arrival', () => {
  it('takes a clean lot in', () => {
    const verdict = judgeArrival(
      found(),
      limits,
      checkCount([sack(1, 60_600)], { sacks: 1, netG: 60_000 }, 0.5),
      60_000,
    );
    expect(verdict).toMatchObject({ action: 'take-in', reasons: [], missing: [], claimG: 0 });
    expect(verdict.good.length).toBeGreaterThanOrEqual(4);
  });

  it('holds it for larvae, whatever else is well', () => {
    const verdict = judgeArrival(
      found({ signs: { ...found().signs, webbing: true, larvae: 2 } }),
      limits,
      null,
      60_000,
    );
    expect(verdict.action).toBe('hold');
    expect(verdict.reasons[0]?.text).toContain('webbing, 2 larvae');
  });

  it('asks for an allowance where a share is surely over the contract, and says how much', () => {
    const flat = { ...NO_BEANS, brown: 270, flat: 30 };
    const verdict = judgeArrival(found({ cut: { planned: 300, beyond: false, tally: flat } }), limits, null, 100_000);
    expect(verdict.action).toBe('allowance');
    expect(verdict.claims.find(({ what }) => what.includes('flat'))?.word).toBe('over, sure');
    // 10 % found, 3 % allowed: 7 % of 100 kg.
    expect(verdict.claimG).toBe(7000);
  });

  it('does not claim what the counts do not prove', () => {
    const verdict = judgeArrival(
      found({ cut: { planned: 300, beyond: false, tally: { ...NO_BEANS, brown: 289, mouldy: 11 } } }),
      limits,
      null,
      100_000,
    );
    expect(verdict.reasons[0]).toMatchObject({ action: 'allowance', sure: false });
    expect(verdict.claimG).toBe(0);
  });

  it('refuses rot, rats and fuel', () => {
    expect(judgeArrival(found({ smells: ['fuel or chemical'] }), limits, null, 1).action).toBe('refuse');
    expect(judgeArrival(found({ signs: { ...found().signs, rodents: true } }), limits, null, 1).action).toBe('refuse');
    expect(
      judgeArrival(
        found({ cut: { planned: 300, beyond: false, tally: { ...NO_BEANS, brown: 240, mouldy: 60 } } }),
        limits,
        null,
        1,
      ).action,
    ).toBe('refuse');
    expect(judgeArrival(found({ moisturePct: [11, 11.5] }), limits, null, 1).action).toBe('refuse');
  });

  it('says what has not been looked at', () => {
    const bare = judgeArrival(inspection.parse({ kind: 'inspection', signs: {} }), limits, null, 1);
    expect(bare.missing).toEqual([
      'the smell',
      'the moisture',
      'a cut test',
      'a bean count',
      'the sacks weighed one by one',
    ]);
  });
});

describe('records refuse what cannot be', () => {
  const problem = (value: unknown): string => {
    const parsed = beanRecord.safeParse(value);
    return parsed.success
      ? 'taken'
      : parsed.error.issues.map((issue) => `${issue.path.join('.')} ${issue.message}`).join('; ');
  };
  it.each([
    ['a moisture of 70', { kind: 'inspection', signs: {}, moisturePct: [70] }, 'moisturePct.0 is wetter'],
    [
      'half a bean',
      { kind: 'inspection', signs: {}, cut: { planned: 300, beyond: false, tally: { ...NO_BEANS, brown: 0.5 } } },
      'must be whole',
    ],
    [
      'a tare over the gross',
      { kind: 'sacks', sacks: [{ no: 1, grossG: 500, tareG: 600 }] },
      'sacks.0.tareG is heavier',
    ],
    ['a sack named twice', { kind: 'sacks', sacks: [sack(1, 9000), sack(1, 9000)] }, 'names a sack twice'],
    [
      'another decision than proposed, without a word',
      { kind: 'decision', action: 'take-in', proposed: 'refuse' },
      'word says why',
    ],
    ['a place off the earth', { kind: 'papers', location: { lat: 120, lon: 0 } }, 'location.lat is −90 to 90'],
    ['more brown than cut', { kind: 'ferment', cut: 10, cutBrown: 12 }, 'cutBrown is more than were cut'],
  ])('%s', (_, value, message) => {
    expect(problem(value)).toContain(message);
  });
});

describe('the claim', () => {
  const sort = { sessions: 0, inG: 0, rejectShare: 0, flatShare: 0 };
  const facts = {
    netG: 100_000,
    perKg: 6,
    currency: 'EUR',
    massSystem: 'metric' as const,
    limits: { ...limits, flatPct: 4 },
    arrival: null,
    count: null,
    sort,
  };

  it('is nothing where nothing is over', () => {
    expect(claimSheet(facts)).toMatchObject({
      rows: [],
      items: [],
      totalG: 0,
      sentence: 'Nothing is over the contract’s limits.',
    });
  });

  it('counts beans that cut test and sorting both found once: the larger of 7 kg and 5 kg', () => {
    const flat = { ...NO_BEANS, brown: 270, flat: 30 };
    const arrival = judgeArrival(found({ cut: { planned: 300, beyond: false, tally: flat } }), limits, null, 100_000);
    const claim = claimSheet({
      ...facts,
      arrival,
      sort: { sessions: 2, inG: 40_000, rejectShare: 0.1, flatShare: 0.09 },
    });
    expect(claim.items).toEqual([
      { what: 'Beans over the limit, as the cut test found them', weight: '7.0 kg', money: '€42.00' },
    ]);
    expect(claim.sentence).toBe('7.0 kg claimed, €42.00 at the invoice price.');
  });

  it('adds short weight to it', () => {
    const count = checkCount([sack(1, 97_600)], { sacks: 1, netG: 100_000 }, 0.5);
    expect(claimSheet({ ...facts, count }).items).toEqual([
      { what: 'Short weight', weight: '3.0 kg', money: '€18.00' },
    ]);
  });

  it('is not made where the counts do not prove it', () => {
    const arrival = judgeArrival(
      found({ cut: { planned: 300, beyond: false, tally: { ...NO_BEANS, brown: 289, mouldy: 11 } } }),
      limits,
      null,
      100_000,
    );
    expect(claimSheet({ ...facts, arrival })).toMatchObject({
      totalG: 0,
      sentence: 'Over a limit by the counts, but not surely: cut more beans before you claim.',
    });
  });
});

describe('the air of the bean store', () => {
  it('has the dew point of the tables: 20 °C at 50 % is 9.3 °C', () => {
    expect(dewPointC(20, 50)).toBeCloseTo(9.26, 1);
    expect(dewPointC(15, 100)).toBeCloseTo(15, 9);
  });

  it.each([
    [18, 55, 'good', 'beans keep'],
    [18, 72, 'watch', 'take up water'],
    [29, 50, 'watch', 'moth to breed'],
    [18, 30, 'watch', 'brittle'],
  ])('%f °C at %f %%', (tempC, humidity, tone, word) => {
    const verdict = judgeRoom(tempC, humidity);
    expect(verdict.tone).toBe(tone);
    expect(verdict.sentence).toContain(word);
  });
});
