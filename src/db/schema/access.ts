import { sql } from 'drizzle-orm';
import { boolean, check, index, pgTable, text, timestamp } from 'drizzle-orm/pg-core';
import { id, instant } from './columns';

/** The door for phones: nobody comes in from beyond this machine while there is no row or it is closed. */
export const access = pgTable(
  'access',
  {
    only: boolean().primaryKey().default(true),
    passphraseHash: text().notNull(),
    /** Signs the cookies of those who came in; a new passphrase or a closed door makes a new one. */
    cookieSecret: text().notNull(),
    isOpen: boolean().notNull(),
  },
  (t) => [check('access_only', sql`${t.only}`)],
);

/** One device that came in with the passphrase. */
export const signedIn = pgTable(
  'signed_in',
  {
    id: id(),
    at: instant(),
    lastSeenAt: instant(),
    /** Set when it signed out or was let go; absent: still in until it expires. */
    endedAt: timestamp({ withTimezone: true }),
  },
  (t) => [index('signed_in_at').on(t.at)],
);

/** Tries at the door of the last day: they limit how fast a passphrase can be guessed. */
export const signInAttempt = pgTable(
  'sign_in_attempt',
  { id: id(), at: instant(), wasRight: boolean().notNull() },
  (t) => [index('sign_in_attempt_at').on(t.at)],
);
