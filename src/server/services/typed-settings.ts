import 'server-only';
import { randomUUID } from 'node:crypto';
import type { FeedDirection } from '@/core/geometry/load';
import { checkTyped, valueAfterTyping } from '@/core/setting/check-typed';
import type { SettingChange } from '@/core/setting/plan-settings';
import type { Session } from '@/db/client';
import { nextSettingSeq } from '@/db/queries/shop';
import { correctionSetting, correctionTyped } from '@/db/schema/correction';
import { settingValue } from '@/db/schema/shop';
import { now } from '../clock';
import type { Actor } from './actor';
import { changeWords } from './words';

/** Every setting that changes must have been typed back with a value the display can hold. */
export function typedProblem(
  changes: readonly SettingChange[],
  typed: Readonly<Record<string, number>>,
): string | null {
  for (const change of changes) {
    const value = typed[change.setting.id];
    const { displayName } = change.setting;
    if (value === undefined) return `Type back what ${displayName} shows now.`;
    const kind = checkTyped(change, value).kind;
    if (kind === 'out-of-range')
      return `${displayName}: ${value} lies outside ${change.setting.minValue} to ${change.setting.maxValue}.`;
    if (kind === 'not-on-step')
      return `${displayName}: ${value} is not a step of ${change.setting.step}. Type what the display shows.`;
  }
  return null;
}

export interface TypedWork {
  readonly changes: readonly SettingChange[];
  readonly typed: Readonly<Record<string, number>>;
  readonly feeds: FeedDirection;
  readonly source: 'correction' | 'put_back';
}

/** Keeps what was typed back: the planned change, the value typed, and the value the machine now has. */
export async function storeTyped(session: Session, actor: Actor, correctionId: string, work: TypedWork): Promise<void> {
  for (const change of work.changes) {
    const typedValue = work.typed[change.setting.id] ?? change.toType;
    const after = valueAfterTyping(change, typedValue);
    await session.insert(correctionSetting).values({
      correctionId,
      machineSettingId: change.setting.id,
      beforeValue: change.before,
      afterValue: after,
      toType: change.toType,
      words: changeWords(change, work.feeds),
    });
    await session
      .insert(correctionTyped)
      .values({ correctionId, machineSettingId: change.setting.id, typedValue, at: now(), by: actor.personId });
    await session.insert(settingValue).values({
      id: randomUUID(),
      machineSettingId: change.setting.id,
      seq: await nextSettingSeq(session, change.setting.id),
      value: after,
      source: work.source,
      correctionId,
      setAt: now(),
      setBy: actor.personId,
    });
  }
}
