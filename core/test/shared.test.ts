import fc from 'fast-check';
import { seeded } from '../src/stats/chance';
import type { Book } from '../src/ledger/book';
import type { Command } from '../src/commands';
import type { Step } from '../src/ledger/types';
import { recallOf } from '../src/trace/recall';
import { THINGS } from '../src/stations';
import { sharedBy } from '../src/trace/shared';
import { Bench } from './fixtures';
import { deed, played } from './lives';

const DAY = 86_400_000;
const options = {
  things: THINGS,
  dayOf: (at: number): string => String(Math.floor(at / DAY)),
  dayRange: (day: string) => [Number(day) * DAY, (Number(day) + 1) * DAY] as const,
};

/** A year of a workshop: lots that last, loads in twos and threes, bags of sugar, rolls of wrapper, four pairs of hands. */
function year(seed: number): Book {
  const chance = seeded(seed);
  const bench = new Bench();
  const pick = (from: readonly string[]): string => from[Math.floor(chance() * from.length)] ?? '';
  const act = (command: Record<string, unknown>, machine: string | null = null): Step => {
    const step = bench.do({ note: '', ...command } as unknown as Command);
    return Object.assign(step, { machineId: machine, personId: pick(['ann', 'bo', 'cleo', 'dov']) });
  };
  const good = (step: Step): string => step.slots['good'] ?? '';
  const lots = ['', '', '', ''];
  let [sugar, wrapper] = ['', ''];
  for (let n = 0; n < 140; n += 1) {
    // Four origins in turn, each lot for some fifteen bowls.
    const origin = n % 4;
    if (n < 4 || (n + 11 * origin) % 60 < 4)
      lots[origin] = good(
        act({
          kind: 'receive',
          name: `Lot ${n}`,
          routeId: 'whole-bean',
          form: 'beans',
          sacks: 40,
          netG: 400_000,
          currency: 'EUR',
          producer: '',
          country: '',
          region: '',
          variety: '',
          harvest: '',
          pricePerKg: 5,
          freight: 0,
          rate: 1,
          moisturePct: 7,
        }),
      );
    if (n % 9 === 0)
      sugar = good(
        act({ kind: 'buy', materialId: 'sugar', supplier: 'S', supplierBatch: '', massG: 60_000, price: 50 }),
      );
    if (n % 13 === 0)
      wrapper = good(
        act({ kind: 'buy', materialId: 'wrapper', supplier: 'W', supplierBatch: '', pieces: 4000, price: 50 }),
      );
    const nibs: { holdingId: string; massG: number }[] = [];
    const sacks = [1 + (n % 14), 20 + (n % 14)];
    const sorted = good(
      act({
        kind: 'sort',
        sources: [{ holdingId: lots[origin] ?? '', massG: 20_000 }],
        rejects: [],
        goodG: 19_000,
        sacks,
      }),
    );
    for (let load = 0; load < 2; load += 1) {
      const oven = pick(['oven', 'drum']);
      const roast = good(
        act(
          { kind: 'roast', sources: [{ holdingId: sorted, massG: 9000 }], program: [], endBeanC: null, outG: 8500 },
          oven,
        ),
      );
      const step = act(
        {
          kind: 'winnow',
          sources: [{ holdingId: roast, massG: 8500 }],
          nibsG: 7000,
          huskG: 1400,
          dustG: 0,
          setting: '',
        },
        'winnower',
      );
      nibs.push({ holdingId: good(step), massG: 7000 });
    }
    const stones = pick(['stones one', 'stones two']);
    const charge = act(
      {
        kind: 'charge',
        batch: { name: `Bar ${n}`, routeId: 'whole-bean' },
        sources: [...nibs, { holdingId: sugar, massG: 6000 }],
      },
      stones,
    );
    const bowl = charge.batchId ?? '';
    const tub = good(act({ kind: 'discharge', batchId: bowl, outsG: [19_900], holdUpG: 100, micron: null }, stones));
    // Most bowls are poured in two goes.
    for (const massG of chance() < 0.7 ? [10_000, 9900] : [19_900]) {
      const pour = good(
        act(
          {
            kind: 'temper',
            sources: [{ holdingId: tub, massG }],
            method: 'bath',
            meltC: 46,
            coolC: 27,
            workC: 31,
            test: 'set',
          },
          pick(['machine', 'kettle']),
        ),
      );
      const goodPieces = Math.floor(massG / 70) - 2;
      const bars = good(
        act({
          kind: 'mould',
          sources: [{ holdingId: pour, massG }],
          barG: 70,
          cavities: 24,
          goodPieces,
          secondsPieces: 0,
          remeltG: 0,
          trimmingsG: 0,
          holdUpG: 100,
        }),
      );
      act({
        kind: 'pack',
        holdingId: bars,
        pieces: goodPieces,
        labelCode: `X-${n}-${massG}`,
        bestBefore: '2028-01-01',
        packaging: [{ holdingId: wrapper, pieces: goodPieces }],
      });
    }
  }
  return bench.book;
}

