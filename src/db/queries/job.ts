import 'server-only';
import { and, asc, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import type { JobDraft } from '@/core/layout/job-draft';
import type { Session } from '../client';
import { cutRelease, job, jobArt, jobPrint, jobResult, lockedFile, lockedLayout } from '../schema/job';
import { material, person } from '../schema/shop';

export type JobRow = typeof job.$inferSelect;

export async function findJob(session: Session, id: string) {
  const [row] = await session
    .select({ job, material })
    .from(job)
    .innerJoin(material, eq(job.materialId, material.id))
    .where(eq(job.id, id));
  return row;
}

/** Of job_result: what was told of a job last. */
export const IS_NEWEST_RESULT = sql`not exists (select 1 from job_result newer
  where newer.job_id = ${jobResult.jobId} and newer.seq > ${jobResult.seq})`;

/** A shop's jobs with what a list shows of them, newest first. */
const jobLines = (session: Session) =>
  session
    .select({
      ...{ id: job.id, number: job.number, name: job.name, state: job.state, startedAt: job.startedAt },
      ...{ setupId: job.setupId, materialId: job.materialId, archivedReason: job.archivedReason },
      form: sql<JobDraft['form']>`${job.draft} ->> 'form'`,
      print: jobPrint,
      result: jobResult,
    })
    .from(job)
    .leftJoin(lockedLayout, eq(lockedLayout.jobId, job.id))
    .leftJoin(jobPrint, eq(jobPrint.lockedLayoutId, lockedLayout.id))
    .leftJoin(jobResult, and(eq(jobResult.jobId, job.id), IS_NEWEST_RESULT))
    .orderBy(desc(job.number))
    .$dynamic();

export type JobLineRow = Awaited<ReturnType<typeof jobLines>>[number];

/** Jobs that are being laid out, are locked, or wait. */
export const findOpenJobs = (session: Session, shopId: string) =>
  jobLines(session).where(and(eq(job.shopId, shopId), inArray(job.state, ['draft', 'locked', 'waiting'])));

export interface PastJobs {
  readonly state: 'cut' | 'archived';
  /** Those with a smaller number than this. */
  readonly before: number;
  readonly most: number;
}

/** Jobs that were cut or put away, the newest so many before one. */
export const findPastJobs = (session: Session, shopId: string, { state, before, most }: PastJobs) =>
  jobLines(session)
    .where(and(eq(job.shopId, shopId), eq(job.state, state), lt(job.number, before)))
    .limit(most);

/** All of a job's art but its bytes. */
export const findArtNames = (session: Session, jobId: string) =>
  session
    .select({ id: jobArt.id, fileName: jobArt.fileName, mediaType: jobArt.mediaType })
    .from(jobArt)
    .where(eq(jobArt.jobId, jobId));

export const findArt = (session: Session, jobId: string) =>
  session.select().from(jobArt).where(eq(jobArt.jobId, jobId)).orderBy(asc(jobArt.id));

export async function findOneArt(session: Session, jobId: string, id: string) {
  const [row] = await session
    .select()
    .from(jobArt)
    .where(and(eq(jobArt.jobId, jobId), eq(jobArt.id, id)));
  return row;
}

export async function findLocked(session: Session, jobId: string) {
  const [row] = await session
    .select({ layout: lockedLayout, personName: person.name })
    .from(lockedLayout)
    .innerJoin(person, eq(lockedLayout.by, person.id))
    .where(eq(lockedLayout.jobId, jobId));
  return row;
}

/** Kinds and names of a locked layout's print files. */
export const findLockedFileNames = (session: Session, layoutId: string) =>
  session
    .select({ kind: lockedFile.kind, name: lockedFile.name, contentSha256: lockedFile.contentSha256 })
    .from(lockedFile)
    .where(eq(lockedFile.lockedLayoutId, layoutId))
    .orderBy(asc(lockedFile.kind));

export async function findLockedFile(session: Session, jobId: string, kind: string) {
  const [row] = await session
    .select({ file: lockedFile })
    .from(lockedFile)
    .innerJoin(lockedLayout, eq(lockedFile.lockedLayoutId, lockedLayout.id))
    .where(and(eq(lockedLayout.jobId, jobId), eq(lockedFile.kind, kind as typeof lockedFile.$inferSelect.kind)));
  return row?.file;
}

export async function findPrint(session: Session, layoutId: string) {
  const [row] = await session
    .select({ print: jobPrint, personName: person.name })
    .from(jobPrint)
    .innerJoin(person, eq(jobPrint.by, person.id))
    .where(eq(jobPrint.lockedLayoutId, layoutId));
  return row;
}

export const findReleases = (session: Session, layoutId: string) =>
  session
    .select({
      id: cutRelease.id,
      changes: cutRelease.changes,
      kind: cutRelease.kind,
      name: cutRelease.name,
      at: cutRelease.at,
      personName: person.name,
    })
    .from(cutRelease)
    .innerJoin(person, eq(cutRelease.by, person.id))
    .where(eq(cutRelease.lockedLayoutId, layoutId))
    .orderBy(desc(cutRelease.at));

export async function findRelease(session: Session, jobId: string, id: string) {
  const [row] = await session
    .select({ release: cutRelease })
    .from(cutRelease)
    .innerJoin(lockedLayout, eq(cutRelease.lockedLayoutId, lockedLayout.id))
    .where(and(eq(lockedLayout.jobId, jobId), eq(cutRelease.id, id)));
  return row?.release;
}

export const findResults = (session: Session, jobId: string) =>
  session
    .select({ result: jobResult, personName: person.name })
    .from(jobResult)
    .innerJoin(person, eq(jobResult.by, person.id))
    .where(eq(jobResult.jobId, jobId))
    .orderBy(desc(jobResult.seq));
