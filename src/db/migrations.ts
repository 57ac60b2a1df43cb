import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { Client, type ClientBase } from 'pg';

const FOLDER = 'drizzle';
/** One number for everyone who migrates: PostgreSQL tells advisory locks apart by it. */
const LOCK = 7_236_502;
const TABLE = '__drizzle_migrations';

/** A reason in words why a database cannot be used; nothing was changed in it. */
export class DatabaseUnfit extends Error {
  override readonly name = 'DatabaseUnfit';
}

interface Journal {
  readonly entries: readonly { readonly tag: string; readonly when: number }[];
}

const journal = (): Journal => JSON.parse(readFileSync(join(FOLDER, 'meta', '_journal.json'), 'utf8')) as Journal;

/** Names of all migrations that this version knows, oldest first. */
export const migrationNames = (): readonly string[] => journal().entries.map((e) => e.tag);

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** Where a database lists the migrations that it has, or where the list will be; whether it is there. */
interface MigrationList {
  readonly table: string;
  readonly isThere: boolean;
  readonly makeSchema: boolean;
}

/**
 * The list has a schema of its own where the user may make one; a user who owns nothing but one schema has it there.
 * @throws DatabaseUnfit where the user has no schema.
 */
async function findList(client: ClientBase): Promise<MigrationList> {
  const { rows } = await client.query<{ apart: boolean; beside: boolean; may: boolean; schema: string | null }>(
    `select to_regclass('drizzle.${TABLE}') is not null as apart, to_regclass(quote_ident(current_schema()) || '.${TABLE}') is not null as beside,
       has_database_privilege(current_user, current_database(), 'CREATE') as may, current_schema() as schema`,
  );
  const found = rows[0];
  const apart = `drizzle.${TABLE}`;
  if (found?.apart === true) return { table: apart, isThere: true, makeSchema: false };
  if (found === undefined || found.schema === null)
    throw new DatabaseUnfit(
      'The database user has no schema to work in. Make one and give it to the user: create schema red_plumb authorization the_user; alter role the_user set search_path = red_plumb;',
    );
  const beside = `${quoted(found.schema)}.${TABLE}`;
  if (found.beside || !found.may) return { table: beside, isThere: found.beside, makeSchema: false };
  return { table: apart, isThere: false, makeSchema: true };
}

const isNotAllowed = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '42501';

async function makeList(client: ClientBase, { table, isThere, makeSchema }: MigrationList): Promise<void> {
  if (isThere) return;
  try {
    if (makeSchema) await client.query('create schema if not exists drizzle');
    await client.query(
      `create table if not exists ${table} (id serial primary key, hash text not null, created_at bigint)`,
    );
  } catch (error) {
    if (!isNotAllowed(error)) throw error;
    const { rows } = await client.query<{ who: string; schema: string }>(
      'select current_user as who, current_schema() as schema',
    );
    const { who = '', schema = '' } = rows[0] ?? {};
    throw new DatabaseUnfit(
      `The database user ${who} may not make tables in the schema ${schema}. Make it the owner: alter schema ${quoted(schema)} owner to ${quoted(who)};`,
    );
  }
}

/** What a migration is about to do: called before the first change of a database that holds something. */
type BeforeUpgrade = (from: string, to: string) => Promise<void>;

interface MigrateOptions {
  /** The last migration to apply; absent: all. */
  readonly upTo?: string;
  readonly beforeUpgrade?: BeforeUpgrade;
}

async function applied(client: ClientBase, list: string): Promise<number> {
  const { rows } = await client.query<{ last: string | null }>(`select max(created_at) as last from ${list}`);
  return Number(rows[0]?.last ?? 0);
}

/** Name of the newest migration that a database has; null where it has none, or one that this version does not know. */
export async function newestMigration(client: ClientBase): Promise<string | null> {
  const { table, isThere } = await findList(client);
  const last = isThere ? await applied(client, table) : 0;
  return journal().entries.find((e) => e.when === last)?.tag ?? null;
}

async function apply(
  client: ClientBase,
  list: string,
  migrations: ReturnType<typeof readMigrationFiles>,
): Promise<void> {
  await client.query('begin');
  try {
    for (const { sql, hash, folderMillis } of migrations) {
      for (const statement of sql) await client.query(statement);
      await client.query(`insert into ${list} (hash, created_at) values ($1, $2)`, [hash, folderMillis]);
    }
    await client.query('commit');
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  }
}

const tagOf = (when: number): string => journal().entries.find((e) => e.when === when)?.tag ?? '';

/** Migrations that a database with this last one does not have. @throws DatabaseUnfit where its last one is unknown here. */
function openMigrations(last: number, upTo: string | undefined): ReturnType<typeof readMigrationFiles> {
  const { entries } = journal();
  if (last > (entries.at(-1)?.when ?? 0))
    throw new DatabaseUnfit(
      'This database was last used by a newer Red Plumb. Nothing was changed. Start that version again, or bring back a backup from before the upgrade.',
    );
  const end = upTo === undefined ? Infinity : (entries.find((e) => e.tag === upTo)?.when ?? 0);
  return readMigrationFiles({ migrationsFolder: FOLDER }).filter((m) => m.folderMillis > last && m.folderMillis <= end);
}

/**
 * Brings a database to the newest version, or leaves it as it was. Several processes may ask at once: one works, the others wait.
 * @throws DatabaseUnfit where the database was made by a newer version, or the user owns no schema.
 */
export async function migrate(client: ClientBase, options: MigrateOptions = {}): Promise<void> {
  await client.query('select pg_advisory_lock($1)', [LOCK]);
  try {
    const list = await findList(client);
    await makeList(client, list);
    const last = await applied(client, list.table);
    const open = openMigrations(last, options.upTo);
    if (open.length === 0) return;
    if (last > 0) await options.beforeUpgrade?.(tagOf(last), migrationNames().at(-1) ?? '');
    await apply(client, list.table, open);
  } finally {
    await client.query('select pg_advisory_unlock($1)', [LOCK]);
  }
}

/** `migrate` on a connection of its own. */
export async function migrateDatabase(url: string, options: MigrateOptions = {}): Promise<void> {
  const client = new Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  try {
    await migrate(client, options);
  } finally {
    await client.end();
  }
}
