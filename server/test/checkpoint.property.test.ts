import fc from 'fast-check';
import { Book } from '@wunsch/core/ledger/book';
import type { Entry } from '@wunsch/core/ledger/entries';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { Step } from '@wunsch/core/ledger/types';
import { Valuation } from '@wunsch/core/ledger/valuation';
import { deed, Player, type Deed } from '../../core/test/lives';
import { openHoldings, sealHoldings, type SealedHoldings } from '../src/checkpoint/holdings';
import { Packed } from '../src/checkpoint/packed';
import { sealSteps } from '../src/checkpoint/seal-steps';
import { openSteps, type SealedSteps } from '../src/checkpoint/sealed-steps';
import { SealedWorth, worthTables } from '../src/checkpoint/sealed-worth';
import { Words } from '../src/checkpoint/words';

function play(player: Player, deeds: readonly Deed[]): void {
  for (const next of deeds)
    try {
      player.play(next);
    } catch {
      // Refused: part of a life.
    }
}

interface Past {
  words: Words;
  texts: Buffer;
  sealed: SealedSteps;
  holdings: SealedHoldings;
}

/** What a book's steps are once they were sealed and opened again, upon those that were before. */
function past(book: Book, before: Past | null): Past {
  const steps = [...book.steps.values()];
  const rows = new Map(steps.map(({ id }, row) => [id, row]));
  const words = new Words(before?.words.pack());
  const fresh = steps.slice(before?.sealed.size ?? 0);
  const sealed = sealSteps(words, before?.sealed ?? null, fresh, (id) => rows.get(id) as number);
  const texts = Buffer.concat([before?.texts ?? Buffer.alloc(0), sealed.texts]);
  const columns = sealHoldings(words, book.holdings.values(), (id) => rows.get(id) as number);
  const opened = openSteps(words, Packed.of(steps.map(({ id }) => id)), sealed.sections, (from, to) =>
    texts.toString('utf8', from, to),
  );
  return { words, texts, sealed: opened, holdings: openHoldings(words, opened, columns) };
}

function bookOf({ sealed, holdings }: Pick<Past, 'sealed' | 'holdings'>): Book {
  const book = new Book();
  book.begin(sealed, holdings);
  return book;
}

const plain = (steps: Iterable<Step>): Step[] => [...steps].map(plainStep);
const plainEntry = (entry: Entry | undefined): Entry | null => {
  if (!entry) return null;
  const { at, order, stepId, kind, massMg, pieces } = entry;
  return { at, order, stepId, kind, massMg, pieces };
};
const since = { at: 0, order: 0 };

/** Everything that a book says. */
const said = (book: Book): unknown => ({
  steps: plain(book.steps.values()),
  timeline: [...book.timeline].map(({ id }) => id),
  current: [...book.steps.values()].map((step) => [
    book.isCurrent(step),
    book.successorOf(step.id),
    book.firstVersion(step),
  ]),
  live: [...book.live].sort(),
  holdings: [...book.holdings.ids()].map((id) => [
    book.holdings.get(id),
    book.byCode(book.holding(id).code.toLowerCase())?.id,
    Array.from(book.holdings.startingWith(book.holding(id).code.slice(0, 2)), (row) => row.id).sort(),
    book.balance(id),
    book.balanceAt(id, book.timeline.at(book.timeline.length >> 1)?.at ?? 0),
    book.entriesOf(id).map(plainEntry),
    [book.firstEntry(id)].map(plainEntry),
    book.entriesAfter(id, { at: book.timeline.at(3)?.at ?? 0, order: 0 }).map(plainEntry),
    book.countsAfter(id, since).map((step) => step.id),
  ]),
});

/** Everything that a valuation says. */
const worth = (book: Book, valuation: Valuation): unknown => ({
  totals: valuation.totals,
  holdings: [...book.holdings.ids()].map((id) => [
    valuation.worth(id),
    valuation.perKgMilli(id),
    valuation.perPieceMilli(id),
    [...valuation.makeUp(id)],
  ]),
  costs: [...book.timeline].map(({ id }) => {
    const cost = valuation.costOf(id);
    return cost && { ...cost, outputs: [...cost.outputs] };
  }),
});

const life = fc.array(deed, { minLength: 5, maxLength: 40 });

test('a book of sealed steps says what the book says that they were entered in, and goes on like it', () => {
  fc.assert(
    fc.property(life, life, life, (first, second, third) => {
      const player = new Player();
      play(player, first);
      const before = past(player.bench.book, null);
      expect(said(bookOf(before))).toEqual(said(player.bench.book));
      // What came since is sealed upon it.
      play(player, second);
      const after = past(player.bench.book, before);
      const again = bookOf(after);
      expect(said(again)).toEqual(said(player.bench.book));
      // Steps that come now enter both, with those that correct what is sealed.
      const known = player.bench.book.steps.size;
      play(player, third);
      for (const holding of player.bench.book.holdings.values()) again.addHolding(holding);
      for (const step of [...player.bench.book.steps.values()].slice(known)) again.insert(step);
      expect(said(again)).toEqual(said(player.bench.book));
    }),
    { numRuns: 60, seed: 51 },
  );
});

test('a valuation that goes on from what was kept says what one says that replays everything', () => {
  let goneOn = 0;
  fc.assert(
    fc.property(life, life, fc.double({ min: 0, max: 1, noNaN: true }), (first, second, share) => {
      const player = new Player();
      play(player, first);
      const { book } = player.bench;
      const kept = past(book, null);
      const { words } = kept;
      const again = bookOf(kept);
      const last = book.timeline.at(Math.floor(share * (book.timeline.length - 1))) ?? { at: 0, order: 0 };
      const upTo = { at: last.at, order: last.order };
      const until = new Valuation(again, null, upTo);
      const then = new SealedWorth(
        { upTo, steps: until.steps, sales: until.salesReaching(upTo), totals: until.totals },
        worthTables(words, book.steps.ids(), until),
        words,
        again,
      );
      expect(worth(again, new Valuation(again, then))).toEqual(worth(book, new Valuation(book)));
      // Whatever comes now, late entries, corrections and sales of old husk with it.
      const known = book.steps.size;
      play(player, second);
      for (const holding of book.holdings.values()) if (!again.holdings.has(holding.id)) again.addHolding(holding);
      for (const step of [...book.steps.values()].slice(known)) again.insert(step);
      if (again.isSettled(upTo)) goneOn += 1;
      expect(worth(again, new Valuation(again, then))).toEqual(worth(book, new Valuation(book)));
    }),
    { numRuns: 150, seed: 52 },
  );
  // It is no test where nothing was ever gone on from.
  expect(goneOn).toBeGreaterThan(20);
});
