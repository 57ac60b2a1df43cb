import { endChild } from './children.mjs';

const LOOK_EVERY_MS = 1000;

/** Whether the shop lets phones in, asked of the database over one kept connection; null where it does not answer. */
export async function askDoor(url) {
  const { default: pg } = await import('pg');
  const pool = new pg.Pool({ connectionString: url, max: 1, connectionTimeoutMillis: 5000, query_timeout: 5000 });
  pool.on('error', () => undefined);
  return {
    isOpen: async () => {
      try {
        return (await pool.query('select 1 from access where is_open')).rowCount > 0;
      } catch {
        return null;
      }
    },
    end: () => pool.end(),
  };
}

/**
 * Keeps a second process of the application, reachable from the network and asking everyone to sign in, for as long as
 * phones are let in; while nobody can tell, it stays as it is. `start` gives a child process; one that ends by itself is started
 * again at the next look.
 */
export function keepDoor({ isOpen, start, lookEveryMs = LOOK_EVERY_MS }) {
  let child = null;
  let isEnding = false;
  let timer;
  const look = async () => {
    const wanted = await isOpen();
    if (isEnding) return;
    if (wanted && !child) {
      child = start();
      const mine = child;
      mine.on('close', () => {
        if (child === mine) child = null;
      });
    }
    if (wanted === false && child) {
      void endChild(child);
      child = null;
    }
    timer = setTimeout(look, lookEveryMs);
  };
  void look();
  return {
    end: () => {
      isEnding = true;
      clearTimeout(timer);
      return endChild(child);
    },
  };
}
