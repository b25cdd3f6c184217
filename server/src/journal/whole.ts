import { setImmediate as breathe } from 'node:timers/promises';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { checkWhole } from '@wunsch/core/ledger/check';
import { Book } from '@wunsch/core/ledger/book';
import { misfitOf, ROWS, type Misfit, type Table } from '@wunsch/core/rows';
import type { Database, Tx } from '../store/types';
import type { Whole } from '../checkpoint/checkpoint';
import { read, UnreadableRecord } from '../store/read';
import { type Records } from '../store/records';

/** Rows that are looked at before others get their turn. */
const AT_ONCE = 200;

/** A row of the database is not what it has to be: nobody's entry, but damage. */
export class Damaged extends Error {
  constructor(detail: string) {
    super(`The data is damaged: ${detail}. Nothing was changed; restore a backup, or have it looked at.`);
  }
}

/** Holds every row against what it has to be, in turns with others. @returns the first that does not fit, or null */
export async function firstMisfit(rows: Readonly<Record<Table, readonly unknown[]>>): Promise<Misfit | null> {
  for (const table of Object.keys(ROWS) as Table[]) {
    for (const [index, row] of rows[table].entries()) {
      if (index % AT_ONCE === AT_ONCE - 1) await breathe();
      const misfit = misfitOf(table, row, index);
      if (misfit) return misfit;
    }
  }
  return null;
}

/**
 * The book that holdings and steps make.
 *
 * @throws DomainError where they break the laws of the ledger, or a holding was made by no step
 */
export async function bookOf({ holdings, steps }: Pick<Records, 'holdings' | 'steps'>): Promise<Book> {
  const book = new Book();
  for (const holding of holdings) {
    if (book.holdings.has(holding.id))
      throw new DomainError('ledger/unknown-holding', `${holding.code} is there twice.`);
    book.addHolding(holding);
  }
  for (const [index, step] of steps.entries()) {
    if (index % AT_ONCE === AT_ONCE - 1) await breathe();
    if (step.supersedes !== null && !book.steps.has(step.supersedes))
      throw new DomainError('ledger/unknown-step', `Step ${step.seq} corrects one that does not come before it.`);
    if (book.steps.has(step.id)) throw new DomainError('ledger/unknown-step', `Step ${step.seq} is there twice.`);
    book.insert(step);
  }
  for (const _ of checkWhole(book)) await breathe();
  for (const { code, madeBy } of book.holdings.values())
    if (!book.steps.has(madeBy))
      throw new DomainError('ledger/unknown-step', `${code} was made by a step that is not there.`);
  return book;
}

/** Reads a whole workshop from its rows, each of them looked at. @throws Damaged */
export async function readWhole(db: Database | Tx): Promise<Whole> {
  const records = await read(db).catch((error: unknown) => {
    throw error instanceof UnreadableRecord ? new Damaged(error.message) : error;
  });
  const misfit = await firstMisfit(records);
  if (misfit) throw new Damaged(`${misfit.table} ${misfit.id}: ${misfit.detail}`);
  try {
    const { steps, holdings: _, ...small } = records;
    return { small, book: await bookOf(records), then: null, seq: steps.at(-1)?.seq ?? 0 };
  } catch (error) {
    if (error instanceof DomainError) throw new Damaged(error.message.replace(/\.$/, ''));
    throw error;
  }
}
