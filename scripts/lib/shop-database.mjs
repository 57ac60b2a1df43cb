/** The database of a shop: the private server or one of somebody's own, brought to the newest version. */
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureDatabase, importOwn, migrateDatabase, withConnection } from './database.mjs';
import { databaseFolder, ensureFolder } from './data-folder.mjs';
import { startPrivateServer } from './private-server.mjs';
import { runCaptured } from './run.mjs';
import { say, stop } from './say.mjs';

const NAME = 'red_plumb';
const KEPT_BACKUPS = 5;

/** A password in an address is not repeated. */
const shown = (url) => url.replace(/(:\/\/[^:@/]*):[^@/]*@/, '$1:***@');

/** What a failure to connect means for whoever set DATABASE_URL. */
function connectionProblem(error) {
  const { code, message } = error;
  if (code === 'ECONNREFUSED') return 'Nothing answers there. Is the server running, and is the port right?';
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'There is no such host.';
  if (code === 'ETIMEDOUT' || code === 'EHOSTUNREACH') return 'The host does not answer.';
  if (code === '28P01' || code === '28000') return `The server refused the user: ${message}.`;
  if (code === '3D000') return `${message}. Create it first.`;
  if (/SSL|TLS|certificate|self.signed/i.test(message)) return `The encrypted connection failed: ${message}.`;
  return `${message}.`;
}

async function checkOutside(url) {
  try {
    await withConnection(url, (client) => client.query('select 1'));
  } catch (error) {
    stop(`DATABASE_URL is "${shown(url)}". ${connectionProblem(error)}`);
  }
}

/** A copy of the whole database before an upgrade, read back by its own program; older ones beyond a few are dropped. */
async function backUp(server, folder, from) {
  ensureFolder(folder, 'RED_PLUMB_BACKUPS');
  mkdirSync(folder, { recursive: true });
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  const file = join(folder, `before-upgrade-from-${from}-${stamp}.dump`);
  const url = server.url(NAME);
  say(`Making a backup before the upgrade: ${file}`);
  const made = await runCaptured(join(server.bin, 'pg_dump'), ['-Fc', '-f', file, '-d', url]);
  const read = made.status === 0 && (await runCaptured(join(server.bin, 'pg_restore'), ['--list', file]));
  if (made.status !== 0 || read.status !== 0) {
    rmSync(file, { force: true });
    stop(`The backup before the upgrade failed, so nothing was changed:\n${shown(made.status === 0 ? read.output : made.output).trim()}`);
  }
  const old = readdirSync(folder).filter((name) => name.startsWith('before-upgrade-')).map((name) => join(folder, name));
  const byAge = old.sort((a, b) => (a.slice(-29) < b.slice(-29) ? 1 : -1));
  for (const dropped of byAge.slice(KEPT_BACKUPS)) rmSync(dropped);
}

async function bringUp(url, beforeUpgrade) {
  const { DatabaseUnfit } = await importOwn('db/migrations.ts');
  try {
    await migrateDatabase(url, { beforeUpgrade });
  } catch (error) {
    if (error?.name === DatabaseUnfit.name) stop(error.message);
    throw error;
  }
}

/**
 * @returns { url, server }: `server` is the private server, or null where the database is somebody else's.
 */
export async function openShopDatabase(settings) {
  if (settings.DATABASE_URL !== null) {
    await checkOutside(settings.DATABASE_URL);
    await bringUp(settings.DATABASE_URL);
    return { url: settings.DATABASE_URL, server: null };
  }
  const server = await startPrivateServer(databaseFolder(settings.RED_PLUMB_DATA, process.cwd()));
  try {
    await ensureDatabase(server, NAME);
    await bringUp(server.url(NAME), (from) => backUp(server, settings.RED_PLUMB_BACKUPS, from));
  } catch (error) {
    if (!server.wasRunning) await server.stop();
    throw error;
  }
  return { url: server.url(NAME), server };
}
