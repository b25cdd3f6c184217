import workerpool, { type Pool } from 'workerpool';
import { DomainError, type FieldProblem } from '@wunsch/core/errors/domain-error';

/*
 * Work that takes its time (a fit, a PDF, a table of a hundred thousand rows) is done on threads of its own, so that
 * nobody else waits; what takes too long is ended.
 */

/** Nothing that is asked for here takes longer, unless something is wrong with it. */
const LONGEST_MS = 20_000;

/** What a thread says: the answer, or a refusal in words. */
export type Said<T> =
  { value: T } | { refused: { code: string; message: string; fields: FieldProblem[]; facts: object } };

/** What can be done away: `tasks.ts` says how. */
export type TaskName = 'calculate' | 'cards' | 'curve preview' | 'curve table' | 'label' | 'sheet' | 'tags';
export type Perform = (task: TaskName, args: readonly unknown[]) => Promise<Said<unknown>>;

let pool: Pool | null = null;
let here: Perform | null = null;

/** From here on work is done on threads that run this file. */
export function workOn(script: string): void {
  pool = workerpool.pool(script, { workerType: 'thread', maxWorkers: 2 });
}

/** Does work where it is asked for, as long as there are no threads: in tests. */
export const workHere = (perform: Perform): void => void (here = perform);

/** Ends the threads. */
export async function stopWork(): Promise<void> {
  const ending = pool;
  pool = null;
  await ending?.terminate(true);
}

async function perform(task: TaskName, args: readonly unknown[], longestMs: number): Promise<Said<unknown>> {
  if (pool === null) {
    if (here === null) throw new Error('nobody is there to do it');
    return here(task, args);
  }
  try {
    return (await pool.exec('perform', [task, args]).timeout(longestMs)) as Said<unknown>;
  } catch (error) {
    if (!(error instanceof workerpool.Promise.TimeoutError)) throw error;
    throw new DomainError(
      'http/too-long',
      `That took more than ${longestMs / 1000} seconds and was ended. Nothing was saved; ask for less at once.`,
    );
  }
}

/**
 * Does something away from everybody else.
 *
 * @param longestMs after so much it is ended
 * @throws DomainError as the task does; `http/too-long` when it was ended
 */
export async function away<T>(task: TaskName, args: readonly unknown[], longestMs = LONGEST_MS): Promise<T> {
  const said = await perform(task, args, longestMs);
  if ('value' in said) return said.value as T;
  const { code, message, fields, facts } = said.refused;
  throw new DomainError(code, message, fields, { ...facts });
}
