import 'server-only';
import { randomUUID } from 'node:crypto';
import type { FeedDirection } from '@/core/geometry/load';
import { fail, ok, type Result } from '@/core/result';
import { typedFor } from '@/core/setting/machine-setting';
import type { SettingChange } from '@/core/setting/plan-settings';
import type { Database } from '@/db/client';
import { findHistoryEntry } from '@/db/queries/bench';
import { findSettings, findSettingValuesAt, ownersOf, type SettingOwners } from '@/db/queries/settings';
import { findSetup } from '@/db/queries/shop';
import { correction, historyEntry } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { storeTyped, typedProblem } from './typed-settings';
import { strangerTo } from './own-shop';

export interface PutBackPlan {
  readonly changes: readonly SettingChange[];
  readonly owners: SettingOwners;
  readonly feeds: FeedDirection;
}

/**
 * What must be keyed in so that the machine stands as it did at an earlier entry: every setting of the cutter, also those
 * that the entry itself left alone. Settings that have not changed since are not named.
 */
export async function putBackPlan(database: Database, historyEntryId: string): Promise<PutBackPlan | null> {
  const row = await findHistoryEntry(database, historyEntryId);
  const setupRow = row ? await findSetup(database, row.entry.setupId) : undefined;
  if (!row || !setupRow) return null;
  const present = await findSettings(database, ownersOf(setupRow), { x: 0, y: 0 });
  const valuesThen = await findSettingValuesAt(
    database,
    present.map((s) => s.id),
    row.entry.at,
  );
  const changes = present.flatMap((setting): SettingChange[] => {
    const after = valuesThen.get(setting.id);
    // A wizard's value is hidden: it can be neither read nor put back.
    if (after === undefined || after === setting.value || setting.kind === 'wizard') return [];
    return [{ setting, before: setting.value, after, toType: typedFor(setting, after), isAtLimit: false }];
  });
  return { changes, owners: ownersOf(setupRow), feeds: setupRow.cutter.feeds };
}

export interface PutBackInput {
  readonly id: string;
  readonly historyEntryId: string;
  /** What was typed back, by machine setting id. */
  readonly typed: Readonly<Record<string, number>>;
}

/** Puts the machine back to how it stood at an earlier entry, as a new entry. It still has to be confirmed by a cut. */
export async function putBack(database: Database, actor: Actor, input: PutBackInput): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { historyEntryId: input.historyEntryId });
  if (stranger) return fail(stranger);
  const known = await findHistoryEntry(database, input.id);
  if (known) return ok(input.id);
  const row = await findHistoryEntry(database, input.historyEntryId);
  const original = row?.correction;
  const plan = await putBackPlan(database, input.historyEntryId);
  if (!row || !original || !plan) return fail(refusal('This entry is not there any more.'));
  const problem = typedProblem(plan.changes, input.typed);
  if (problem) return fail(refusal(problem));
  const correctionId = randomUUID();
  const owner = { setupId: row.entry.setupId, materialId: row.entry.materialId, at: now(), by: actor.personId };
  await database.transaction(async (session) => {
    await session.insert(correction).values({
      id: correctionId,
      ...owner,
      putBackOfId: original.id,
      objective: original.objective,
      fileCorrection: original.fileCorrection,
      predictedLeftoverMm: original.predictedLeftoverMm,
    });
    await storeTyped(session, actor, correctionId, { ...plan, typed: input.typed, source: 'put_back', at: owner.at });
    await session
      .insert(historyEntry)
      .values({ id: input.id, ...owner, kind: 'put_back', correctionId, note: '', at: now() });
  });
  return ok(input.id);
}
