import type { Composition } from '../composition/composition';
import { DomainError } from '../errors/domain-error';
import type { Book } from '../ledger/book';
import type { Position } from '../ledger/entries';
import type { Command } from '../commands';
import type { Source } from '../fields/sources';
import type { Batch, LotFacts, Override } from '../ledger/types';
import type { Settings } from '../workshop/schemas';
import type { Route } from '../work/stations';

/** A stop: what is wrong with going on, why it matters and what to do instead. */
export interface Gate {
  /** Stable: `grind/raw`. */
  id: string;
  sentence: string;
  why: string;
  todo: string;
  /** The field it is about. */
  path: string;
}

/** What stations may look at to say stop. */
export interface GateContext extends Position {
  book: Book;
  lots: ReadonlyMap<string, LotFacts>;
  settings: Pick<Settings, 'restDays' | 'timeZone' | 'temperatureUnit'>;
  route(id: string | null): Route | undefined;
  batch(id: string): Batch | undefined;
  composition(holdingId: string): Composition;
  /** Months that goods with an ingredient keep, where the maker said so, by its name. */
  keeps: ReadonlyMap<string, number>;
}

/** An entry, or the beginning of work of its kind: then only what is taken is known. */
export type Asked<K extends Command['kind'] = Command['kind']> = K extends Command['kind']
  ? Extract<Command, { kind: K }> | { kind: K; sources: readonly Source[]; begins: true }
  : never;

export const begins = (asked: Asked): asked is Extract<Asked, { begins: true }> => 'begins' in asked;

/**
 * The refusal for stops that nobody went past.
 *
 * @returns code `gate/closed`; its facts carry the stops, so that a person can answer each by id
 */
export function stopped(gates: readonly Gate[]): DomainError {
  return new DomainError(
    'gate/closed',
    gates.map(({ sentence }) => sentence).join(' '),
    gates.map(({ path, sentence }) => ({ path, message: sentence })),
    { gates },
  );
}

/**
 * Lets an entry through its stops, each answered by a word.
 *
 * @param answers what was said, by stop; @param before stops that were gone past earlier and still hold
 * @returns what is to be kept with the entry
 * @throws DomainError `gate/closed` with the stops that nobody answered
 */
export function passGates(
  gates: readonly Gate[],
  answers: readonly { gate: string; word: string }[],
  personId: string,
  before: readonly Override[] = [],
): Override[] {
  const open: Gate[] = [];
  const kept: Override[] = [];
  for (const gate of gates) {
    const answer = answers.find((row) => row.gate === gate.id);
    const earlier = before.find((row) => row.gate === gate.id);
    if (answer) kept.push({ gate: gate.id, sentence: gate.sentence, word: answer.word, personId });
    else if (earlier) kept.push({ ...earlier, sentence: gate.sentence });
    else open.push(gate);
  }
  if (open.length > 0) throw stopped(open);
  return kept;
}
