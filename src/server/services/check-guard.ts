import 'server-only';
import { eq } from 'drizzle-orm';
import { fail, type Result } from '@/core/result';
import type { Database, Session } from '@/db/client';
import { calibration } from '@/db/schema/calibration';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';
import { loadRecord, type CalibrationRecord } from './record';

export const CHECK_GONE = refusal('This check no longer exists. Nothing was saved.');
const CLOSED = {
  saved: refusal('This check is already saved, so nothing was changed. Start a new check to go on.'),
  abandoned: refusal('This check was cancelled, perhaps in another tab. Nothing was changed. Reopen it to go on.'),
} as const;

/**
 * Locks a check's row for the rest of the transaction: commands on one check run one after another.
 * @returns why nothing may be written to it, or null where it is open.
 */
export async function lockOpenCheck(session: Session, calibrationId: string): Promise<Refusal | null> {
  const [row] = await session
    .select({ state: calibration.state })
    .from(calibration)
    .where(eq(calibration.id, calibrationId))
    .for('update');
  if (!row) return CHECK_GONE;
  return row.state === 'open' ? null : CLOSED[row.state];
}

/** Ends a transaction in which a command was refused after it had begun to write. */
class RefusedInside extends Error {
  constructor(readonly refused: Refusal) {
    super(refused.message);
  }
}

/** A transaction whose writes stand only when the work inside succeeds. */
export async function allOrNothing<T>(
  database: Database,
  work: (session: Database) => Promise<Result<T, Refusal>>,
): Promise<Result<T, Refusal>> {
  try {
    return await database.transaction(async (session) => {
      const done = await work(session);
      if (!done.ok) throw new RefusedInside(done.error);
      return done;
    });
  } catch (error) {
    if (error instanceof RefusedInside) return fail(error.refused);
    throw error;
  }
}

/** Answer of a command that ends a test of one kind, where it was ended before. */
export const endedBefore =
  (kind: CalibrationRecord['calibration']['kind']) =>
  ({ calibration: own }: CalibrationRecord): string | undefined =>
    own.kind === kind && own.state === 'saved' ? own.id : undefined;

/** What a command names that needs nothing but its check. */
export interface OfCheck {
  readonly calibrationId: string;
}

interface Command<T> extends OfCheck {
  /** Answer of this very command when it was carried out before: a retry is answered, not refused. */
  readonly replay?: (record: CalibrationRecord) => T | undefined;
}

/**
 * Runs one command on an open check: its row locked, its record read under that lock. A check that was saved or cancelled
 * meanwhile, in whatever tab, refuses every command; so does one of another shop.
 */
export async function onOpenCheck<T>(
  database: Database,
  actor: Actor,
  { calibrationId, replay }: Command<T>,
  work: (session: Database, record: CalibrationRecord) => Promise<Result<T, Refusal>>,
): Promise<Result<T, Refusal>> {
  const stranger = await strangerTo(database, actor, { calibrationId });
  if (stranger) return fail(stranger);
  return allOrNothing(database, async (session) => {
    const closed = await lockOpenCheck(session, calibrationId);
    const record = await loadRecord(session, calibrationId);
    if (!record) return fail(CHECK_GONE);
    const before = replay?.(record);
    if (before !== undefined) return { ok: true, value: before };
    return closed ? fail(closed) : work(session, record);
  });
}
