import 'server-only';
import { findShops } from '@/db/queries/shop';
import { database } from './database';

/** Where somebody goes who has no shop yet. */
export const WELCOME_PATH = '/welcome';

const kept = globalThis as unknown as { redPlumbHasShop?: true };

/** Whether a page that is asked for has no shop to show, so that the first page comes instead. Once there is one it is not asked again. */
export async function needsFirstPage(path: string): Promise<boolean> {
  if (kept.redPlumbHasShop === true || path === WELCOME_PATH) return false;
  try {
    if ((await findShops(database())).length === 0) return true;
    kept.redPlumbHasShop = true;
  } catch {
    // The page itself says what is wrong with the database.
  }
  return false;
}