describe('what complaints share', () => {
  const book = year(5);
  const packs = [...book.holdings.values()].filter(({ kind }) => kind === 'packed').map(({ id }) => id);
  const piecesOf = (id: string): number => book.balance(id).pieces;

  /** Packs that have a thing, found by walking the book by hand, step by step. */
  function having(kind: string, id: string): string[] {
    const isOf = (step: Step): boolean => {
      const made = step.slots['good'];
      const uses = (holding: string): boolean =>
        step.postings.some((p) => p.holdingId === holding && (p.massMg < 0 || p.pieces < 0));
      switch (kind) {
        case 'lot':
        case 'ingredient':
        case 'packaging':
          return uses(id);
        case 'load':
          return step.kind === 'roast' && made === id;
        case 'fill':
          return step.kind === 'charge' && step.batchId === id;
        case 'pour':
          return step.id === id;
        case 'machine':
          return step.machineId === id;
        case 'day':
          return (
            step.kind !== 'receive' &&
            step.kind !== 'buy' &&
            step.postings.length > 0 &&
            id === `${step.station} ${options.dayOf(step.at)}`
          );
        default:
          return false;
      }
    };
    const reached = new Set<string>();
    for (const step of book.timeline) {
      const from = step.postings.some(
        (p) => p.holdingId !== null && (p.massMg < 0 || p.pieces < 0) && reached.has(p.holdingId),
      );
      if (!from && !isOf(step)) continue;
      for (const p of step.postings)
        if (p.holdingId !== null && (p.massMg > 0 || p.pieces > 0)) reached.add(p.holdingId);
    }
    return packs.filter((pack) => reached.has(pack));
  }

  test('in 200 made incidents the true cause stands first in 95 of 100', () => {
    const chance = seeded(77);
    const things: [string, string][] = [
      ...[...book.holdings.values()].flatMap(({ id, kind }): [string, string][] =>
        kind === 'lot'
          ? [['lot', id]]
          : kind === 'ingredient'
            ? [['ingredient', id]]
            : kind === 'packaging'
              ? [['packaging', id]]
              : kind === 'roasted'
                ? [['load', id]]
                : [],
      ),
      ...[...book.timeline].flatMap((step): [string, string][] =>
        step.kind === 'temper' ? [['pour', step.id]] : step.kind === 'charge' ? [['fill', step.batchId ?? '']] : [],
      ),
    ];
    // As often a whole lot or bag as one load or pour.
    const kinds = ['lot', 'ingredient', 'packaging', 'load', 'fill', 'pour'] as const;
    let first = 0;
    for (let n = 0; n < 200; n += 1) {
      const kind = kinds[n % kinds.length] ?? 'lot';
      const own = things.filter(([word]) => word === kind);
      const [, id = ''] = own[Math.floor(chance() * own.length)] ?? [];
      const hit = having(kind, id);
      const all = hit.reduce((sum, pack) => sum + piecesOf(pack), 0);
      // Each complaint is of a bar among all that have it; once in ten of any bar.
      const complaints: string[] = [];
      for (let c = 0; c < 6; c += 1) {
        const among = chance() < 0.07 ? packs : hit;
        let at = chance() * (among === hit ? all : packs.reduce((sum, pack) => sum + piecesOf(pack), 0));
        complaints.push(among.find((pack) => (at -= piecesOf(pack)) <= 0) ?? hit[0] ?? '');
      }
      const [top] = sharedBy(book, complaints, options);
      if (top?.things.some((thing) => thing.kind === kind && thing.id === id)) first += 1;
    }
    expect(first / 200).toBeGreaterThanOrEqual(0.95);
  });

  test('who has it is what a walk by hand finds', () => {
    const subjects = packs.slice(40, 42);
    for (const group of sharedBy(book, subjects, options))
      for (const { kind, id } of group.things) {
        if (!['lot', 'ingredient', 'packaging', 'load', 'fill', 'pour', 'machine', 'day'].includes(kind)) continue;
        const pieces = having(kind, id).reduce((sum, pack) => sum + piecesOf(pack), 0);
        expect([kind, group.pieces]).toEqual([kind, pieces]);
      }
  });

  test('one bar alone shares everything that lies behind it; none shares nothing', () => {
    const [first = ''] = packs;
    const found = sharedBy(book, [first], options);
    expect(found[0]?.pieces).toBe(piecesOf(first));
    expect(new Set(found.flatMap(({ things }) => things.map(({ kind }) => kind)))).toEqual(
      new Set([
        'lot',
        'sack',
        'load',
        'fill',
        'pour',
        'moulding',
        'packing',
        'ingredient',
        'packaging',
        'machine',
        'person',
        'day',
      ]),
    );
    expect(sharedBy(book, [], options)).toEqual([]);
  });
});

test('a recall reaches what a brute walk reaches, and finds every gram again', () => {
  let checked = 0;
  fc.assert(
    fc.property(fc.array(deed, { minLength: 30, maxLength: 90 }), (deeds) => {
      const { book } = played(deeds);
      for (const lot of [...book.holdings.values()].filter(({ kind }) => kind === 'lot')) {
        const found = recallOf(book, [lot.id]);
        const reached = new Set([lot.id]);
        for (const step of book.timeline) {
          if (!step.postings.some((p) => p.holdingId !== null && p.massMg < 0 && reached.has(p.holdingId))) continue;
          for (const p of step.postings) if (p.holdingId !== null && p.massMg > 0) reached.add(p.holdingId);
        }
        expect(new Set(found.affected)).toEqual(reached);
        expect(found.foundShare).toBeGreaterThan(0.98);
        checked += 1;
      }
    }),
    { numRuns: 120, seed: 8 },
  );
  expect(checked).toBeGreaterThan(100);
});
