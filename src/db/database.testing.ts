import { randomUUID } from 'node:crypto';
import { drizzle } from 'drizzle-orm/node-postgres';
import { Client } from 'pg';
import { connectionPool, type Database } from './client';

export interface TestDatabase {
  readonly url: string;
  readonly database: Database;
  readonly query: (text: string, values?: readonly unknown[]) => Promise<unknown[]>;
  readonly close: () => Promise<void>;
}

/** A database of its own for one test file, made from the migrated template that the test command prepared. */
export async function testDatabase(): Promise<TestDatabase> {
  const server = process.env.TEST_DATABASE_URL;
  if (!server) throw new Error('TEST_DATABASE_URL is not set. Run these tests with "npm test".');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = new Client({ connectionString: server });
  await admin.connect();
  await admin.query(`create database ${name} template red_plumb_template`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  const pool = connectionPool(url.toString(), 6);
  return {
    url: url.toString(),
    database: drizzle({ client: pool, casing: 'snake_case' }),
    query: async (text, values) => (await pool.query(text, values ? [...values] : undefined)).rows as unknown[],
    close: async () => {
      await pool.end();
      await dropWhenLeft(admin, name);
      await admin.end();
    },
  };
}

/** The server notices closed connections a moment later: waits for that instead of cutting them off. */
async function dropWhenLeft(admin: Client, name: string): Promise<void> {
  for (let tries = 0; tries < 40; tries++) {
    const { rowCount } = await admin.query('select 1 from pg_stat_activity where datname = $1', [name]);
    if (rowCount === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await admin.query(`drop database ${name}`);
}
