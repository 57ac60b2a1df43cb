import 'server-only';
import { LRUCache } from 'lru-cache';

interface Kept {
  readonly mark: string;
  readonly rows: readonly unknown[];
}

/** So many rows are remembered by a process, what was asked for last: a thousand setups of a bench, some 50 MB. */
const MOST_ROWS = 200_000;

const kept = new LRUCache<string, Kept>({ maxSize: MOST_ROWS, sizeCalculation: ({ rows }) => rows.length + 1 });

/**
 * Rows of a record that is only ever added to, remembered by a mark of their identities: the same identities are the same
 * rows, and these are the very same object, so that what was worked out from them can be known to hold.
 */
export function keptRows(key: string, mark: string): readonly unknown[] | undefined {
  const found = kept.get(key);
  return found?.mark === mark ? found.rows : undefined;
}

export function keepRows(key: string, mark: string, rows: readonly unknown[]): readonly unknown[] {
  kept.set(key, { mark, rows });
  return rows;
}

/** Nothing is remembered any more: for what is to be measured, or held, against being read anew. */
export function forgetRows(): void {
  kept.clear();
}
