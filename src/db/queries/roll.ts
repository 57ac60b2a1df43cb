import 'server-only';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import { isStanding } from '@/core/reading/methods';
import type { Session } from '../client';
import { rollRun, stationReading } from '../schema/roll';
import { material, person } from '../schema/shop';

/** Stretches of a setup's rolls, the newest first, with how many of their figures were read. */
export function findRolls(session: Session, setupId: string) {
  return session
    .select({
      id: rollRun.id,
      kind: rollRun.kind,
      state: rollRun.state,
      spacingMm: rollRun.spacingMm,
      stations: rollRun.stations,
      startedAt: rollRun.startedAt,
      materialName: material.name,
      startedByName: person.name,
      readings: sql<number>`(select count(distinct (r.station_no, r.side, r.axis)) from station_reading r where r.roll_run_id = ${rollRun.id})::int`,
    })
    .from(rollRun)
    .innerJoin(material, eq(rollRun.materialId, material.id))
    .innerJoin(person, eq(rollRun.startedBy, person.id))
    .where(eq(rollRun.setupId, setupId))
    .orderBy(desc(rollRun.startedAt));
}

export async function findRoll(session: Session, id: string) {
  const [row] = await session
    .select({ roll: rollRun, material, startedByName: person.name })
    .from(rollRun)
    .innerJoin(material, eq(rollRun.materialId, material.id))
    .innerJoin(person, eq(rollRun.startedBy, person.id))
    .where(eq(rollRun.id, id));
  return row;
}

/** The newest reading of every figure that has one standing, along the roll. */
export async function findStationReadings(session: Session, rollId: string) {
  const rows = await session
    .selectDistinctOn([stationReading.stationNo, stationReading.side, stationReading.axis])
    .from(stationReading)
    .where(eq(stationReading.rollRunId, rollId))
    .orderBy(asc(stationReading.stationNo), stationReading.side, stationReading.axis, desc(stationReading.seq));
  return rows.filter(isStanding);
}

export type StationReadingRow = Awaited<ReturnType<typeof findStationReadings>>[number];

interface Slot {
  readonly rollId: string;
  readonly stationNo: number;
  readonly side: StationReadingRow['side'];
  readonly axis: StationReadingRow['axis'];
}

/** The newest reading of one figure. */
export async function findStationSlot(session: Session, { rollId, stationNo, side, axis }: Slot) {
  const [row] = await session
    .select()
    .from(stationReading)
    .where(
      and(
        eq(stationReading.rollRunId, rollId),
        eq(stationReading.stationNo, stationNo),
        eq(stationReading.side, side),
        eq(stationReading.axis, axis),
      ),
    )
    .orderBy(desc(stationReading.seq))
    .limit(1);
  return row;
}

export async function findStationReading(session: Session, id: string) {
  const [row] = await session.select().from(stationReading).where(eq(stationReading.id, id));
  return row;
}

/** How many stretches a setup had before this one: its noise is drawn anew for each. */
export async function countRollsBefore(session: Session, own: { readonly setupId: string; readonly startedAt: Date }) {
  const [row] = await session
    .select({ count: sql<number>`count(*)::int` })
    .from(rollRun)
    .where(and(eq(rollRun.setupId, own.setupId), sql`${rollRun.startedAt} < ${own.startedAt}`));
  return row?.count ?? 0;
}
