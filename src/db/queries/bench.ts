import 'server-only';
import { and, desc, eq, inArray, or, sql } from 'drizzle-orm';
import type { Session } from '../client';
import { calibration } from '../schema/calibration';
import { confirmation, correction, event, historyEntry } from '../schema/correction';
import { setup } from '../schema/machines';
import { material, person } from '../schema/shop';
import type { SetupRow } from './shop';

/** The newest saved entry of a setup, with its confirmation. */
export async function findLatestSaved(session: Session, setupId: string) {
  const [found] = await session
    .select({ entry: historyEntry, confirmation, personName: person.name })
    .from(historyEntry)
    .innerJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(person, eq(historyEntry.by, person.id))
    .where(eq(historyEntry.setupId, setupId))
    .orderBy(desc(historyEntry.seq))
    .limit(1);
  return found;
}

/** The newest correction of a setup, rough ones left out. */
export async function findLatestCorrection(session: Session, setupId: string) {
  const [found] = await session
    .select()
    .from(correction)
    .where(and(eq(correction.setupId, setupId), sql`${correction.objective} <> 'rough'`))
    .orderBy(desc(correction.at))
    .limit(1);
  return found;
}

/** The newest confirmation that failed, of each of these setups. */
export function findLatestFailures(session: Session, setupIds: readonly string[]) {
  return session
    .selectDistinctOn([correction.setupId], {
      setupId: correction.setupId,
      at: confirmation.at,
      worstMm: confirmation.worstMm,
    })
    .from(confirmation)
    .innerJoin(correction, eq(confirmation.correctionId, correction.id))
    .where(and(eq(confirmation.verdict, 'fail'), inArray(correction.setupId, [...setupIds])))
    .orderBy(correction.setupId, desc(confirmation.at));
}

/** Events that touch a setup through anything it stands on, newest first, undone ones left out. */
export function findEventsOf(session: Session, row: SetupRow) {
  const touches = or(
    eq(event.setupId, row.setup.id),
    eq(event.printerId, row.printer.id),
    eq(event.cutterId, row.cutter.id),
    row.program ? eq(event.programId, row.program.id) : undefined,
  );
  const stands = sql`${event.kind} <> 'undo' and not exists (select 1 from event undo where undo.undoes_id = ${event.id})`;
  return session
    .select({ event, personName: person.name })
    .from(event)
    .innerJoin(person, eq(event.by, person.id))
    .where(and(touches, stands))
    .orderBy(desc(event.at));
}

/** Cuts with readings, and read stations of rolls, of each of some setups that has any. */
export async function findMeasured(
  session: Session,
  setupIds: readonly string[],
): Promise<ReadonlyMap<string, { readonly cuts: number; readonly stations: number }>> {
  if (setupIds.length === 0) return new Map();
  const cuts = sql<number>`(select count(*)::int from cut_set k join calibration_sheet h on h.id = k.calibration_sheet_id
    join calibration c on c.id = h.calibration_id where c.setup_id = "setup"."id"
    and exists (select 1 from reading r where r.cut_set_id = k.id and r.state = 'read'))`;
  const stations = sql<number>`(select count(distinct (t.roll_run_id, t.station_no))::int from station_reading t
    join roll_run o on o.id = t.roll_run_id where o.setup_id = "setup"."id" and t.state = 'read')`;
  const rows = await session
    .select({ id: setup.id, cuts, stations })
    .from(setup)
    .where(inArray(setup.id, [...setupIds]));
  return new Map(rows.map(({ id, ...counts }) => [id, counts]));
}

export function findOpen(session: Session) {
  return session.select().from(calibration).where(eq(calibration.state, 'open')).orderBy(desc(calibration.startedAt));
}

/** The correction of a setup's newest saved or put back entry. */
export function findSavedCorrection(session: Session, setupId: string) {
  return session
    .select({ entry: historyEntry, correction, materialName: material.name })
    .from(historyEntry)
    .leftJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(
      correction,
      or(eq(historyEntry.correctionId, correction.id), eq(confirmation.correctionId, correction.id)),
    )
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .where(eq(historyEntry.setupId, setupId))
    .orderBy(desc(historyEntry.seq))
    .limit(1);
}

/** The material that a setup was corrected or confirmed with last. */
export async function findLastMaterial(session: Session, setupId: string): Promise<string | null> {
  const [last] = await session
    .select({ materialId: historyEntry.materialId })
    .from(historyEntry)
    .where(eq(historyEntry.setupId, setupId))
    .orderBy(desc(historyEntry.seq))
    .limit(1);
  return last?.materialId ?? null;
}

/** One entry of the history with what it stands on. */
export async function findHistoryEntry(session: Session, id: string) {
  const [found] = await session
    .select({
      entry: historyEntry,
      confirmation,
      correction,
      personName: person.name,
      materialName: material.name,
      setupName: setup.name,
    })
    .from(historyEntry)
    .leftJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .leftJoin(
      correction,
      or(eq(historyEntry.correctionId, correction.id), eq(confirmation.correctionId, correction.id)),
    )
    .innerJoin(person, eq(historyEntry.by, person.id))
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .innerJoin(setup, eq(historyEntry.setupId, setup.id))
    .where(eq(historyEntry.id, id));
  return found;
}
