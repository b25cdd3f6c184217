import fc from 'fast-check';
import type { Book } from '../src/ledger/book';
import type { Step } from '../src/ledger/types';
import { traceDrawing, type TraceDrawing } from '../src/trace/branches';
import { Bench, made } from './fixtures';
import { deed, played } from './lives';

const buyer = (step: Step): string => (step.command as { to?: string }).to ?? 'somebody';
const draw = (book: Book, id: string): TraceDrawing => traceDrawing(book, id, buyer);

/** Bands as `FROM>TO grams`, by the first codes of the places that they join. */
function bandsOf({ places, bands }: TraceDrawing): string[] {
  const label = new Map(places.map(({ id, codes, kind, name }) => [id, codes[0] ?? (kind === 'loss' ? 'lost' : name)]));
  return bands.map(({ from, to, massMg }) => `${label.get(from)}>${label.get(to)} ${Math.round(massMg / 1000)}`).sort();
}

const codeOf = (book: Book, id: string): string => book.holding(id).code;
const sorted = (bench: Bench, from: string, massG: number, goodG: number): string =>
  made(bench.do({ kind: 'sort', sources: [{ holdingId: from, massG }], rejects: [], goodG, note: '' }));
const roasted = (bench: Bench, from: string, massG: number, outG: number): string =>
  made(bench.do({ kind: 'roast', sources: [{ holdingId: from, massG }], program: [], endBeanC: null, outG, note: '' }));

describe('from a lot on', () => {
  test('what it became is drawn with what was lost on the way, a place each', () => {
    const bench = new Bench();
    const lot = made(bench.lot(10_000));
    const beans = sorted(bench, lot, 10_000, 9_500);
    const load = roasted(bench, beans, 4_750, 4_500);
    const drawing = draw(bench.book, lot);
    const [l, b, r] = [lot, beans, load].map((id) => codeOf(bench.book, id));
    expect(bandsOf(drawing)).toEqual([`${l}>${b} 9500`, `${l}>lost 500`, `${b}>${r} 4500`, `${b}>lost 250`].sort());
    const place = (code: string | undefined) => drawing.places.find(({ codes }) => codes[0] === code);
    expect(place(l)).toMatchObject({ depth: 0, massMg: 10_000_000, count: 1 });
    expect(place(b)).toMatchObject({ depth: 1, massMg: 9_500_000 });
    expect(place(r)).toMatchObject({ depth: 2, massMg: 4_500_000 });
    expect(drawing.places.filter(({ kind }) => kind === 'loss').map(({ depth }) => depth)).toEqual([1, 2]);
  });

  test('of what two lots became together, a lot is drawn with its own part', () => {
    const bench = new Bench();
    const [one, other] = [made(bench.lot(6_000)), made(bench.lot(4_000))];
    const both = made(
      bench.do({
        kind: 'sort',
        sources: [
          { holdingId: one, massG: 6_000 },
          { holdingId: other, massG: 4_000 },
        ],
        rejects: [],
        goodG: 9_000,
        note: '',
      }),
    );
    const load = roasted(bench, both, 9_000, 8_000);
    const [a, b, c] = [one, both, load].map((id) => codeOf(bench.book, id));
    expect(bandsOf(draw(bench.book, one))).toEqual(
      [`${a}>${b} 5400`, `${a}>lost 600`, `${b}>${c} 4800`, `${b}>lost 600`].sort(),
    );
  });

  test('what was sold ends at its buyer, however often they came', () => {
    const bench = new Bench();
    const lot = made(bench.lot(1_000));
    for (const [to, massG] of [
      ['Ana', 200],
      ['Ben', 300],
      ['Ana', 100],
    ] as const)
      bench.do({ kind: 'sell', sources: [{ holdingId: lot, massG }], takings: 5, to, note: '' });
    const drawing = draw(bench.book, lot);
    const code = codeOf(bench.book, lot);
    expect(bandsOf(drawing)).toEqual([`${code}>Ana 300`, `${code}>Ben 300`]);
    expect(drawing.places.filter(({ kind }) => kind === 'buyer').map(({ name }) => name)).toEqual(['Ana', 'Ben']);
  });

  test('many alike are drawn as one, the largest by themselves, and no gram of them goes missing', () => {
    const bench = new Bench();
    const lot = made(bench.lot(10_000));
    const tubs = Array.from({ length: 9 }, (_, i) => sorted(bench, lot, 100 * (i + 1), 100 * (i + 1)));
    const { places, bands } = draw(bench.book, lot);
    const beans = places.filter(({ kind }) => kind === 'beans');
    expect(beans.map(({ count }) => count)).toEqual([1, 1, 1, 1, 5]);
    expect(beans.slice(0, 4).map(({ codes }) => codes[0])).toEqual(
      [8, 7, 6, 5].map((i) => codeOf(bench.book, tubs[i] ?? '')),
    );
    expect(beans[4]).toMatchObject({ massMg: 1_500_000, depth: 1 });
    expect(beans[4]?.codes).toHaveLength(4);
    expect(bands.reduce((sum, { massMg }) => sum + massMg, 0)).toBe(4_500_000);
  });
});

