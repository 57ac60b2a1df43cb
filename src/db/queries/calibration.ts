import 'server-only';
import { and, asc, count, desc, eq, inArray, lt, lte, sql } from 'drizzle-orm';
import type { ReadingMethod } from '@/core/reading/methods';
import { isStanding } from '@/core/reading/methods';
import type { Session } from '../client';
import {
  calibration,
  calibrationSheet,
  cutSet,
  fit,
  loadMap,
  printCheck,
  reading,
  scan,
  scanOriginal,
} from '../schema/calibration';
import { confirmation, correction, correctionSetting, markAttempt } from '../schema/correction';
import { material, person } from '../schema/shop';
import { sheetDefinition } from '../schema/sheet';

export async function findCalibration(session: Session, id: string) {
  const [row] = await session
    .select({ calibration, material, definition: sheetDefinition, startedByName: person.name })
    .from(calibration)
    .innerJoin(material, eq(calibration.materialId, material.id))
    .innerJoin(sheetDefinition, eq(calibration.sheetDefinitionId, sheetDefinition.id))
    .innerJoin(person, eq(calibration.startedBy, person.id))
    .where(eq(calibration.id, id));
  return row;
}

/** Ordinary checks of a setup, the latest first, as many as are worth looking through. */
export function findEarlierCalibrations(session: Session, setupId: string) {
  return session
    .select({ id: calibration.id })
    .from(calibration)
    .where(and(eq(calibration.setupId, setupId), inArray(calibration.kind, ['quick', 'full'])))
    .orderBy(desc(calibration.startedAt))
    .limit(8);
}

/** Whether anything was ever read of a quick or full check of this setup. */
export async function hasReadCheck(session: Session, setupId: string): Promise<boolean> {
  const found = await session
    .select({ id: reading.id })
    .from(calibration)
    .innerJoin(calibrationSheet, eq(calibrationSheet.calibrationId, calibration.id))
    .innerJoin(cutSet, eq(cutSet.calibrationSheetId, calibrationSheet.id))
    .innerJoin(reading, eq(reading.cutSetId, cutSet.id))
    .where(and(eq(calibration.setupId, setupId), inArray(calibration.kind, ['quick', 'full'])))
    .limit(1);
  return found.length > 0;
}

/** So many loads tell the noise of reading marks to a twentieth of itself; older ones would only cost time. */
const MOST_LOADS = 200;

/** The newest loads of a setup's checks begun no later than this one, each by itself; the newest fit of each state comes first. */
export function findLoadMaps(session: Session, own: { readonly setupId: string; readonly startedAt: Date }) {
  return session
    .select({ map: loadMap, calibrationId: fit.calibrationId })
    .from(loadMap)
    .innerJoin(fit, eq(loadMap.fitId, fit.id))
    .innerJoin(calibration, eq(fit.calibrationId, calibration.id))
    .where(and(eq(calibration.setupId, own.setupId), lte(calibration.startedAt, own.startedAt)))
    .orderBy(desc(fit.at), asc(loadMap.loadNo))
    .limit(MOST_LOADS);
}

/** How many calibrations of the same setup were started before this one. */
export async function countBefore(session: Session, own: { readonly setupId: string; readonly startedAt: Date }) {
  const [row] = await session
    .select({ count: count() })
    .from(calibration)
    .where(and(eq(calibration.setupId, own.setupId), lt(calibration.startedAt, own.startedAt)));
  return row?.count ?? 0;
}

export function findSheets(session: Session, calibrationId: string) {
  return session
    .select()
    .from(calibrationSheet)
    .where(eq(calibrationSheet.calibrationId, calibrationId))
    .orderBy(asc(calibrationSheet.sheetNo));
}

export function findPrintChecks(session: Session, sheetIds: readonly string[]) {
  return session
    .select()
    .from(printCheck)
    .where(inArray(printCheck.calibrationSheetId, [...sheetIds]))
    .orderBy(asc(printCheck.seq));
}

export function findCutSets(session: Session, sheetIds: readonly string[]) {
  return session
    .select()
    .from(cutSet)
    .where(inArray(cutSet.calibrationSheetId, [...sheetIds]))
    .orderBy(asc(cutSet.cutAt));
}

