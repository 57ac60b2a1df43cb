import 'server-only';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import { environment } from '@/env/environment';

/** A database or a transaction in it: what services take to read and write. */
export type Session = Pick<NodePgDatabase, 'select' | 'selectDistinctOn' | 'insert' | 'update' | 'delete' | 'execute'>;
/** What a service takes that makes a transaction of its own: within another one it becomes a part of that. */
export type Database = Session & Pick<NodePgDatabase, 'transaction'>;

/** Long enough for a busy server; whoever waits is then told that it does not answer. */
const LONGEST_CONNECTING_MS = 5000;

const kept = globalThis as unknown as { redPlumbDatabase?: Database };

/**
 * Connections to one database. One that is cut off never ends the process: while nothing is asked of it, it is left out and the
 * next question makes another; in the middle of a transaction, the next question of that transaction is refused.
 */
export function connectionPool(url: string, most: number): Pool {
  const made = new Pool({ connectionString: url, max: most, connectionTimeoutMillis: LONGEST_CONNECTING_MS });
  made.on('error', () => undefined);
  // One that is lent out has left the pool's care, and between two questions nobody else listens.
  made.on('connect', (client) => client.on('error', () => undefined));
  return made;
}

/** One pool a process, kept across hot reloads. */
export function database(): Database {
  kept.redPlumbDatabase ??= drizzle({ client: connectionPool(environment().DATABASE_URL, 10), casing: 'snake_case' });
  return kept.redPlumbDatabase;
}