describe('back from goods', () => {
  test('each sack is drawn with what of it is in them', () => {
    const bench = new Bench();
    const lot = made(bench.lot(10_000));
    const beans = sorted(bench, lot, 10_000, 9_000);
    const half = roasted(bench, beans, 4_500, 4_000);
    const [l, b, r] = [lot, beans, half].map((id) => codeOf(bench.book, id));
    const drawing = draw(bench.book, half);
    expect(bandsOf(drawing)).toEqual([`${b}>${r} 4500`, `${l}>${b} 5000`].sort());
    expect(drawing.places.map(({ codes, depth }) => [codes[0], depth]).sort()).toEqual(
      [
        [r, 0],
        [b, -1],
        [l, -2],
      ].sort(),
    );
  });

  test('a lot that came by two ways is as far away as the longer of them', () => {
    const bench = new Bench();
    const lot = made(bench.lot(10_000));
    const beans = sorted(bench, lot, 5_000, 5_000);
    const mixed = made(
      bench.do({
        kind: 'roast',
        sources: [
          { holdingId: lot, massG: 5_000 },
          { holdingId: beans, massG: 5_000 },
        ],
        program: [],
        endBeanC: null,
        outG: 9_000,
        note: '',
      }),
    );
    const [l, b, r] = [lot, beans, mixed].map((id) => codeOf(bench.book, id));
    const { places, bands } = draw(bench.book, mixed);
    expect(places.map(({ codes, depth }) => [codes[0], depth]).sort()).toEqual(
      [
        [r, 0],
        [b, -1],
        [l, -2],
      ].sort(),
    );
    expect(bandsOf({ places, bands })).toEqual([`${b}>${r} 5000`, `${l}>${b} 5000`, `${l}>${r} 5000`].sort());
  });
});

test('whatever was done, a drawing runs one way, names every place that a band joins, and carries no more than there was', () => {
  let [drawn, bands] = [0, 0];
  fc.assert(
    fc.property(fc.array(deed, { minLength: 30, maxLength: 80 }), (deeds) => {
      const { book } = played(deeds);
      for (const { id } of book.holdings.values()) {
        const drawing = draw(book, id);
        drawn += 1;
        const places = new Map(drawing.places.map((row) => [row.id, row]));
        expect(places.size).toBe(drawing.places.length);
        expect(places.get(id)).toMatchObject({ depth: 0, count: 1 });
        const joined = new Set<string>();
        const out = new Map<string, number>();
        for (const { from, to, massMg } of drawing.bands) {
          bands += 1;
          const [a, b] = [places.get(from), places.get(to)];
          if (!a || !b) throw new Error(`${from} or ${to} is not drawn`);
          expect(a.depth).toBeLessThan(b.depth);
          expect(massMg).toBeGreaterThan(0);
          expect(joined.has(`${from} ${to}`)).toBe(false);
          joined.add(`${from} ${to}`);
          out.set(from, (out.get(from) ?? 0) + massMg);
        }
        const came = book.entriesOf(id).reduce((sum, entry) => sum + Math.max(0, entry.massMg), 0);
        // Half a milligram of rounding for each share.
        expect(out.get(id) ?? 0).toBeLessThanOrEqual(came + drawing.bands.length);
        const alike = new Map<string, number>();
        for (const { kind, depth } of drawing.places)
          alike.set(`${kind} ${depth}`, (alike.get(`${kind} ${depth}`) ?? 0) + 1);
        for (const [what, count] of alike)
          expect([what, count <= (what.startsWith('loss') ? 1 : 6)]).toEqual([what, true]);
      }
    }),
    { numRuns: 40, seed: 61 },
  );
  expect(drawn).toBeGreaterThan(500);
  expect(bands).toBeGreaterThan(2000);
});
