import 'server-only';
import { and, asc, desc, eq, inArray, isNull, lte, sql } from 'drizzle-orm';
import type { MachineSetting } from '@/core/setting/machine-setting';
import type { Session } from '../client';
import {
  cutter,
  machineSetting,
  material,
  person,
  printer,
  printMode,
  program,
  settingValue,
  setup,
  shopSetting,
  simulatedSetup,
} from '../schema/shop';

export type SetupRow = Awaited<ReturnType<typeof findSetups>>[number];

/** Setups with everything they stand on, by name. */
export function findSetups(session: Session) {
  return session
    .select({
      setup,
      printer,
      printMode,
      program,
      cutter,
      isSimulated: sql<boolean>`${simulatedSetup.setupId} is not null`,
    })
    .from(setup)
    .innerJoin(printer, eq(setup.printerId, printer.id))
    .innerJoin(printMode, eq(setup.printModeId, printMode.id))
    .leftJoin(program, eq(setup.programId, program.id))
    .innerJoin(cutter, eq(setup.cutterId, cutter.id))
    .leftJoin(simulatedSetup, eq(simulatedSetup.setupId, setup.id))
    .orderBy(asc(setup.name));
}

export async function findSetup(session: Session, id: string): Promise<SetupRow | undefined> {
  return (await findSetups(session)).find((row) => row.setup.id === id);
}

export function findPersons(session: Session) {
  return session.select().from(person).where(isNull(person.archivedAt)).orderBy(asc(person.name));
}

export function findMaterials(session: Session) {
  return session.select().from(material).orderBy(asc(material.name));
}

export async function findShop(session: Session) {
  const [row] = await session.select().from(shopSetting);
  return row;
}

export async function findTruth(session: Session, setupId: string) {
  const [row] = await session.select().from(simulatedSetup).where(eq(simulatedSetup.setupId, setupId));
  return row;
}

/** Settings of a cutter with their present values, in the order of the display. First-mark pivots are told by the caller's marks. */
export async function findSettings(
  session: Session,
  cutterId: string,
  firstMark: { x: number; y: number },
): Promise<MachineSetting[]> {
  const rows = await session
    .select()
    .from(machineSetting)
    .where(eq(machineSetting.cutterId, cutterId))
    .orderBy(asc(machineSetting.position));
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
    value: valueOf.get(r.id) ?? 0,
  }));
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
