import 'server-only';
import { and, desc, eq, gte, ilike, inArray, isNull, lt, ne, or, sql, type AnyColumn, type SQL } from 'drizzle-orm';
import type { Session } from '../client';
import { confirmation, correction, event, historyEntry, historyNote } from '../schema/correction';
import { job, jobResult } from '../schema/job';
import { cutter, printer, program, setup } from '../schema/machines';
import { material, person } from '../schema/shop';
import { dailyCheck, dailyCheckTakenBack } from '../schema/trust';

/** What of a shop's record is wanted; every part narrows it. */
export interface RecordFilter {
  readonly shopId: string;
  readonly setupId?: string | undefined;
  readonly materialId?: string | undefined;
  /** Words that must stand in a line's names or notes. */
  readonly find?: string | undefined;
  readonly from?: Date | undefined;
  /** Before this moment: to leaf on, and the end of a stretch of time. */
  readonly before?: Date | undefined;
  readonly most: number;
}

/** Words as they stand, not as a pattern. */
const pattern = (words: string): string => `%${words.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

const hasWords = (find: string | undefined, ...columns: readonly Parameters<typeof ilike>[0][]): SQL | undefined =>
  find ? or(...columns.map((column) => ilike(column, pattern(find)))) : undefined;

interface Named {
  readonly setupId: AnyColumn;
  readonly materialId: AnyColumn;
  readonly by: AnyColumn;
}

/** Words in the names that stand beside a line: looked for in their own small tables, not in each of many lines. */
function isNamed(session: Session, find: string, { setupId, materialId, by }: Named): SQL | undefined {
  const words = pattern(find);
  return or(
    inArray(setupId, session.select({ id: setup.id }).from(setup).where(ilike(setup.name, words))),
    inArray(materialId, session.select({ id: material.id }).from(material).where(ilike(material.name, words))),
    inArray(by, session.select({ id: person.id }).from(person).where(ilike(person.name, words))),
  );
}

/** Words in a note; most lines have none. */
const isNoted = (find: string, note: AnyColumn): SQL | undefined => and(ne(note, ''), ilike(note, pattern(find)));

type At = Parameters<typeof gte>[0];
const isWithin = (at: At, { from, before }: RecordFilter): SQL | undefined =>
  and(from ? gte(at, from) : undefined, before ? lt(at, before) : undefined);

/** What was saved or put back, newest first. */
export const findRecordEntries = (session: Session, filter: RecordFilter) =>
  session
    .select({
      entry: historyEntry,
      confirmation,
      personName: person.name,
      materialName: material.name,
      setupName: setup.name,
      notes: sql<number>`(select count(*)::int from ${historyNote} where ${historyNote.historyEntryId} = ${historyEntry.id})`,
    })
    .from(historyEntry)
    .leftJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(person, eq(historyEntry.by, person.id))
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .innerJoin(setup, eq(historyEntry.setupId, setup.id))
    .where(
      and(
        eq(setup.shopId, filter.shopId),
        filter.setupId ? eq(historyEntry.setupId, filter.setupId) : undefined,
        filter.materialId ? eq(historyEntry.materialId, filter.materialId) : undefined,
        isWithin(historyEntry.at, filter),
        filter.find
          ? or(
              isNamed(session, filter.find, historyEntry),
              isNoted(filter.find, historyEntry.note),
              sql`exists (select 1 from ${historyNote} where ${historyNote.historyEntryId} = ${historyEntry.id} and ${historyNote.note} ilike ${pattern(filter.find)})`,
            )
          : undefined,
      ),
    )
    .orderBy(desc(historyEntry.at))
    .limit(filter.most);

/** What happened to anything of a shop, newest first; what was taken back is left out. @param kinds kinds whose own words were asked for. */
export const findRecordEvents = (session: Session, filter: RecordFilter, kinds: readonly string[]) =>
  session
    .select({
      event,
      personName: person.name,
      thing: sql<string>`coalesce(${setup.name}, ${cutter.name}, ${printer.name}, ${program.name})`,
    })
    .from(event)
    .innerJoin(person, eq(event.by, person.id))
    .leftJoin(setup, eq(event.setupId, setup.id))
    .leftJoin(cutter, eq(event.cutterId, cutter.id))
    .leftJoin(printer, eq(event.printerId, printer.id))
    .leftJoin(program, eq(event.programId, program.id))
    .where(
      and(
        eq(person.shopId, filter.shopId),
        sql`${event.kind} <> 'undo' and not exists (select 1 from event undo where undo.undoes_id = ${event.id})`,
        filter.setupId
          ? sql`exists (select 1 from setup own where own.id = ${filter.setupId} and (own.id = ${event.setupId}
              or own.printer_id = ${event.printerId} or own.cutter_id = ${event.cutterId} or own.program_id = ${event.programId}))`
          : undefined,
        isWithin(event.at, filter),
        filter.find
          ? or(
              hasWords(filter.find, person.name, event.note, setup.name, cutter.name, printer.name, program.name),
              kinds.length > 0 ? inArray(event.kind, [...kinds]) : undefined,
            )
          : undefined,
      ),
    )
    .orderBy(desc(event.at))
    .limit(filter.most);

/** Daily checks of a shop that were not taken back, newest first. */
export const findRecordChecks = (session: Session, filter: RecordFilter) =>
  session
    .select({ check: dailyCheck, personName: person.name, materialName: material.name, setupName: setup.name })
    .from(dailyCheck)
    .leftJoin(dailyCheckTakenBack, eq(dailyCheckTakenBack.dailyCheckId, dailyCheck.id))
    .innerJoin(person, eq(dailyCheck.by, person.id))
    .innerJoin(material, eq(dailyCheck.materialId, material.id))
    .innerJoin(setup, eq(dailyCheck.setupId, setup.id))
    .where(
      and(
        isNull(dailyCheckTakenBack.dailyCheckId),
        eq(setup.shopId, filter.shopId),
        filter.setupId ? eq(dailyCheck.setupId, filter.setupId) : undefined,
        filter.materialId ? eq(dailyCheck.materialId, filter.materialId) : undefined,
        isWithin(dailyCheck.at, filter),
        filter.find ? or(isNamed(session, filter.find, dailyCheck), isNoted(filter.find, dailyCheck.note)) : undefined,
      ),
    )
    .orderBy(desc(dailyCheck.at))
    .limit(filter.most);

/** How jobs came out, newest first. */
export const findRecordResults = (session: Session, filter: RecordFilter) =>
  session
    .select({
      result: jobResult,
      jobName: job.name,
      personName: person.name,
      materialName: material.name,
      setupName: setup.name,
    })
    .from(jobResult)
    .innerJoin(job, eq(jobResult.jobId, job.id))
    .innerJoin(person, eq(jobResult.by, person.id))
    .innerJoin(material, eq(job.materialId, material.id))
    .innerJoin(setup, eq(job.setupId, setup.id))
    .where(
      and(
        eq(setup.shopId, filter.shopId),
        filter.setupId ? eq(job.setupId, filter.setupId) : undefined,
        filter.materialId ? eq(job.materialId, filter.materialId) : undefined,
        isWithin(jobResult.at, filter),
        filter.find
          ? or(
              isNamed(session, filter.find, { setupId: job.setupId, materialId: job.materialId, by: jobResult.by }),
              ilike(job.name, pattern(filter.find)),
              isNoted(filter.find, jobResult.note),
            )
          : undefined,
      ),
    )
    .orderBy(desc(jobResult.at))
    .limit(filter.most);

/** Notes beside one entry, oldest first. */
export const findNotes = (session: Session, historyEntryId: string) =>
  session
    .select({ note: historyNote, personName: person.name })
    .from(historyNote)
    .innerJoin(person, eq(historyNote.by, person.id))
    .where(eq(historyNote.historyEntryId, historyEntryId))
    .orderBy(historyNote.at);

/** What confirmed a setup, with the error that its check found before anything was set. */
export const findFoundAndLeft = (session: Session, setupId: string, materialId: string | undefined) =>
  session
    .select({
      id: historyEntry.id,
      at: confirmation.at,
      materialName: material.name,
      toleranceMm: confirmation.toleranceMm,
      leftFitId: confirmation.fitId,
      foundFitId: correction.fitId,
      markSdMm: confirmation.markSdMm,
      isMarkSdAssumed: confirmation.isMarkSdAssumed,
    })
    .from(historyEntry)
    .innerJoin(confirmation, eq(historyEntry.confirmationId, confirmation.id))
    .innerJoin(correction, eq(confirmation.correctionId, correction.id))
    .innerJoin(material, eq(historyEntry.materialId, material.id))
    .where(and(eq(historyEntry.setupId, setupId), materialId ? eq(historyEntry.materialId, materialId) : undefined))
    .orderBy(historyEntry.seq);
