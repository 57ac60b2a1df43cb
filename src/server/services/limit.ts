import 'server-only';
import { eq } from 'drizzle-orm';
import type { SetLimitInput } from '@/contracts/shop';
import { fail, ok, type Result } from '@/core/result';
import { formatLength } from '@/core/units/length';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { event } from '@/db/schema/correction';
import { setup } from '@/db/schema/machines';
import { LIMIT_CHANGED } from '@/core/trust/event-kinds';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { allOrNothing } from './check-guard';
import { strangerTo } from './own-shop';

export const LEAST_LIMIT_MM = 0.05;
export const LARGEST_LIMIT_MM = 5;

/** Sets how far the cut of one printer + cutter may be off and still be good work. Every screen judges by it from then on. */
export async function setLimit(
  database: Database,
  actor: Actor,
  { id, setupId, limitMm }: SetLimitInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId });
  if (stranger) return fail(stranger);
  if (!(limitMm >= LEAST_LIMIT_MM && limitMm <= LARGEST_LIMIT_MM))
    return fail(refusal(`Limit: expected ${LEAST_LIMIT_MM} to ${LARGEST_LIMIT_MM} mm.`));
  return allOrNothing(database, async (session) => {
    const found = await findSetup(session, setupId);
    if (!found) return fail(refusal('This printer + cutter no longer exists. Nothing was saved.'));
    const before = found.setup.toleranceMm;
    if (before === limitMm) return ok(setupId);
    await session.update(setup).set({ toleranceMm: limitMm }).where(eq(setup.id, setupId));
    const note = `${formatLength(before, 'mm')} \u2192 ${formatLength(limitMm, 'mm')}`;
    await session
      .insert(event)
      .values({ id, setupId, kind: LIMIT_CHANGED, note, at: now(), by: actor.personId })
      .onConflictDoNothing();
    return ok(setupId);
  });
}
