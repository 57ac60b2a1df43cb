import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { isRunning } from './private-server.mjs';
import { say, stop } from './say.mjs';

const OLD_NAME = /^demo-[0-9a-f]{12}$/;
const isOldDatabase = (folder) => existsSync(join(folder, 'made')) && existsSync(join(folder, 'data', 'PG_VERSION'));

/** When a database was last written to: its server touches this file at every checkpoint. */
const lastUsed = (folder) => statSync(join(folder, 'data', 'global', 'pg_control')).mtimeMs;

/** Databases of earlier versions, which named their folder by the path of the checkout; the last used first. */
function oldDatabases(base) {
  if (!existsSync(base)) return [];
  return readdirSync(base)
    .filter((name) => OLD_NAME.test(name))
    .map((name) => join(base, name))
    .filter(isOldDatabase)
    .sort((a, b) => lastUsed(b) - lastUsed(a));
}

const nameFor = (checkout) => `demo-${createHash('sha256').update(checkout).digest('hex').slice(0, 12)}`;

/**
 * Folder of the private database inside the data folder. A database that an earlier version left there under the name of its
 * checkout is taken over: this checkout's own, else the last used.
 */
export function databaseFolder(base, checkout) {
  const folder = join(base, 'database');
  if (existsSync(folder)) return folder;
  const found = oldDatabases(base);
  const own = found.find((old) => old === join(base, nameFor(checkout))) ?? found[0];
  if (own === undefined) return folder;
  if (isRunning(own)) stop(`The database in ${own} is in use by an earlier Red Plumb. Stop that one first, then start again.`);
  renameSync(own, folder);
  say(`The data of an earlier Red Plumb was found in ${own}. It is now in ${folder}.`);
  const others = found.filter((old) => old !== own);
  if (others.length > 0)
    say(
      `Left as they are: ${others.join(', ')}. To use one of them instead: stop Red Plumb, move ${folder} away, and rename it to ${folder}.`,
    );
  return folder;
}

/** A folder that is made when it is missing; a clear message where that is not allowed. */
export function ensureFolder(folder, variable) {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    stop(`The folder ${folder} cannot be made (${error.code}). Set ${variable} to a folder that this user may write to.`);
  }
}

/** Where tests and benchmarks keep databases of their own: beside the usual data, named by the checkout. */
export function scratchFolder(name, isRoot = process.getuid?.() === 0) {
  const key = createHash('sha256').update(process.cwd()).digest('hex').slice(0, 12);
  const user = process.env.XDG_DATA_HOME ?? join(homedir(), '.local', 'share');
  return join(isRoot ? '/var/lib' : user, 'red-plumb', `${name}-${key}`);
}
