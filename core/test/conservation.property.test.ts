import fc from 'fast-check';
import { Worths } from '../src/ledger/worths';
import { Valuation } from '../src/ledger/valuation';
import { deed, played, Player } from './lives';

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
      for (const id of book.holdings.ids()) {
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

test('what goes on from an earlier valuation says what replaying says, whatever is entered late or put right', () => {
  let goneOn = 0;
  fc.assert(
    fc.property(fc.array(deed, { minLength: 20, maxLength: 60 }), fc.integer({ min: 1, max: 6 }), (deeds, loose) => {
      const player = new Player();
      const { book } = player.bench;
      player.bench.lot(15_000, 5, 10);
      const worths = new Worths(book, null, loose);
      let known = 0;
      for (const next of deeds) {
        try {
          player.play(next);
        } catch {
          // What is refused leaves nothing behind.
        }
        for (const step of [...book.steps.values()].slice(known)) worths.insert(step);
        known = book.steps.size;
        const replay = new Valuation(book);
        const { now } = worths;
        if (now.states.size < replay.states.size) goneOn += 1;
        expect(now.totals).toEqual(replay.totals);
        for (const [id, state] of replay.states) expect(now.stateOf(id)).toEqual(state);
        for (const step of book.timeline) expect(now.costOf(step.id)).toEqual(replay.costOf(step.id));
      }
    }),
    { numRuns: 40, seed: 45 },
  );
  // It is no test where nothing was ever gone on from.
  expect(goneOn).toBeGreaterThan(200);
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