/** Readings that stand: superseded by no other, and not taken back. */
export async function findCurrentReadings(session: Session, cutSetIds: readonly string[]) {
  if (cutSetIds.length === 0) return [];
  const notSuperseded = sql`not exists (select 1 from reading later where later.supersedes_id = ${reading.id})`;
  const rows = await session
    .select()
    .from(reading)
    .where(and(inArray(reading.cutSetId, [...cutSetIds]), notSuperseded));
  return rows.filter(isStanding);
}

/** Scans of one set, the newest first, without their pictures. */
export function findScans(session: Session, cutSetId: string) {
  return session
    .select({
      id: scan.id,
      scans: scan.scans,
      at: scan.at,
      by: person.name,
      hasPicture: sql<boolean>`${scan.picture} is not null`,
      printSize: scan.printSize,
    })
    .from(scan)
    .innerJoin(person, eq(scan.by, person.id))
    .where(eq(scan.cutSetId, cutSetId))
    .orderBy(desc(scan.at));
}

/** A scan of one calibration: what pictures it was made of, and the small one that was kept. */
export async function findScanOf(session: Session, calibrationId: string, scanId: string) {
  const [row] = await session
    .select({ scans: scan.scans, picture: scan.picture })
    .from(scan)
    .innerJoin(cutSet, eq(scan.cutSetId, cutSet.id))
    .innerJoin(calibrationSheet, eq(cutSet.calibrationSheetId, calibrationSheet.id))
    .where(and(eq(scan.id, scanId), eq(calibrationSheet.calibrationId, calibrationId)));
  return row;
}

export const findOriginals = (session: Session, scanIds: readonly string[]) =>
  session
    .select({
      scanId: scanOriginal.scanId,
      no: scanOriginal.no,
      fileName: scanOriginal.fileName,
      bytes: sql<number>`octet_length(${scanOriginal.content})`,
    })
    .from(scanOriginal)
    .where(inArray(scanOriginal.scanId, [...scanIds]))
    .orderBy(scanOriginal.no);

export async function findOriginal(session: Session, scanId: string, no: number) {
  const [row] = await session
    .select()
    .from(scanOriginal)
    .where(and(eq(scanOriginal.scanId, scanId), eq(scanOriginal.no, no)));
  return row;
}

export async function findReading(session: Session, id: string) {
  const [row] = await session.select().from(reading).where(eq(reading.id, id));
  return row;
}

export function findSlot(
  session: Session,
  slot: {
    cutSetId: string;
    spotNo: number;
    axis: 'across' | 'along';
    method: ReadingMethod;
    repeatNo: number;
  },
) {
  return session
    .select()
    .from(reading)
    .where(
      and(
        eq(reading.cutSetId, slot.cutSetId),
        eq(reading.spotNo, slot.spotNo),
        eq(reading.axis, slot.axis),
        eq(reading.method, slot.method),
        eq(reading.repeatNo, slot.repeatNo),
      ),
    )
    .orderBy(desc(reading.seq));
}

export function findCorrections(session: Session, calibrationId: string) {
  return session
    .select()
    .from(correction)
    .where(eq(correction.calibrationId, calibrationId))
    .orderBy(asc(correction.at));
}

export function findCorrectionSettings(session: Session, correctionIds: readonly string[]) {
  if (correctionIds.length === 0) return Promise.resolve([]);
  return session
    .select()
    .from(correctionSetting)
    .where(inArray(correctionSetting.correctionId, [...correctionIds]));
}

export function findConfirmations(session: Session, correctionIds: readonly string[]) {
  if (correctionIds.length === 0) return Promise.resolve([]);
  return session
    .select()
    .from(confirmation)
    .where(inArray(confirmation.correctionId, [...correctionIds]))
    .orderBy(asc(confirmation.at));
}

export function findMarkAttempts(session: Session, calibrationId: string) {
  return session
    .select()
    .from(markAttempt)
    .where(eq(markAttempt.calibrationId, calibrationId))
    .orderBy(asc(markAttempt.at));
}

export async function cutSetWithCalibration(session: Session, cutSetId: string) {
  const [row] = await session
    .select({ cutSet, calibrationId: calibrationSheet.calibrationId })
    .from(cutSet)
    .innerJoin(calibrationSheet, eq(cutSet.calibrationSheetId, calibrationSheet.id))
    .where(eq(cutSet.id, cutSetId));
  return row;
}
