import type { PgliteDatabase } from 'drizzle-orm/pglite';
import type * as schema from './schema';

export type Database = PgliteDatabase<typeof schema>;
/** The database within a transaction. */
export type Tx = Parameters<Parameters<Database['transaction']>[0]>[0];
