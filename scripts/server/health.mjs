/** Whether the database answers and the disk has room: asked once a second, told to everyone who asks. */
import { statfs } from 'node:fs/promises';

const ASK_EVERY_MS = 1000;
const LONGEST_WAIT_MS = 3000;
/** Below this a database cannot be trusted to take a write, nor to start. */
const FULL_BYTES = 20e6;

async function askDatabase(pool) {
  try {
    await pool.query('select 1');
    return true;
  } catch {
    return false;
  }
}

async function askDisk(folder) {
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}

/**
 * @param {{ pool: import('pg').Pool, folder: string | undefined }} what is watched
 * @returns { state(), ask(), end() }: `state` is { database: 'ready' | 'stopped', disk: 'enough' | 'full' }.
 */
export function watchHealth({ pool, folder }) {
  let state = { database: 'ready', disk: 'enough' };
  let timer;
  let isEnding = false;
  const ask = async () => {
    const [isReady, free] = await Promise.all([askDatabase(pool), folder ? askDisk(folder) : null]);
    state = {
      database: isReady ? 'ready' : 'stopped',
      disk: free !== null && free < FULL_BYTES ? 'full' : 'enough',
    };
    return state;
  };
  const next = async () => {
    await ask();
    if (!isEnding) timer = setTimeout(next, ASK_EVERY_MS);
  };
  void next();
  return {
    state: () => state,
    ask,
    end: () => {
      isEnding = true;
      clearTimeout(timer);
    },
  };
}

export const POOL = { max: 1, connectionTimeoutMillis: LONGEST_WAIT_MS, query_timeout: LONGEST_WAIT_MS };
