import 'server-only';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import { environment } from '@/env/environment';

export type Database = NodePgDatabase;
/** A database or a transaction in it: what services take. */
export type Session = Pick<Database, 'select' | 'selectDistinctOn' | 'insert' | 'update' | 'delete' | 'execute'>;

const kept = globalThis as unknown as { redPlumbDatabase?: Database };

/** A connection that the server ends while nothing is asked of it is left out of the pool; the next question makes another. */
function pool(): Pool {
  const made = new Pool({ connectionString: environment().DATABASE_URL, max: 10 });
  made.on('error', () => undefined);
  return made;
}

/** One pool a process, kept across hot reloads. */
export function database(): Database {
  kept.redPlumbDatabase ??= drizzle({ client: pool(), casing: 'snake_case' });
  return kept.redPlumbDatabase;
}
