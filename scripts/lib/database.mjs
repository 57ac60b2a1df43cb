import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(`${process.cwd()}/package.json`);

/** Runs work on one connection. */
export async function withConnection(url, work) {
  const { Client } = require('pg');
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

export async function ensureDatabase(cluster, name) {
  return withConnection(cluster.url('postgres'), async (client) => {
    const found = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (found.rowCount === 0) await client.query(`create database "${name}"`);
    return found.rowCount === 0;
  });
}

/** Brings a database to the newest migration. */
export async function migrateDatabase(url) {
  const { drizzle } = require('drizzle-orm/node-postgres');
  const { migrate } = require('drizzle-orm/node-postgres/migrator');
  await withConnection(url, (client) => migrate(drizzle({ client }), { migrationsFolder: 'drizzle' }));
}

/** Names of all migrations, as a mark of what a database should hold. */
export const migrationNames = () =>
  JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')).entries.map((e) => e.tag);
