import { max } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import * as t from './schema';
import type { Database, Tx } from './types';

/** Which state a database is in: what is kept beside it belongs to one. */
export interface Commit {
  /** Goes up with everything that is written. */
  number: number;
  /** Another for every workshop that takes the place of one. */
  lineage: string;
}

const ONLY = 1;

export const firstCommit = (): Commit => ({ number: 0, lineage: nanoid(16) });

export const nextCommit = ({ number, lineage }: Commit): Commit => ({ number: number + 1, lineage });

/** Says which state a database is in from now on. */
export async function writeCommit(db: Database | Tx, commit: Commit): Promise<void> {
  await db
    .insert(t.commits)
    .values({ id: ONLY, ...commit })
    .onConflictDoUpdate({ target: t.commits.id, set: commit });
}

/** Number of the last step that the database has; 0 where it has none. */
export async function lastStepIn(db: Database): Promise<number> {
  const [row] = await db.select({ seq: max(t.steps.seq) }).from(t.steps);
  return row?.seq ?? 0;
}

/** Which state a database is in; one that nothing says of begins to count. */
export async function readCommit(db: Database): Promise<Commit> {
  const [row] = await db.select().from(t.commits);
  if (row) return { number: row.number, lineage: row.lineage };
  const commit = firstCommit();
  await writeCommit(db, commit);
  return commit;
}
