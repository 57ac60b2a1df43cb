import 'server-only';
import { eq, sql } from 'drizzle-orm';
import type { KeepDailyCheckInput, KeepDiscCheckInput, KeepPolicyInput } from '@/contracts/trust';
import { readBorders } from '@/core/reading/borders';
import { readDiscs } from '@/core/reading/disc-check';
import { fail, ok, type Result } from '@/core/result';
import type { Database } from '@/db/client';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { dailyCheck, dailyCheckTakenBack, dailyDisc, policy } from '@/db/schema/trust';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';

const GONE = 'This printer + cutter or material is not there any more.';

/** The setup that is checked, where it and the material are there. */
async function checkedSetup(database: Database, asked: { readonly setupId: string; readonly materialId: string }) {
  const row = await findSetup(database, asked.setupId);
  const materials = row ? await findMaterials(database, row.setup.shopId) : [];
  return materials.some((m) => m.id === asked.materialId) ? row : undefined;
}

/** Keeps the four borders of a finished piece and the shift that they tell. Sent twice, it is kept once. */
export async function keepDailyCheck(
  database: Database,
  actor: Actor,
  input: KeepDailyCheckInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  const row = await checkedSetup(database, input);
  if (!row) return fail(refusal(GONE));
  const { id, setupId, materialId, method, side, borders, borderSdMm, note } = input;
  const read = readBorders(borders, { side, nominalMm: null, borderSdMm, toleranceMm: row.setup.toleranceMm });
  if (!read.ok) return fail(refusal('A border is zero or more.'));
  const { shift, standardUncertaintyMm } = read.value;
  await database
    .insert(dailyCheck)
    .values({
      ...{ id, setupId, materialId, method, side, ...borders, borderSdMm, note, at: now(), by: actor.personId },
      ...{ acrossMm: shift.x, alongMm: shift.y, standardUncertaintyMm },
    })
    .onConflictDoNothing();
  return ok(id);
}

/** Keeps what the two small discs beside the work tell of the shift, and each of them. Sent twice, it is kept once. */
export async function keepDiscCheck(
  database: Database,
  actor: Actor,
  input: KeepDiscCheckInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  if (!(await checkedSetup(database, input))) return fail(refusal(GONE));
  const { id, setupId, materialId, one, other, note } = input;
  const { shift, standardUncertaintyMm } = readDiscs(one, other);
  await database.transaction(async (t) => {
    const [kept] = await t
      .insert(dailyCheck)
      .values({
        ...{ id, setupId, materialId, method: 'discs' as const, note, at: now(), by: actor.personId },
        ...{ acrossMm: shift.x, alongMm: shift.y, standardUncertaintyMm },
      })
      .onConflictDoNothing()
      .returning({ id: dailyCheck.id });
    if (kept) await t.insert(dailyDisc).values([one, other].map((disc) => ({ dailyCheckId: id, ...disc })));
  });
  return ok(id);
}

/** A mistyped check counts no more; it stays in the record. */
export async function takeBackDailyCheck(
  database: Database,
  actor: Actor,
  dailyCheckId: string,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { dailyCheckId });
  if (stranger) return fail(stranger);
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
  const stranger = await strangerTo(database, null, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
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
