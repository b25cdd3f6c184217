import fc from 'fast-check';
import { Valuation } from '../src/ledger/valuation';
import type { CommandOf } from '../src/ledger/commands';
import type { HoldingKind } from '../src/ledger/types';
import { Bench } from './fixtures';

/** Some deed at some station on whatever is there; refusals are part of the game. */
interface Deed {
  what:
    | 'lot'
    | 'sugar'
    | 'sort'
    | 'roast'
    | 'winnow'
    | 'charge'
    | 'add'
    | 'pour'
    | 'temper'
    | 'mould'
    | 'remelt'
    | 'sellHusk'
    | 'sellBars'
    | 'count'
    | 'correct';
  share: number;
  yield: number;
  pick: number;
}

const deed: fc.Arbitrary<Deed> = fc.record({
  what: fc.constantFrom(
    'lot',
    'sugar',
    'sort',
    'sort',
    'roast',
    'roast',
    'winnow',
    'winnow',
    'charge',
    'add',
    'pour',
    'temper',
    'mould',
    'mould',
    'remelt',
    'sellHusk',
    'sellBars',
    'count',
    'correct',
    'correct',
  ),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
  yield: fc.double({ min: 0.5, max: 1, noNaN: true }),
  pick: fc.nat(1000),
});

class Player {
  readonly bench = new Bench();

  private some(kinds: HoldingKind[], pick: number): { id: string; g: number; pieces: number } | null {
    const list = [...this.bench.book.live]
      .map((id) => this.bench.book.holding(id))
      .filter(({ kind }) => kinds.includes(kind));
    const holding = list[pick % Math.max(1, list.length)];
    if (!holding) return null;
    const { massMg, pieces } = this.bench.book.balance(holding.id);
    return { id: holding.id, g: massMg / 1000, pieces };
  }

  play({ what, share, yield: kept, pick }: Deed): void {
    const { bench } = this;
    const note = '';
    if (what === 'lot') return void bench.lot(Math.round(20_000 * share), 3 + (pick % 7), pick % 50, `P${pick % 3}`);
    if (what === 'sugar') return void bench.buy('sugar', Math.round(9_000 * share), pick % 30);
    if (what === 'correct') return this.correct(kept, pick);
    const kinds: Record<string, HoldingKind[]> = {
      sort: ['lot'],
      roast: ['beans', 'lot'],
      winnow: ['roasted'],
      charge: ['nibs'],
      add: ['ingredient'],
      pour: ['mass'],
      temper: ['block', 'remelt', 'mass'],
      mould: ['tempered'],
      remelt: ['bars', 'seconds'],
      sellHusk: ['husk'],
      sellBars: ['bars', 'seconds'],
      count: ['beans', 'nibs', 'bars', 'ingredient'],
    };
    const from = this.some(kinds[what] ?? [], pick);
    if (!from || from.g < 1) return;
    const massG = Math.round(from.g * share * 1000) / 1000;
    const outG = Math.max(0.001, Math.round(massG * kept * 1000) / 1000);
    const sources = [{ holdingId: from.id, massG }];
    const bowl = [...bench.batches.keys()].find((id) => bench.book.live.has(id));
    const pieces = Math.max(1, Math.floor(from.pieces * share));
    if (what === 'sort')
      bench.do(
        {
          kind: 'sort',
          sources,
          rejects: [{ reason: 'flat', massG: Math.max(0, Math.min(massG - outG, 10)) }],
          goodG: outG,
          note,
        },
        { minutes: pick % 60 },
      );
    if (what === 'roast')
      bench.do({ kind: 'roast', sources, program: [], endBeanC: null, outG, note }, { minutes: pick % 20 });
    if (what === 'winnow')
      bench.do({
        kind: 'winnow',
        sources,
        nibsG: outG,
        huskG: Math.round((massG - outG) * 500) / 1000,
        dustG: 0,
        setting: '',
        note,
      });
    if (what === 'charge')
      bench.do({
        kind: 'charge',
        batch: { name: 'b', routeId: 'whole-bean', targetMicron: 20, cocoaTargetPct: null },
        sources,
        note,
      });
    if (what === 'add' && bowl !== undefined) bench.do({ kind: 'charge', batchId: bowl, sources, note });
    if (what === 'pour' && bowl !== undefined)
      bench.do({
        kind: 'discharge',
        batchId: bowl,
        outsG: [Math.max(0.001, Math.round(bench.book.balance(bowl).massMg * kept) / 1000)],
        holdUpG: 0,
        micron: null,
        note,
      });
    if (what === 'temper' && from.id !== bowl)
      bench.do({ kind: 'temper', sources, method: 'seed', meltC: 46, coolC: 27, workC: 31, test: 'set', note });
    if (what === 'mould')
      bench.do({
        kind: 'mould',
        sources,
        barG: 50,
        cavities: 10,
        goodPieces: Math.floor(outG / 60),
        secondsPieces: pick % 3,
        remeltG: 1,
        trimmingsG: 0,
        holdUpG: 0,
        note,
      });
    if (what === 'remelt') bench.do({ kind: 'remelt', sources: [{ holdingId: from.id, pieces }], why: '', note });
    if (what === 'sellHusk') bench.do({ kind: 'sell', sources, takings: pick % 9, to: '', note });
    if (what === 'sellBars')
      bench.do({ kind: 'sell', sources: [{ holdingId: from.id, pieces }], takings: pick, to: '', note });
    if (what === 'count')
      bench.do(
        from.pieces > 0
          ? { kind: 'adjust', holdingId: from.id, countedPieces: pieces, cause: 'sample', note }
          : { kind: 'adjust', holdingId: from.id, countedG: outG, cause: 'unaccounted', note },
      );
  }

