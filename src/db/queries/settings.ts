import 'server-only';
import { and, asc, desc, eq, inArray, lte, or, sql } from 'drizzle-orm';
import type { MachineSetting } from '@/core/setting/machine-setting';
import type { Session } from '../client';
import { machineSetting, settingValue, whichWayTest } from '../schema/settings';
import type { SetupRow } from './shop';

/** What holds settings: a cutter, and the program that sends to it. */
export interface SettingOwners {
  readonly cutterId: string | null;
  readonly programId: string | null;
}

export const ownersOf = (row: Pick<SetupRow, 'cutter' | 'program'>): SettingOwners => ({
  cutterId: row.cutter.id,
  programId: row.program?.id ?? null,
});

/** The change of the latest which-way test of each setting, by its id. */
export async function findLastTrials(
  session: Session,
  settingIds: readonly string[],
): Promise<Readonly<Record<string, number>>> {
  if (settingIds.length === 0) return {};
  const rows = await session
    .selectDistinctOn([whichWayTest.machineSettingId], {
      id: whichWayTest.machineSettingId,
      change: whichWayTest.change,
    })
    .from(whichWayTest)
    .where(inArray(whichWayTest.machineSettingId, [...settingIds]))
    .orderBy(asc(whichWayTest.machineSettingId), desc(whichWayTest.at));
  return Object.fromEntries(rows.map((r) => [r.id, r.change]));
}

/**
 * Settings of a cutter and its program with their present values, in the order of the display. First-mark pivots are told
 * by the caller's marks. A nominal/measured pair never set stands at its nominal length.
 */
export async function findSettings(
  session: Session,
  owners: SettingOwners,
  firstMark: { x: number; y: number },
): Promise<MachineSetting[]> {
  if (owners.cutterId === null && owners.programId === null) return [];
  const rows = await session
    .select()
    .from(machineSetting)
    .where(
      or(
        owners.cutterId ? eq(machineSetting.cutterId, owners.cutterId) : undefined,
        owners.programId ? eq(machineSetting.programId, owners.programId) : undefined,
      ),
    )
    .orderBy(asc(machineSetting.programId), asc(machineSetting.position));
  return withValues(session, rows, firstMark);
}

type SettingRow = typeof machineSetting.$inferSelect;

async function withValues(
  session: Session,
  rows: readonly SettingRow[],
  firstMark: { x: number; y: number },
): Promise<MachineSetting[]> {
  if (rows.length === 0) return [];
  const values = await session
    .selectDistinctOn([settingValue.machineSettingId])
    .from(settingValue)
    .where(
      inArray(
        settingValue.machineSettingId,
        rows.map((r) => r.id),
      ),
    )
    .orderBy(settingValue.machineSettingId, desc(settingValue.seq));
  const valueOf = new Map(values.map((v) => [v.machineSettingId, v.value]));
  return rows.map((r) => ({
    id: r.id,
    displayName: r.displayName,
    kind: r.kind,
    isInProgram: r.programId !== null,
    actsOn: r.actsOn,
    unit: r.unit,
    unitSize: r.unitSize,
    step: r.step,
    minValue: r.minValue,
    maxValue: r.maxValue,
    sense: r.sense === 1 || r.sense === -1 ? r.sense : null,
    gain: r.gain,
    entry: r.entry,
    combine: r.combine,
    pivot: r.pivot === 'centre' ? { x: 0, y: 0 } : firstMark,
    scalesOffset: r.scalesOffset,
    pressThis: r.pressThis,
    notThat: r.notThat,
    value: valueOf.get(r.id) ?? (r.unit === 'nominal_measured' ? (r.unitSize ?? 0) : 0),
  }));
}

/** One setting as it stands now, its first-mark pivot left at the centre. */
export async function findSettingNow(session: Session, row: SettingRow): Promise<MachineSetting | undefined> {
  return (await withValues(session, [row], { x: 0, y: 0 }))[0];
}

export async function findSetting(session: Session, id: string) {
  const [row] = await session.select().from(machineSetting).where(eq(machineSetting.id, id));
  return row;
}

/** Values that settings had at a time, by setting id; those never set until then are left out. */
export async function findSettingValuesAt(
  session: Session,
  settingIds: readonly string[],
  at: Date,
): Promise<ReadonlyMap<string, number>> {
  if (settingIds.length === 0) return new Map();
  const rows = await session
    .selectDistinctOn([settingValue.machineSettingId])
    .from(settingValue)
    .where(and(inArray(settingValue.machineSettingId, [...settingIds]), lte(settingValue.setAt, at)))
    .orderBy(settingValue.machineSettingId, desc(settingValue.seq));
  return new Map(rows.map((r) => [r.machineSettingId, r.value]));
}

export async function nextSettingSeq(session: Session, machineSettingId: string): Promise<number> {
  const [row] = await session
    .select({ last: sql<number | null>`max(${settingValue.seq})` })
    .from(settingValue)
    .where(eq(settingValue.machineSettingId, machineSettingId));
  return (row?.last ?? 0) + 1;
}
