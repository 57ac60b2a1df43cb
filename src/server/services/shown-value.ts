import 'server-only';
import { fail, ok, type Result } from '@/core/result';
import { isOnStep } from '@/core/setting/check-typed';
import type { Database } from '@/db/client';
import { findSetting, findSettingNow } from '@/db/queries/settings';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { logChanged, storeValue } from './typed-settings';
import { strangerTo } from './own-shop';

export interface ShownValue {
  readonly id: string;
  readonly settingId: string;
  readonly value: number;
}

/** What a machine's display really shows, told by hand: somebody turned it, or the record was wrong from the start. */
export async function tellShownValue(
  database: Database,
  actor: Actor,
  input: ShownValue,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { settingId: input.settingId });
  if (stranger) return fail(stranger);
  const row = await findSetting(database, input.settingId);
  const setting = row ? await findSettingNow(database, row) : undefined;
  if (!row || !setting) return fail(refusal('This setting is not there any more.'));
  const { displayName, minValue, maxValue, step } = setting;
  if (input.value < minValue || input.value > maxValue)
    return fail(refusal(`${displayName}: ${input.value} lies outside ${minValue} to ${maxValue}.`));
  if (!isOnStep(input.value, step))
    return fail(refusal(`${displayName}: ${input.value} is not a step of ${step}. Type what the display shows.`));
  if (input.value === setting.value) return ok(input.id);
  await database.transaction(async (session) => {
    await storeValue(session, actor, { ...input, source: 'typed', correctionId: null });
    await logChanged(session, actor, { owners: row, at: now() }, [
      { setting, before: setting.value, after: input.value },
    ]);
  });
  return ok(input.id);
}
