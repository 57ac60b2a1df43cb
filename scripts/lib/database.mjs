/** What the commands do with a database. Packages must be installed before any of it is called. */

/** Imports one of the application's own modules, written in TypeScript. */
export async function importOwn(path) {
  const { tsImport } = await import('tsx/esm/api');
  return tsImport(new URL(`../../src/${path}`, import.meta.url).href, import.meta.url);
}

/** Runs work on one connection. */
export async function withConnection(url, work) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Makes a database where there is none of that name. */
export async function ensureDatabase(server, name) {
  await withConnection(server.url('postgres'), async (client) => {
    const found = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (found.rowCount === 0) await client.query(`create database "${name}"`);
  });
}

/** Brings a database to the newest version: see src/db/migrations.ts. */
export async function migrateDatabase(url, options) {
  const { migrateDatabase: migrate } = await importOwn('db/migrations.ts');
  await migrate(url, options);
}
