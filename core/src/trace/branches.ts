import type { Book } from '../ledger/book';
import type { HoldingKind, Step } from '../ledger/types';
import { downstream, fillingShares, upstream } from './flow';

/*
 * A trace as a drawing: goods as places, what a step carried from one to another as bands, as wide as their grams. What
 * many goods of one kind do alike is drawn as one.
 */

/** Goods of a trace, one or several drawn as one. */
export interface TracePlace {
  id: string;
  /** Codes in it, at most a few; `count` says how many there are. */
  codes: string[];
  count: number;
  name: string;
  kind: HoldingKind | 'buyer' | 'loss';
  massMg: number;
  pieces: number;
  /** Steps from the subject: below 0 behind it, above 0 ahead. */
  depth: number;
}

export interface TraceBand {
  from: string;
  to: string;
  /** Grams of it that belong to the subject. */
  massMg: number;
}

export interface TraceDrawing {
  places: TracePlace[];
  bands: TraceBand[];
}

/** More goods than that of one kind, one step away, are drawn as one. */
const MOST_ALIKE = 5;

interface Raw {
  places: Map<string, TracePlace>;
  bands: Map<string, TraceBand>;
}

/**
 * Everything behind and ahead of some goods, as places and bands.
 *
 * @param nameOf a buyer of a sale, in words
 */
export function traceDrawing(book: Book, holdingId: string, nameOf: (step: Step) => string): TraceDrawing {
  const raw: Raw = { places: new Map(), bands: new Map() };
  const subject = book.holding(holdingId);
  const came = book.entriesOf(holdingId).reduce((sum, { massMg }) => sum + Math.max(0, massMg), 0);
  const pieces = book.entriesOf(holdingId).reduce((sum, entry) => sum + Math.max(0, entry.pieces), 0);
  raw.places.set(holdingId, {
    id: holdingId,
    codes: [subject.code],
    count: 1,
    name: subject.name,
    kind: subject.kind,
    massMg: came,
    pieces,
    depth: 0,
  });
  behind(book, holdingId, raw);
  ahead(book, holdingId, nameOf, raw);
  return gathered(raw, holdingId);
}

function place(book: Book, raw: Raw, id: string, depth: number): TracePlace {
  const there = raw.places.get(id);
  if (there) {
    // The farthest way to it is the one that is drawn, so that bands run one way.
    there.depth = depth < 0 ? Math.min(there.depth, depth) : Math.max(there.depth, depth);
    return there;
  }
  const { code, name, kind } = book.holding(id);
  const row: TracePlace = { id, codes: [code], count: 1, name, kind, massMg: 0, pieces: 0, depth };
  raw.places.set(id, row);
  return row;
}

function band(raw: Raw, from: string, to: string, massMg: number): void {
  if (from === to || massMg <= 0) return;
  const key = `${from} ${to}`;
  const there = raw.bands.get(key);
  if (there) there.massMg += massMg;
  else raw.bands.set(key, { from, to, massMg });
}

/** Back to the sacks: each step that has a share in the subject, from what it took to what it made. */
function behind(book: Book, holdingId: string, raw: Raw): void {
  const fractions = upstream(book, fillingShares(book, holdingId));
  const steps = [...fractions]
    .flatMap(([stepId, fraction]) => {
      const step = book.steps.get(stepId);
      return step && fraction > 1e-9 ? [{ step, fraction }] : [];
    })
    .sort((a, b) => b.step.at - a.step.at || b.step.order - a.step.order);
  for (const { step, fraction } of steps) {
    const made = step.postings.find(
      (p) => p.holdingId !== null && p.massMg > 0 && (p.holdingId === holdingId || raw.places.has(p.holdingId)),
    );
    const to = made?.holdingId ?? null;
    if (to === null) continue;
    const depth = (raw.places.get(to)?.depth ?? 0) - 1;
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg >= 0 || p.holdingId === holdingId) continue;
      // Leavings of what is already ahead of it come round again; a drawing runs one way.
      const massMg = -p.massMg * fraction;
      const row = place(book, raw, p.holdingId, depth);
      row.massMg += massMg;
      band(raw, p.holdingId, to, massMg);
    }
  }
}

