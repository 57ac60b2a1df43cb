import { randomUUID } from 'node:crypto';
import { drizzle } from 'drizzle-orm/node-postgres';
import { Client, Pool } from 'pg';
import type { Database } from './client';

export interface TestDatabase {
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
  const pool = new Pool({ connectionString: url.toString(), max: 6 });
  return {
    database: drizzle({ client: pool, casing: 'snake_case' }),
    query: async (text, values) => (await pool.query(text, values ? [...values] : undefined)).rows as unknown[],
    close: async () => {
      await pool.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}
