import 'server-only';
import { Client } from 'pg';
import { migrate, migrateDatabase } from '../migrations';

export const nameOfDatabase = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));

/** The same server and user, another database. */
export function urlOf(url: string, name: string): string {
  const other = new URL(url);
  other.pathname = `/${encodeURIComponent(name)}`;
  return other.toString();
}

/** A connection of its own: whoever asks for it ends it. @param name what the server calls it, to be told apart. */
export async function connect(url: string, name = 'red-plumb-archive'): Promise<Client> {
  const client = new Client({ connectionString: url, application_name: name });
  // A connection that is cut while nothing is asked of it: the next question tells.
  client.on('error', () => undefined);
  await client.connect();
  return client;
}

/** Runs work on a connection of its own, which is ended whatever happens. */
export async function onConnection<T>(url: string, work: (client: Client) => Promise<T>): Promise<T> {
  const client = await connect(url);
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;
/** The database that every server has: where others are made, dropped and renamed from. */
const maintenance = (url: string): string => urlOf(url, 'postgres');

/** Brings a database to the newest schema. */
export const migrateToNewest = (url: string): Promise<void> => migrateDatabase(url);

export async function dropDatabase(url: string, name: string): Promise<void> {
  await onConnection(maintenance(url), (client) =>
    client.query(`drop database if exists ${quoted(name)} with (force)`),
  );
}

/** The schema that holds the tables. A database that is made beside another one has its tables in a schema of the same name. */
const schemaOf = (url: string): Promise<string> =>
  onConnection(url, async (client) => {
    const { rows } = await client.query<{ name: string }>('select current_schema() as name');
    return rows[0]?.name ?? 'public';
  });

/** An empty database with the tables of one version. An earlier one of that name is dropped. @param schema a migration's name. */
export async function makeDatabase(url: string, name: string, schema: string): Promise<void> {
  await dropDatabase(url, name);
  await onConnection(maintenance(url), (client) =>
    client.query(`create database ${quoted(name)} template template0 encoding 'UTF8'`),
  );
  await onConnection(urlOf(url, name), async (client) => {
    await client.query(`create schema if not exists ${quoted(await schemaOf(url))}`);
    await migrate(client, { upTo: schema });
  });
}

/** Runs work while nobody else does the same beside this database; null where somebody does. */
export async function onlyOne<T>(url: string, work: () => Promise<T>): Promise<{ readonly done: T } | null> {
  return onConnection(maintenance(url), async (client) => {
    const { rows } = await client.query<{ isMine: boolean }>(
      `select pg_try_advisory_lock(hashtext('red-plumb archive ' || $1)) as "isMine"`,
      [nameOfDatabase(url)],
    );
    return rows[0]?.isMine === true ? { done: await work() } : null;
  });
}

/** What is kept beside a database: a few words of its own, or null where there is none of that name. */
export async function readMark(url: string, name: string): Promise<string | null> {
  return onConnection(url, async (client) => {
    const { rows } = await client.query<{ mark: string | null }>(
      `select shobj_description(oid, 'pg_database') as mark from pg_database where datname = $1`,
      [name],
    );
    return rows[0]?.mark ?? null;
  });
}

export async function writeMark(url: string, name: string, mark: string): Promise<void> {
  await onConnection(maintenance(url), (client) =>
    client.query(`comment on database ${quoted(name)} is '${mark.replaceAll("'", "''")}'`),
  );
}

/** What the server calls the connection that keeps writers out while a database is being replaced. */
export const HOLDER = 'red-plumb-holder';

const LOOK_EVERY_MS = 20;
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));

/** Whether this user may make and rename databases and cut off others. */
export async function mayMakeDatabases(url: string): Promise<boolean> {
  return onConnection(url, async (client) => {
    const { rows } = await client.query<{ may: boolean }>(
      'select rolsuper or rolcreatedb as may from pg_roles where rolname = current_user',
    );
    return rows[0]?.may === true;
  });
}

/**
 * Takes one database's place by another, in one transaction: either all names change or none. What was put aside before is
 * kept until then, and dropped. `letHolderGo` ends the connection that keeps writers out: only when nobody can come in any
 * more, so that nothing is written to what is being put aside. Everyone else is cut off and finds the new one when they ask again.
 */
export async function swapDatabases(
  url: string,
  names: { readonly present: string; readonly fresh: string; readonly aside: string },
  letHolderGo: () => Promise<void>,
): Promise<void> {
  const old = `${names.aside}_old`;
  await dropDatabase(url, old);
  await onConnection(maintenance(url), async (swapper) =>
    onConnection(maintenance(url), async (helper) => {
      await swapper.query('begin');
      const { rowCount } = await helper.query('select 1 from pg_database where datname = $1', [names.aside]);
      if (rowCount === 1) {
        await cutOff(helper, names.aside);
        await swapper.query(`alter database ${quoted(names.aside)} rename to ${quoted(old)}`);
      }
      const rename = { isDone: false };
      // Takes the lock that new connections wait for, then waits itself until the last of the present ones has gone.
      const renamed = swapper
        .query(`alter database ${quoted(names.present)} rename to ${quoted(names.aside)}`)
        .finally(() => (rename.isDone = true));
      renamed.catch(() => undefined);
      await untilLocked(helper, names.present, () => rename.isDone);
      await cutOff(helper, names.present);
      await letHolderGo();
      while (!rename.isDone) {
        await cutOff(helper, names.present);
        await pause(LOOK_EVERY_MS);
      }
      await renamed;
      await cutOff(helper, names.fresh);
      await swapper.query(`alter database ${quoted(names.fresh)} rename to ${quoted(names.present)}`);
      await swapper.query('commit');
    }),
  );
  await dropDatabase(url, old);
}

async function untilLocked(helper: Client, name: string, isDone: () => boolean): Promise<void> {
  while (!isDone()) {
    const { rowCount } = await helper.query(
      `select 1 from pg_locks l join pg_database d on d.oid = l.objid
       where l.classid = 'pg_database'::regclass and l.mode = 'AccessExclusiveLock' and l.granted and d.datname = $1`,
      [name],
    );
    if ((rowCount ?? 0) > 0) return;
    await pause(LOOK_EVERY_MS);
  }
}

/** Ends every connection to a database other than those that hold it for us. */
async function cutOff(helper: Client, name: string): Promise<void> {
  await helper.query(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and application_name <> $2`,
    [name, HOLDER],
  );
}
