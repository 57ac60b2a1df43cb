import 'server-only';
import { randomUUID } from 'node:crypto';
import type { FeedDirection } from '@/core/geometry/load';
import { SETTING_CHANGED } from '@/core/trust/event-kinds';
import { checkTyped } from '@/core/setting/check-typed';
import { decimalsOf, valueAfterTyping, type MachineSetting } from '@/core/setting/machine-setting';
import { formatFixed } from '@/core/units/length';
import type { SettingChange } from '@/core/setting/plan-settings';
import type { Session } from '@/db/client';
import { nextSettingSeq, type SettingOwners } from '@/db/queries/settings';
import { correctionSetting, correctionTyped, event } from '@/db/schema/correction';
import { settingValue } from '@/db/schema/settings';
import { now } from '../clock';
import type { Actor } from './actor';
import { changeWords, settingValueWords } from './words';

/** Every setting that changes must have been typed back with a value the display can hold. */
export function typedProblem(
  changes: readonly SettingChange[],
  typed: Readonly<Record<string, number>>,
): string | null {
  for (const change of changes) {
    const value = typed[change.setting.id];
    const { displayName } = change.setting;
    if (value === undefined)
      return change.setting.kind === 'wizard'
        ? `Type which line was picked in ${displayName}.`
        : `Type back what ${displayName} shows now.`;
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
  readonly owners: SettingOwners;
  readonly feeds: FeedDirection;
  readonly source: 'correction' | 'put_back';
  /** When the correction was made: the change of its settings is logged with the same moment. */
  readonly at: Date;
}

/** Keeps what was typed back: the planned change, the value typed, and the value the machine now has. */
export async function storeTyped(session: Session, actor: Actor, correctionId: string, work: TypedWork): Promise<void> {
  const changed: ChangedValue[] = [];
  for (const change of work.changes) {
    const typedValue = work.typed[change.setting.id] ?? change.toType;
    const after = valueAfterTyping(change.setting, typedValue);
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
    changed.push({ setting: change.setting, before: change.before, after });
    await storeValue(session, actor, { settingId: change.setting.id, value: after, source: work.source, correctionId });
  }
  await logChanged(session, actor, work, changed);
}

export interface ValueToStore {
  readonly id?: string;
  readonly settingId: string;
  readonly value: number;
  readonly source: 'typed' | 'correction' | 'put_back';
  readonly correctionId: string | null;
}

/** The value a setting now has; the ones before stay in the record. */
export async function storeValue(session: Session, actor: Actor, stored: ValueToStore): Promise<void> {
  await session.insert(settingValue).values({
    id: stored.id ?? randomUUID(),
    machineSettingId: stored.settingId,
    seq: await nextSettingSeq(session, stored.settingId),
    value: stored.value,
    source: stored.source,
    correctionId: stored.correctionId,
    setAt: now(),
    setBy: actor.personId,
  });
}

export interface ChangedValue {
  readonly setting: MachineSetting;
  readonly before: number;
  readonly after: number;
}

interface ChangedOwners {
  readonly cutterId: string | null;
  readonly programId: string | null;
}

/**
 * A changed setting is something that happened to every setup that shares its cutter, or its program: none of them stays
 * in register unnoticed.
 */
export async function logChanged(
  session: Session,
  actor: Actor,
  { owners, at }: { readonly owners: ChangedOwners; readonly at: Date },
  changed: readonly ChangedValue[],
): Promise<void> {
  for (const isInProgram of [false, true]) {
    const own = changed.filter((c) => c.setting.isInProgram === isInProgram);
    if (own.length === 0) continue;
    const target = isInProgram ? { programId: owners.programId } : { cutterId: owners.cutterId };
    await session.insert(event).values({
      id: randomUUID(),
      ...target,
      kind: SETTING_CHANGED,
      note: own.map(changedWords).join(', '),
      at,
      by: actor.personId,
    });
  }
}

const changedWords = ({ setting, before, after }: ChangedValue): string =>
  `${setting.displayName} ${formatFixed(before, decimalsOf(setting.step))} \u2192 ${settingValueWords(setting, after)}`;
