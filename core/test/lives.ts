import fc from 'fast-check';
import type { CommandOf } from '../src/commands';
import type { HoldingKind } from '../src/ledger/types';
import { Bench, HOUR } from './fixtures';

/** Some deed at some station on whatever is there; refusals are part of the game. */
export interface Deed {
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
    | 'correct'
    | 'late';
  share: number;
  yield: number;
  pick: number;
}

export const deed: fc.Arbitrary<Deed> = fc.record({
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
    'late',
  ),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
  yield: fc.double({ min: 0.5, max: 1, noNaN: true }),
  pick: fc.nat(1000),
});

/** Plays a workshop's life, deed by deed, with what there is. */
export class Player {
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
    if (what === 'late') return this.late(share, pick);
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
    const massOf = (g: number): number => Math.round(g * share * 1000) / 1000;
    const sources = [{ holdingId: from.id, massG: massOf(from.g) }];
    // Half of the time two tubs go in together.
    const also = this.some(kinds[what] ?? [], pick + 1);
    if (also && pick % 2 === 0 && also.id !== from.id && also.g >= 1)
      sources.push({ holdingId: also.id, massG: massOf(also.g) });
    const massG = sources.reduce((sum, source) => sum + source.massG, 0);
    const outG = Math.max(0.001, Math.round(massG * kept * 1000) / 1000);
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

  /** Something that was forgotten, a few hours back. */
  private late(share: number, pick: number): void {
    const from = this.some(['nibs', 'ingredient', 'bars', 'beans'], pick);
    const last = this.bench.book.timeline.at(-1);
    if (!from || !last) return;
    const at = last.at - (pick % 7) * HOUR;
    const bowl = [...this.bench.batches.keys()][pick % Math.max(1, this.bench.batches.size)];
    const massG = Math.max(0.001, Math.round(from.g * share * 300) / 1000);
    if (from.pieces > 0) {
      this.bench.do(
        { kind: 'sell', sources: [{ holdingId: from.id, pieces: 1 }], takings: 3, to: '', note: '' },
        { at },
      );
    } else if (bowl !== undefined && this.bench.book.holding(from.id).kind !== 'beans') {
      this.bench.do({ kind: 'charge', batchId: bowl, sources: [{ holdingId: from.id, massG }], note: '' }, { at });
    } else this.bench.do({ kind: 'adjust', holdingId: from.id, countedG: massG, cause: 'dust', note: '' }, { at });
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

/** A workshop after a life of deeds. */
export function played(deeds: readonly Deed[]): Bench {
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
