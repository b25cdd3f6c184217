import fc from 'fast-check';
import { compositionOf, type Root } from '../src/composition/composition';
import { ingredientFacts } from '../src/composition/ingredient-facts';
import { USUAL_CONTENTS } from '../src/composition/usual-contents';
import type { Book } from '../src/ledger/book';
import { Valuation } from '../src/ledger/valuation';
import { MATERIALS } from './fixtures';
import { deed, played } from './lives';

/** Grams of every root in every holding, followed step by step with nothing but sums. */
function walked(book: Book): Map<string, Map<string, number>> {
  const held = new Map<string, Map<string, number>>();
  const sum = (rows: Map<string, number>): number => [...rows.values()].reduce((total, value) => total + value, 0);
  for (const { postings } of book.timeline) {
    const pool = new Map<string, number>();
    for (const { holdingId, massMg } of postings) {
      if (holdingId === null || massMg >= 0) continue;
      const own = held.get(holdingId) ?? new Map<string, number>();
      const whole = sum(own);
      for (const [root, mg] of own) {
        const taken = (mg / whole) * -massMg;
        own.set(root, mg - taken);
        pool.set(root, (pool.get(root) ?? 0) + taken);
      }
    }
    const inPool = sum(pool);
    for (const { holdingId, massMg } of postings) {
      if (holdingId === null || massMg <= 0) continue;
      const own = held.get(holdingId) ?? new Map<string, number>();
      held.set(holdingId, own);
      if (inPool <= 0) {
        // What was found again is what was there; what came through the door is itself.
        const there = sum(own);
        if (there > 0) for (const [root, mg] of own) own.set(root, mg * (1 + massMg / there));
        else own.set(holdingId, massMg);
      } else for (const [root, mg] of pool) own.set(root, (own.get(root) ?? 0) + (mg / inPool) * massMg);
    }
  }
  return held;
}

test('what any holding is equals a walk through the book that only adds', () => {
  let compared = 0;
  fc.assert(
    fc.property(fc.array(deed, { minLength: 30, maxLength: 80 }), (deeds) => {
      const { book } = played(deeds);
      const rootOf = (id: string): Root | undefined => {
        const { kind, materialId } = book.holding(id);
        if (kind === 'lot') return { kind: 'cacao', lotId: id };
        const material = MATERIALS.find((row) => row.id === materialId);
        return (
          material && { kind: 'ingredient', material, facts: ingredientFacts(material, '2026-01-01', () => undefined) }
        );
      };
      const valuation = new Valuation(book);
      for (const [holdingId, roots] of walked(book)) {
        const { kind } = book.holding(holdingId);
        const whole = [...roots.values()].reduce((total, mg) => total + mg, 0);
        if (whole < 1000 || !book.live.has(holdingId) || kind === 'ingredient') continue;
        const of = (materialId: string | null): number =>
          [...roots].reduce(
            (total, [root, mg]) => (book.holding(root).materialId === materialId ? total + mg : total),
            0,
          ) / whole;
        const [cacao, sugar, butter] = [of(null), of('sugar'), of('butter')];
        const { cocoaPct, sugarPct, figures } = compositionOf(valuation.makeUp(holdingId), rootOf);
        expect(cocoaPct).toBeCloseTo(100 * (cacao + butter), 6);
        expect(sugarPct).toBeCloseTo(100 * sugar, 6);
        expect(figures.fatPct).toBeCloseTo(cacao * USUAL_CONTENTS.nibs.contents.fatPct + 100 * butter, 6);
        compared += 1;
      }
    }),
    { numRuns: 80, seed: 9 },
  );
  expect(compared).toBeGreaterThan(300);
});
