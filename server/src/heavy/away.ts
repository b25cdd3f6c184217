import workerpool, { type Pool } from 'workerpool';
import { DomainError, type FieldProblem } from '@wunsch/core/errors/domain-error';
import type { Tasks } from './tasks';

/*
 * Work that takes its time (a fit, a PDF, a table of a hundred thousand rows) is done on threads of its own, so that
 * nobody else waits; what takes too long is ended.
 */

/** Nothing that is asked for here takes longer, unless something is wrong with it. */
const LONGEST_MS = 20_000;

/** What a thread says: the answer, or a refusal in words. */
export type Said<T> =
  { value: T } | { refused: { code: string; message: string; fields: FieldProblem[]; facts: object } };

let pool: Pool | null = null;

/** From here on work is done on threads that run this file; before, and in tests, it is done where it is asked for. */
export function workOn(script: string): void {
  pool = workerpool.pool(script, { workerType: 'thread', maxWorkers: 2 });
}

/** Ends the threads. */
export async function stopWork(): Promise<void> {
  const ending = pool;
  pool = null;
  await ending?.terminate(true);
}

/**
 * Does something away from everybody else.
 *
 * @param longestMs after so much it is ended
 * @throws DomainError as the task does; `http/too-long` when it was ended
 */
export async function away<K extends keyof Tasks>(
  task: K,
  args: Parameters<Tasks[K]>,
  longestMs = LONGEST_MS,
): Promise<Awaited<ReturnType<Tasks[K]>>> {
  type Answer = Awaited<ReturnType<Tasks[K]>>;
  let said: Said<Answer>;
  if (pool === null) {
    const { perform } = await import('./tasks');
    said = (await perform(task, args)) as Said<Answer>;
  } else {
    try {
      said = (await pool.exec('perform', [task, args]).timeout(longestMs)) as Said<Answer>;
    } catch (error) {
      if (error instanceof workerpool.Promise.TimeoutError)
        throw new DomainError(
          'http/too-long',
          `That took more than ${longestMs / 1000} seconds and was ended. Nothing was saved; ask for less at once.`,
        );
      throw error;
    }
  }
  if ('value' in said) return said.value;
  const { code, message, fields, facts } = said.refused;
  throw new DomainError(code, message, fields, { ...facts });
}