  /** Corrects some earlier sorting or roast to another weight. */
  private correct(kept: number, pick: number): void {
    const steps = this.bench.book.timeline.filter(({ kind }) => kind === 'roast' || kind === 'sort');
    const step = steps[pick % Math.max(1, steps.length)];
    if (!step) return;
    const command = step.command as CommandOf<'roast'> | CommandOf<'sort'>;
    const outG = Math.max(0.001, Math.round((command.sources[0]?.massG ?? 1) * kept * 1000) / 1000);
    this.bench.do(command.kind === 'roast' ? { ...command, outG } : { ...command, goodG: outG, rejects: [] }, {
      supersedes: step.id,
      minutes: step.minutes,
    });
  }
}

function played(deeds: readonly Deed[]): Bench {
  const player = new Player();
  player.bench.lot(15_000, 5, 10);
  player.bench.buy('sugar', 8_000, 16);
  for (const next of deeds) {
    try {
      player.play(next);
    } catch (error) {
      if ((error as { code?: string }).code === undefined) throw error;
    }
  }
  return player.bench;
}

test('mass: what came in is what stands here, left, or was lost; nothing is ever below zero', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 15, maxLength: 70 }), (deeds) => {
      const { book } = played(deeds);
      let doors = 0;
      let lost = 0;
      for (const step of book.timeline) {
        let sum = 0;
        for (const p of step.postings) {
          sum += p.massMg;
          if (p.outside !== null) doors += p.massMg;
          if (p.loss !== null) lost += p.massMg;
        }
        expect(sum).toBe(0);
      }
      let standing = 0;
      for (const id of book.holdings.keys()) {
        let running = 0;
        for (const entry of book.entriesOf(id)) {
          running += entry.massMg;
          expect(running).toBeGreaterThanOrEqual(0);
        }
        expect(running).toBe(book.balance(id).massMg);
        standing += running;
      }
      expect(standing + doors + lost).toBe(0);
    }),
    { numRuns: 120, seed: 41 },
  );
});

test('money: what was paid and worked is what stands here, was sold, or was lost, to the thousandth of a cent', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 15, maxLength: 70 }), (deeds) => {
      const { book } = played(deeds);
      const { states, totals } = new Valuation(book);
      let standing = 0;
      for (const [id, state] of states) {
        standing += state.valueMilli;
        expect(state.massMg).toBe(book.balance(id).massMg);
      }
      expect(standing + totals.soldMilli + totals.lostMilli).toBe(
        totals.boughtMilli + totals.labourMilli + totals.energyMilli,
      );
    }),
    { numRuns: 120, seed: 42 },
  );
});

test('appending to a valuation gives what replaying gives', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 10, maxLength: 40 }), (deeds) => {
      const player = new Player();
      player.bench.lot(15_000, 5, 10);
      let valuation = new Valuation(player.bench.book);
      for (const next of deeds) {
        const before = player.bench.book.steps.size;
        try {
          player.play(next);
        } catch {
          continue;
        }
        const step = [...player.bench.book.steps.values()].at(-1);
        if (player.bench.book.steps.size > before && step && !valuation.append(step))
          valuation = new Valuation(player.bench.book);
      }
      const replay = new Valuation(player.bench.book);
      for (const [id, state] of replay.states) expect(valuation.worth(id).valueMilli).toBe(state.valueMilli);
    }),
    { numRuns: 60, seed: 43 },
  );
});

test('shares of a make-up add up to one wherever there is something', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 15, maxLength: 60 }), (deeds) => {
      const { book } = played(deeds);
      const valuation = new Valuation(book);
      for (const id of book.live) {
        if (book.balance(id).massMg <= 0) continue;
        const sum = [...valuation.makeUp(id).values()].reduce((total, share) => total + share, 0);
        expect(sum).toBeCloseTo(1, 6);
      }
    }),
    { numRuns: 60, seed: 44 },
  );
});
