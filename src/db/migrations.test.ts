import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { StoredOwnTest } from '@/contracts/stored';
import { DatabaseUnfit, migrateDatabase, migrationNames, newestMigration } from './migrations';

jest.setTimeout(60_000);

const server = process.env.TEST_DATABASE_URL ?? '';
const mark = randomUUID().replaceAll('-', '').slice(0, 12);
const made: { readonly databases: string[]; readonly roles: string[] } = { databases: [], roles: [] };
let admin: Client;

async function on<T>(url: string, work: (client: Client) => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

async function emptyDatabase(what: string): Promise<string> {
  const name = `migrate_${what}_${mark}`;
  made.databases.push(name);
  await admin.query(`create database ${name} template template0`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  return url.toString();
}

/** The same database for a user who owns one schema in it, and nothing else. */
async function asOwnerOf(schema: string, url: string): Promise<string> {
  const role = `owner_${schema}_${mark}`;
  made.roles.push(role);
  await admin.query(`create role ${role} login password 'only-in-this-test' nosuperuser nocreatedb nocreaterole`);
  await on(url, async (client) => {
    await client.query(`create schema if not exists ${schema}`);
    await client.query(`alter schema ${schema} owner to ${role}`);
    await client.query(`revoke all on database ${new URL(url).pathname.slice(1)} from public`);
    await client.query(`grant connect on database ${new URL(url).pathname.slice(1)} to ${role}`);
    await client.query(`alter role ${role} set search_path = ${schema}`);
  });
  const own = new URL(url);
  own.username = role;
  own.password = 'only-in-this-test';
  return own.toString();
}

const tables = (url: string) =>
  on(url, async (client) => {
    const { rows } = await client.query<{ name: string }>(
      `select table_name as name from information_schema.tables where table_schema = current_schema() and table_type = 'BASE TABLE' order by 1`,
    );
    return rows.map((r) => r.name).filter((name) => !name.startsWith('__'));
  });

beforeAll(async () => {
  admin = new Client({ connectionString: server });
  await admin.connect();
});

afterAll(async () => {
  for (const name of made.databases) await admin.query(`drop database if exists ${name} with (force)`);
  for (const role of made.roles) await admin.query(`drop role if exists ${role}`);
  await admin.end();
});

it('several processes migrate one empty database at once: all of it is there, once', async () => {
  const url = await emptyDatabase('many');
  await Promise.all(Array.from({ length: 5 }, () => migrateDatabase(url)));
  expect(await tables(url)).toContain('calibration');
  await on(url, async (client) => {
    const { rows } = await client.query('select count(*)::int as n from drizzle.__drizzle_migrations');
    expect(rows).toEqual([{ n: migrationNames().length }]);
    expect(await newestMigration(client)).toBe(migrationNames().at(-1));
  });
});

it('stops at the one that is asked for, tells before it changes what holds something, and then goes on', async () => {
  const url = await emptyDatabase('steps');
  const told: string[] = [];
  const beforeUpgrade = (from: string, to: string): Promise<void> => Promise.resolve(void told.push(`${from} ${to}`));
  await migrateDatabase(url, { upTo: '0005_shop_guards', beforeUpgrade });
  expect(told).toEqual([]);
  expect(await tables(url)).not.toContain('roll_run');
  await migrateDatabase(url, { beforeUpgrade });
  expect(told).toEqual([`0005_shop_guards ${migrationNames().at(-1) ?? ''}`]);
  await migrateDatabase(url, { beforeUpgrade });
  expect(told).toHaveLength(1);
});

it('a row of test lines that was described before stands for both axes', async () => {
  const url = await emptyDatabase('rows');
  await migrateDatabase(url, { upTo: '0030_sheet_codes' });
  await on(url, async (client) => {
    await client.query('set session_replication_role = replica');
    const described = [
      { first: 1, last: 15, middle: 8, stepMm: null },
      { first: -5, last: 5, middle: 0, stepMm: 0.1 },
    ];
    for (const [i, ladder] of [...described, null].entries())
      await client.query(
        `insert into cutter (id, shop_id, name, file_across, file_along, feeds, file_format, ladder) values (gen_random_uuid(), gen_random_uuid(), $1, '+x', '+y', 'away', 'hpgl', $2)`,
        [`cutter ${i}`, ladder],
      );
  });
  await migrateDatabase(url);
  const kept = await on(url, (client) =>
    client.query<{ own_test: unknown }>('select own_test from cutter order by name'),
  );
  const row = { labels: 'numbers', firstNumber: 1, lines: 15, middle: 8, takesHalves: true, stepMm: null };
  const signed = { ...row, labels: 'signed', firstNumber: -5, lines: 11, middle: 6, stepMm: 0.1 };
  expect(kept.rows.map((r) => r.own_test)).toEqual([
    { across: row, along: row, sheet: 'own' },
    { across: signed, along: signed, sheet: 'own' },
    null,
  ]);
  for (const { own_test: own } of kept.rows) if (own !== null) expect(StoredOwnTest.safeParse(own).success).toBe(true);
});

it('a backup that fails stops the upgrade: nothing is changed', async () => {
  const url = await emptyDatabase('stopped');
  await migrateDatabase(url, { upTo: '0005_shop_guards' });
  const before = await tables(url);
  await expect(migrateDatabase(url, { beforeUpgrade: () => Promise.reject(new Error('no room')) })).rejects.toThrow(
    'no room',
  );
  expect(await tables(url)).toEqual(before);
});

it('a database that a newer version has used is refused in words, and left as it is', async () => {
  const url = await emptyDatabase('newer');
  await migrateDatabase(url);
  await on(url, (client) =>
    client.query(`insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 99999999999999)`),
  );
  const refused = migrateDatabase(url);
  await expect(refused).rejects.toBeInstanceOf(DatabaseUnfit);
  await expect(refused).rejects.toThrow(/newer Red Plumb. Nothing was changed/);
});

it.each(['public', 'plumb'])(
  'a user who owns the schema %s and nothing else gets every table, twice without harm',
  async (schema) => {
    const everything = await tables(
      await emptyDatabase(`whole_${schema}`).then(async (url) => (await migrateDatabase(url), url)),
    );
    const url = await asOwnerOf(schema, await emptyDatabase(`least_${schema}`));
    await migrateDatabase(url);
    await migrateDatabase(url);
    expect(await tables(url)).toEqual(everything);
    await on(url, async (client) => {
      expect(await newestMigration(client)).toBe(migrationNames().at(-1));
      const { rows } = await client.query(`select 1 from pg_namespace where nspname = 'drizzle'`);
      expect(rows).toEqual([]);
      // The guards are there as well.
      await client.query(
        `insert into sheet_definition (id, code, content, content_sha256, generator_version) values (gen_random_uuid(), 'x', '{}', decode(repeat('00', 32), 'hex'), 1)`,
      );
      await expect(client.query(`delete from sheet_definition`)).rejects.toMatchObject({ code: 'RP001' });
    });
  },
);

it('says what to do for a user who owns nothing', async () => {
  const url = await emptyDatabase('nothing');
  const own = await asOwnerOf('other', url);
  await on(url, (client) => client.query('revoke create on schema public from public'));
  const role = new URL(own).username;
  await admin.query(`alter role ${role} set search_path = public`);
  await expect(migrateDatabase(own)).rejects.toThrow(`alter schema "public" owner to "${role}"`);
  await admin.query(`alter role ${role} set search_path = missing`);
  await expect(migrateDatabase(own)).rejects.toThrow(/has no schema to work in/);
});
