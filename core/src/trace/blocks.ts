import { DomainError } from '../errors/domain-error';
import type { Command } from '../commands';
import type { Book } from '../ledger/book';
import type { TraceRecordValue } from './records';

/** Where what was said of recalls is kept, oldest first. */
export interface TraceRecords {
  of(room: 'trace'): readonly { value: TraceRecordValue }[];
}

/** Why goods are blocked. */
export interface Block {
  recallId: string;
  why: string;
}

/** What is done with goods that leaves the house, or hides what they are. */
const LEAVING: readonly Command['kind'][] = ['pack', 'sell', 'remelt', 'temper', 'mould', 'charge', 'taste'];

/** By the list of records, which grows: what it said when it was so long. */
const known = new WeakMap<readonly unknown[], { of: number; blocked: ReadonlyMap<string, Block> }>();

/** Goods that are blocked by now, by holding: the newest word counts. */
export function blocksOf(records: TraceRecords): ReadonlyMap<string, Block> {
  const all = records.of('trace');
  const before = known.get(all);
  if (before?.of === all.length) return before.blocked;
  const blocked = new Map<string, Block>();
  for (const { value } of all) {
    if (value.kind === 'blocked')
      for (const id of value.holdingIds) blocked.set(id, { recallId: value.recallId, why: value.why });
    else if (value.kind === 'released') for (const id of value.holdingIds) blocked.delete(id);
  }
  known.set(all, { of: all.length, blocked });
  return blocked;
}

/**
 * Refuses to do anything with blocked goods that leaves the house or hides what they are.
 *
 * @throws DomainError `trace/blocked`
 */
export function checkBlocks(book: Book, blocked: ReadonlyMap<string, Block>, command: Command): void {
  if (blocked.size === 0 || !LEAVING.includes(command.kind)) return;
  const { sources = [], holdingId = null } = command as {
    sources?: readonly { holdingId: string }[];
    holdingId?: string | null;
  };
  const named = sources.map((row, index): [string, string] => [row.holdingId, `sources.${index}.holdingId`]);
  if (holdingId !== null) named.push([holdingId, 'holdingId']);
  for (const [id, path] of named) {
    const block = blocked.get(id);
    if (!block) continue;
    throw new DomainError(
      'trace/blocked',
      `${book.holding(id).code} is blocked: ${block.why}. Release it by name on the page of its recall before anything is done with it.`,
      [{ path, message: 'is blocked' }],
    );
  }
}
