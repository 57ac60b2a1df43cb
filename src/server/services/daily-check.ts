import 'server-only';
import { eq, sql } from 'drizzle-orm';
import type { KeepDailyCheckInput, KeepPolicyInput } from '@/contracts/trust';
import { readBorders } from '@/core/reading/borders';
import { fail, ok, type Result } from '@/core/result';
import type { Database } from '@/db/client';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { dailyCheck, dailyCheckTakenBack, policy } from '@/db/schema/trust';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';

const GONE = 'This printer + cutter or material is not there any more.';

/** Keeps the four borders of a finished piece and the shift that they tell. Sent twice, it is kept once. */
export async function keepDailyCheck(
  database: Database,
  actor: Actor,
  input: KeepDailyCheckInput,
): Promise<Result<string, Refusal>> {
  const row = await findSetup(database, input.setupId);
  const materials = row ? await findMaterials(database, row.setup.shopId) : [];
  if (!row || materials.every((m) => m.id !== input.materialId)) return fail(refusal(GONE));
  const { id, setupId, materialId, side, borders, borderSdMm, note } = input;
  const read = readBorders(borders, { side, nominalMm: null, borderSdMm, toleranceMm: row.setup.toleranceMm });
  if (!read.ok) return fail(refusal('A border is zero or more.'));
  const { shift, standardUncertaintyMm } = read.value;
  await database
    .insert(dailyCheck)
    .values({
      ...{ id, setupId, materialId, side, ...borders, borderSdMm, note, at: now(), by: actor.personId },
      ...{ acrossMm: shift.x, alongMm: shift.y, standardUncertaintyMm },
    })
    .onConflictDoNothing();
  return ok(id);
}

/** A mistyped check counts no more; it stays in the record. */
export async function takeBackDailyCheck(
  database: Database,
  actor: Actor,
  dailyCheckId: string,
): Promise<Result<string, Refusal>> {
  const [found] = await database.select().from(dailyCheck).where(eq(dailyCheck.id, dailyCheckId));
  if (!found) return fail(refusal('This check is not there.'));
  await database
    .insert(dailyCheckTakenBack)
    .values({ dailyCheckId, at: now(), by: actor.personId })
    .onConflictDoNothing();
  return ok(dailyCheckId);
}

/** Keeps when a setup is checked again. @returns its new version; refused where another screen changed it meanwhile. */
export async function keepPolicy(database: Database, input: KeepPolicyInput): Promise<Result<number, Refusal>> {
  const row = await findSetup(database, input.setupId);
  if (!row) return fail(refusal(GONE));
  const { version, ...values } = input;
  const kept =
    version === 0
      ? await database.insert(policy).values(values).onConflictDoNothing().returning({ version: policy.version })
      : await database
          .update(policy)
          .set({ ...values, version: sql`${policy.version} + 1` })
          .where(sql`${policy.id} = ${input.id} and ${policy.version} = ${version}`)
          .returning({ version: policy.version });
  const [done] = kept;
  return done ? ok(done.version) : fail(refusal('Another screen changed this meanwhile. Load the page again.'));
}
