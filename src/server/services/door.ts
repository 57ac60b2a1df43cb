import 'server-only';
import { randomBytes, randomUUID } from 'node:crypto';
import { and, asc, count, eq, gt, isNull, lt, not, sql } from 'drizzle-orm';
import { fail, ok, type Result } from '@/core/result';
import type { Database, Session } from '@/db/client';
import { access, signedIn, signInAttempt } from '@/db/schema/access';
import { now } from '../clock';
import { readToken, SIGNED_IN_MS, writeToken } from './door-cookie';
import { checkPassphrase, hashPassphrase, isPassphrase } from './passphrase';

/** At most so many wrong passphrases in so long, by everyone together (ASVS 4.0.3, 2.2.1: at most 100 an hour). */
const MOST_WRONG = 10;
const WINDOW_MS = 15 * 60_000;
const DAY_MS = 24 * 3600_000;
/** How often "last seen" is written. */
const SEEN_EVERY_MS = 60_000;

export type DoorProblem =
  | { readonly kind: 'closed' }
  | { readonly kind: 'wrong'; readonly triesLeft: number }
  | { readonly kind: 'wait'; readonly untilAt: Date };

export interface SignedIn {
  readonly cookie: string;
  readonly expiresAt: Date;
}

async function findAccess(session: Session) {
  return (await session.select().from(access))[0];
}

/** Opens the door with a passphrase. Everyone who was in has to come in again. */
export async function openDoor(
  database: Database,
  passphrase: string,
): Promise<Result<'open', { readonly message: string }>> {
  const good = checkPassphrase(passphrase);
  if (!good.ok) return good;
  const row = {
    passphraseHash: await hashPassphrase(good.value),
    cookieSecret: randomBytes(32).toString('base64url'),
    isOpen: true,
  };
  await database.transaction(async (session) => {
    await session.insert(access).values(row).onConflictDoUpdate({ target: access.only, set: row });
    await session.update(signedIn).set({ endedAt: now() }).where(isNull(signedIn.endedAt));
    await session.delete(signInAttempt).where(sql`true`);
  });
  return ok('open');
}

/** Shuts the door: whoever was in is out at once, whatever their cookie says. */
export async function closeDoor(database: Database): Promise<void> {
  await database.transaction(async (session) => {
    await session
      .update(access)
      .set({ isOpen: false, cookieSecret: randomBytes(32).toString('base64url') })
      .where(eq(access.only, true));
    await session.update(signedIn).set({ endedAt: now() }).where(isNull(signedIn.endedAt));
  });
}

/** Counts a try before its passphrase is looked at, so that tries at the same moment cannot outrun the limit. */
async function countTry(database: Database, id: string): Promise<Result<number, DoorProblem>> {
  return database.transaction(async (session) => {
    await session.execute(sql`select pg_advisory_xact_lock(7236501)`);
    const at = now();
    await session.delete(signInAttempt).where(lt(signInAttempt.at, new Date(at.getTime() - DAY_MS)));
    const since = new Date(at.getTime() - WINDOW_MS);
    const [wrong] = await session
      .select({ count: count(), first: sql<Date | null>`min(${signInAttempt.at})`.mapWith(signInAttempt.at) })
      .from(signInAttempt)
      .where(and(gt(signInAttempt.at, since), not(signInAttempt.wasRight)));
    const used = wrong?.count ?? 0;
    if (used >= MOST_WRONG)
      return fail({ kind: 'wait', untilAt: new Date((wrong?.first ?? at).getTime() + WINDOW_MS) } as const);
    await session.insert(signInAttempt).values({ id, at, wasRight: false });
    return ok(MOST_WRONG - used - 1);
  });
}

/** Lets a device in that knows the passphrase: a new signed cookie, never one that it brought along. */
export async function signIn(database: Database, passphrase: string): Promise<Result<SignedIn, DoorProblem>> {
  const found = await findAccess(database);
  if (!found?.isOpen) return fail({ kind: 'closed' });
  const attemptId = randomUUID();
  const counted = await countTry(database, attemptId);
  if (!counted.ok) return counted;
  if (!(await isPassphrase(passphrase, found.passphraseHash))) return fail({ kind: 'wrong', triesLeft: counted.value });
  const id = randomUUID();
  const at = now();
  const expiresAt = new Date(at.getTime() + SIGNED_IN_MS);
  await database.transaction(async (session) => {
    await session.update(signInAttempt).set({ wasRight: true }).where(eq(signInAttempt.id, attemptId));
    await session.insert(signedIn).values({ id, at, lastSeenAt: at });
  });
  return ok({ cookie: writeToken({ id, expiresAt }, found.cookieSecret), expiresAt });
}

/** Whether a request with this cookie may pass; writes down that it was seen. */
export async function mayPass(database: Database, cookie: string | undefined): Promise<boolean> {
  if (!cookie) return false;
  const found = await findAccess(database);
  const at = now();
  const token = found?.isOpen ? readToken(cookie, found.cookieSecret, at) : null;
  if (!token) return false;
  const [device] = await database
    .select()
    .from(signedIn)
    .where(and(eq(signedIn.id, token.id), isNull(signedIn.endedAt)));
  if (!device) return false;
  if (at.getTime() - device.lastSeenAt.getTime() > SEEN_EVERY_MS)
    await database.update(signedIn).set({ lastSeenAt: at }).where(eq(signedIn.id, device.id));
  return true;
}

/** Ends the stay that a cookie stands for; a cookie that was not made here ends nothing. */
export async function signOut(database: Database, cookie: string): Promise<void> {
  const found = await findAccess(database);
  const token = found ? readToken(cookie, found.cookieSecret, now()) : null;
  if (token) await letGo(database, token.id);
}

export async function letGo(database: Database, id: string): Promise<void> {
  await database
    .update(signedIn)
    .set({ endedAt: now() })
    .where(and(eq(signedIn.id, id), isNull(signedIn.endedAt)));
}

export interface Door {
  readonly isOpen: boolean;
  readonly devices: readonly { readonly id: string; readonly at: Date; readonly lastSeenAt: Date }[];
}

/** Whether phones are let in, and which are in now. */
export async function readDoor(database: Database): Promise<Door> {
  const [found, devices] = await Promise.all([
    findAccess(database),
    database
      .select({ id: signedIn.id, at: signedIn.at, lastSeenAt: signedIn.lastSeenAt })
      .from(signedIn)
      .where(and(isNull(signedIn.endedAt), gt(signedIn.at, new Date(now().getTime() - SIGNED_IN_MS))))
      .orderBy(asc(signedIn.at)),
  ]);
  return { isOpen: found?.isOpen ?? false, devices };
}