/** On to the buyers: each step that took something of it, from there to what it made, or out of the house. */
function ahead(book: Book, holdingId: string, nameOf: (step: Step) => string, raw: Raw): void {
  const forward = downstream(book, [holdingId], 'mass');
  const steps = [...forward.taken.keys()]
    .flatMap((stepId) => book.steps.get(stepId) ?? [])
    .sort((a, b) => a.at - b.at || a.order - b.order);
  for (const step of steps) {
    const taken = forward.taken.get(step.id) ?? new Map<string, number>();
    const mine = [...taken].flatMap(([from, share]) => {
      const massMg = step.postings.reduce((sum, p) => (p.holdingId === from && p.massMg < 0 ? sum - p.massMg : sum), 0);
      return share > 1e-9 && massMg > 0 ? [{ from, massMg: massMg * share }] : [];
    });
    const all = mine.reduce((sum, { massMg }) => sum + massMg, 0);
    if (all === 0) continue;
    const inMg = step.postings.reduce((sum, p) => (p.holdingId !== null && p.massMg < 0 ? sum - p.massMg : sum), 0);
    for (const { from, massMg } of mine) {
      const depth = (raw.places.get(from)?.depth ?? 0) + 1;
      for (const p of step.postings) {
        if (p.massMg <= 0) continue;
        const part = (massMg * p.massMg) / Math.max(1, inMg);
        if (p.holdingId !== null) {
          const row = place(book, raw, p.holdingId, depth);
          row.massMg += part;
          row.pieces += Math.max(0, p.pieces);
          band(raw, from, p.holdingId, part);
        } else if (p.outside === 'customer') out(raw, 'buyer', nameOf(step), from, part, depth, -piecesOut(step, from));
        else if (p.loss !== null) out(raw, 'loss', `${p.loss} ${depth}`, from, part, depth, 0);
      }
    }
  }
}

const piecesOut = (step: Step, from: string): number =>
  step.postings.reduce((sum, p) => (p.holdingId === from && p.pieces < 0 ? sum + p.pieces : sum), 0);

function out(
  raw: Raw,
  kind: 'buyer' | 'loss',
  name: string,
  from: string,
  massMg: number,
  depth: number,
  pieces: number,
): void {
  const id = `${kind} ${name}`;
  const row = raw.places.get(id) ?? { id, codes: [], count: 1, name, kind, massMg: 0, pieces: 0, depth };
  row.depth = Math.max(row.depth, depth);
  row.massMg += massMg;
  row.pieces += pieces;
  raw.places.set(id, row);
  band(raw, from, id, massMg);
}

/** Draws goods of one kind as one where there are many of them as far away; and what is lost at one place as one. */
function gathered({ places, bands }: Raw, subject: string): TraceDrawing {
  const groups = new Map<string, TracePlace[]>();
  for (const row of places.values()) {
    const key = `${row.depth} ${row.kind}`;
    const list = groups.get(key);
    if (list) list.push(row);
    else groups.set(key, [row]);
  }
  const drawnAs = new Map<string, string>();
  const drawn: TracePlace[] = [];
  for (const [key, rows] of groups) {
    const asOne = rows.length > MOST_ALIKE || (rows.length > 1 && rows[0]?.kind === 'loss');
    if (!asOne) {
      drawn.push(...rows);
      for (const { id } of rows) drawnAs.set(id, id);
      continue;
    }
    const large = [...rows].sort((a, b) => b.massMg - a.massMg);
    // The subject stays itself; the largest keep their names.
    const kept = rows[0]?.kind === 'loss' ? [] : large.slice(0, MOST_ALIKE - 1);
    if (rows.some(({ id }) => id === subject) && !kept.some(({ id }) => id === subject))
      kept.push(...rows.filter(({ id }) => id === subject));
    const rest = large.filter((row) => !kept.includes(row));
    drawn.push(...kept);
    for (const { id } of kept) drawnAs.set(id, id);
    const first = rest[0];
    if (!first) continue;
    for (const { id } of rest) drawnAs.set(id, `all ${key}`);
    drawn.push({
      ...first,
      id: `all ${key}`,
      codes: rest.flatMap(({ codes }) => codes).slice(0, 4),
      count: rest.length,
      name: first.kind === 'loss' ? 'lost' : first.name,
      massMg: rest.reduce((sum, row) => sum + row.massMg, 0),
      pieces: rest.reduce((sum, row) => sum + row.pieces, 0),
      depth: Math.max(...rest.map(({ depth }) => depth)),
    });
  }
  const sums = new Map<string, TraceBand>();
  for (const { from, to, massMg } of bands.values()) {
    const [a, b] = [drawnAs.get(from) ?? from, drawnAs.get(to) ?? to];
    if (a === b) continue;
    const there = sums.get(`${a} ${b}`);
    if (there) there.massMg += massMg;
    else sums.set(`${a} ${b}`, { from: a, to: b, massMg });
  }
  const depthOf = new Map(drawn.map(({ id, depth }) => [id, depth]));
  // What came round again would run backwards: a drawing runs one way.
  const onward = [...sums.values()].filter(({ from, to }) => (depthOf.get(from) ?? 0) < (depthOf.get(to) ?? 0));
  return { places: drawn, bands: onward };
}
