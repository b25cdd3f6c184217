import fc from 'fast-check';
import { Valuation } from '../src/ledger/valuation';
import { BarsByBatch } from '../src/trace/bars';
import { downstream } from '../src/trace/flow';
import type { Book } from '../src/ledger/book';
import { deed, played, Player } from './lives';

/** A lot's share of the cacao in a holding, by the make-up that its page shows. */
function cacaoShare(book: Book, valuation: Valuation, holdingId: string, lotId: string): number | null {
  const makeUp = valuation.makeUp(holdingId);
  let cacao = 0;
  for (const [root, share] of makeUp) if (book.holding(root).kind === 'lot') cacao += share;
  return cacao > 1e-12 ? (makeUp.get(lotId) ?? 0) / cacao : null;
}

test('forward is backward turned round: a lot has the same share of everything, seen from either end', () => {
  let compared = 0;
  let mixed = 0;
  fc.assert(
    fc.property(fc.array(deed, { minLength: 30, maxLength: 90 }), (deeds) => {
      const { book } = played(deeds);
      const valuation = new Valuation(book);
      for (const lot of [...book.holdings.values()].filter(({ kind }) => kind === 'lot')) {
        const { holdings } = downstream(book, [lot.id]);
        for (const holding of book.holdings.values()) {
          if (holding.id === lot.id || holding.kind === 'lot') continue;
          const back = cacaoShare(book, valuation, holding.id, lot.id);
          if (back === null) continue;
          compared += 1;
          if (back > 0.001 && back < 0.999) mixed += 1;
          expect(holdings.get(holding.id) ?? 0).toBeCloseTo(back, 9);
        }
      }
    }),
    { numRuns: 150, seed: 51 },
  );
  expect(compared).toBeGreaterThan(1000);
  expect(mixed).toBeGreaterThan(100);
});

test('an ingredient has the share of everything that its grams have', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 30, maxLength: 80 }), (deeds) => {
      const { book } = played(deeds);
      const valuation = new Valuation(book);
      for (const sugar of [...book.holdings.values()].filter(({ kind }) => kind === 'ingredient')) {
        const { holdings, side } = downstream(book, [sugar.id]);
        expect(side).toBe('mass');
        for (const holding of book.holdings.values()) {
          if (holding.kind === 'ingredient') continue;
          expect(holdings.get(holding.id) ?? 0).toBeCloseTo(valuation.makeUp(holding.id).get(sugar.id) ?? 0, 9);
        }
      }
    }),
    { numRuns: 80, seed: 52 },
  );
});

test('bars counted for all batches at once are those that each batch finds by itself', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 40, maxLength: 90 }), (deeds) => {
      const { book, batches } = played(deeds);
      const all = new BarsByBatch(
        () => book,
        (id) => batches.has(id),
      );
      for (const batchId of batches.keys()) {
        const own = downstream(book, [batchId], 'goods');
        let made = 0;
        let standing = 0;
        for (const [stepId, share] of own.steps) {
          const step = book.steps.get(stepId);
          for (const p of step?.postings ?? []) {
            const kind = p.holdingId === null ? null : book.holding(p.holdingId).kind;
            if (step?.kind === 'mould' && kind === 'bars' && p.pieces > 0) made += p.pieces * share;
            if (step?.kind === 'remelt' && kind === 'bars' && p.pieces < 0)
              made += p.pieces * (own.taken.get(stepId)?.get(p.holdingId ?? '') ?? 0);
          }
        }
        for (const [id, share] of own.holdings)
          if (book.holding(id).kind === 'bars') standing += book.balance(id).pieces * share;
        expect(all.of(batchId).made).toBeCloseTo(made, 6);
        expect(all.of(batchId).standing).toBeCloseTo(standing, 6);
      }
    }),
    { numRuns: 80, seed: 53 },
  );
});

test('bars that are counted as the book grows are those of one pass, whatever is entered late or corrected', () => {
  fc.assert(
    fc.property(fc.array(deed, { minLength: 20, maxLength: 60 }), (deeds) => {
      const player = new Player();
      const { book, batches } = player.bench;
      const counts = (): BarsByBatch =>
        new BarsByBatch(
          () => book,
          (id) => batches.has(id),
        );
      const growing = counts();
      for (const next of deeds) {
        try {
          player.play(next);
        } catch {
          // Refused: part of a life.
        }
        for (const id of batches.keys()) growing.of(id);
      }
      const once = counts();
      for (const id of batches.keys()) expect(growing.of(id)).toEqual(once.of(id));
    }),
    { numRuns: 60, seed: 54 },
  );
});
