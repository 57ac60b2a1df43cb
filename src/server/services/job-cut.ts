import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import type { FileFingerprint, PrintedJobInput, ReleaseCutInput, TellResultInput } from '@/contracts/jobs';
import type { MarksReadInput } from '@/contracts/floor';
import { fail, ok, type Result } from '@/core/result';
import type { TestCutNeed } from '@/core/shop/test-cut';
import type { Database } from '@/db/client';
import { findJob, findLocked, findPrint, findReleases, findResults } from '@/db/queries/job';
import { findSetup } from '@/db/queries/shop';
import { cutRelease, job, jobPrint, jobResult } from '@/db/schema/job';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { changesSince } from './job-changes';
import type { LockedContent } from './job-content';
import { correctionInForce, lastLoadOf } from './job-correction';
import { jobFacts } from './job-facts';
import { keepMarkReadings, type MarkLook } from './mark-readings';
import { testCutWanted } from './test-cuts';
import { cutFileOf, type JobFile } from './job-files';
import { JOB_GONE, sha256 } from './jobs';
import { strangerTo } from './own-shop';

const HOUR_MS = 3_600_000;
const NOT_LOCKED =
  'This job is not locked: nothing is printed or cut from a layout that can still change. Lock it first.';

/** A locked job with everything that stands on it; refused where it is not locked. */
export async function lockedJob(database: Database, jobId: string) {
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  const locked = await findLocked(database, jobId);
  const row = await findSetup(database, found.job.setupId);
  if (!locked || !row) return fail(refusal(NOT_LOCKED));
  const content = locked.layout.content as LockedContent;
  const print = await findPrint(database, locked.layout.id);
  return ok({ ...found, row, locked, content, print: print ?? null });
}

/** Writes down that the sheets came out of the printer; its material says how long they dry. */
export async function tellPrinted(
  database: Database,
  actor: Actor,
  input: PrintedJobInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { jobId: input.jobId });
  if (stranger) return fail(stranger);
  const found = await lockedJob(database, input.jobId);
  if (!found.ok) return found;
  const { job: own, material, locked, print } = found.value;
  if (print) return ok(input.jobId);
  if (own.state !== 'locked') return fail(refusal('This job waits for no print.'));
  const printedAt = new Date(now().getTime() - input.minutesAgo * 60_000);
  const dryAt = material.dryingHours > 0 ? new Date(printedAt.getTime() + material.dryingHours * HOUR_MS) : null;
  await database.transaction(async (session) => {
    await session.insert(jobPrint).values({
      ...{ id: input.id, lockedLayoutId: locked.layout.id, printedAt, dryAt, sheets: input.sheets, by: actor.personId },
    });
    await session
      .update(job)
      .set({ state: 'waiting', version: sql`${job.version} + 1` })
      .where(and(eq(job.id, input.jobId), eq(job.state, 'locked')));
  });
  return ok(input.jobId);
}

/** Why a program's own file is not the one that was locked; null when it is. */
function fileProblem(
  layout: {
    readonly ownFileSha256: string | null;
    readonly ownFileName: string | null;
    readonly ownFileBytes: number | null;
  },
  input: Pick<ReleaseCutInput, 'ownFile' | 'isUnmoved'>,
): string | null {
  if (layout.ownFileSha256 === null) return null;
  const { ownFile, isUnmoved }: { ownFile: FileFingerprint | null; isUnmoved: boolean } = input;
  if (!ownFile)
    return `Drop ${layout.ownFileName ?? 'the saved file'} in again: it must still be the file that was printed.`;
  if (ownFile.sha256 !== layout.ownFileSha256)
    return `${ownFile.name} (${ownFile.bytes} bytes) is not the file that was locked (${layout.ownFileName ?? ''}, ${layout.ownFileBytes ?? 0} bytes): something in it was changed after printing. Open the file as it was printed.`;
  return isUnmoved ? null : 'Say that nothing on the page was moved since it was printed.';
}

const NEED_WORDS: Readonly<Record<TestCutNeed, string>> = {
  never: 'was never written down as cut clean here',
  'new-blade': 'was not cut clean since the new blade, which cuts deeper',
  'not-clean': 'did not come out clean in its last test cut',
};

/** Asks for a test cut, with the way round it: a person may go on all the same, and that is kept. */
const testCutWords = (need: TestCutNeed, name: string, stack: string): string =>
  `${name}${stack === '' ? '' : `, ${stack},`} ${NEED_WORDS[need]}: make a test cut in the spare first, or go on without one.`;

const stillDries = (dryAt: Date | null, at: Date): string | null =>
  dryAt && dryAt > at
    ? `The print is not dry for another ${Math.ceil((dryAt.getTime() - at.getTime()) / HOUR_MS)} h.`
    : null;

/** What must be acknowledged before a cut: what changed since the lock, and a print that is not dry. */
export async function cutChanges(
  database: Database,
  jobId: string,
  { stamp, stack }: { readonly stamp: (at: Date) => string; readonly stack: string },
): Promise<readonly string[]> {
  const found = await lockedJob(database, jobId);
  if (!found.ok) return [];
  const { row, locked, content, material, print } = found.value;
  const changes = await changesSince(database, { row, layout: locked.layout, content, material, stamp });
  const need = await testCutWanted(database, row, { materialId: material.id, stack });
  const wet = stillDries(print?.print.dryAt ?? null, now());
  return [...changes, ...(need ? [testCutWords(need, material.name, stack)] : []), ...(wet ? [wet] : [])];
}

export interface Released {
  readonly id: string;
  /** Absent: the lines stand in the print file, or in the program's own. */
  readonly fileName: string | null;
}

type LockedJob = Extract<Awaited<ReturnType<typeof lockedJob>>, { readonly ok: true }>['value'];

/** Why nothing is given out; null where everything was seen and is as it was locked. */
function releaseProblem(
  { job: own, locked }: LockedJob,
  input: ReleaseCutInput,
  changes: readonly string[],
): string | null {
  if (own.state !== 'waiting') return 'This job waits for no cut: say first that it was printed, or make a copy of it.';
  if (changes.join('\n') !== input.seenChanges.join('\n'))
    return 'Something changed while this page was open. Load it again, read what changed, and go on.';
  return fileProblem(locked.layout, input);
}

/** The cutter's own file where our marks were printed; null where the lines stand in the print file or the program's own. */
async function fileToCut(
  database: Database,
  { row, content, material }: LockedJob,
  { turnDeg, lines, scoreTool }: ReleaseCutInput,
): Promise<Result<JobFile | null, Refusal>> {
  if (content.draft.laysOut === 'program' || !jobFacts(row, material).hasOwnMarks) return ok(null);
  const correction = await correctionInForce(database, row);
  const lay = correction?.load ?? (await lastLoadOf(database, null));
  const load = { ...lay, turnDeg: turnDeg ?? lay.turnDeg };
  return cutFileOf(content, row, { load, correction, lines, scoreTool });
}

interface ReleaseOrder {
  readonly input: ReleaseCutInput;
  readonly stamp: (at: Date) => string;
}

/** Gives the cut file out, or finds the program's own unchanged, after the changes were acknowledged by name. */
export async function releaseCut(
  database: Database,
  actor: Actor,
  { input, stamp }: ReleaseOrder,
): Promise<Result<Released, Refusal>> {
  const stranger = await strangerTo(database, actor, { jobId: input.jobId });
  if (stranger) return fail(stranger);
  const found = await lockedJob(database, input.jobId);
  if (!found.ok) return found;
  const releases = await findReleases(database, found.value.locked.layout.id);
  const known = releases.find((r) => r.id === input.id);
  if (known) return ok({ id: known.id, fileName: known.name });
  const stack = input.stack ?? '';
  const changes = await cutChanges(database, input.jobId, { stamp, stack });
  const wrong = releaseProblem(found.value, input, changes);
  if (wrong) return fail(refusal(wrong));
  const made = await fileToCut(database, found.value, input);
  if (!made.ok) return made;
  const file = made.value && { ...made.value, contentSha256: sha256(made.value.content) };
  await database.insert(cutRelease).values({
    ...{
      id: input.id,
      lockedLayoutId: found.value.locked.layout.id,
      changes: [...changes],
      stack,
      at: now(),
      by: actor.personId,
    },
    ...file,
  });
  return ok({ id: input.id, fileName: file?.name ?? null });
}

/** Every look of the eye at a job's marks: all but the last in vain. */
const marksOf = (
  { row, material, content, job: own }: LockedJob,
  { tries, wereRead, light }: MarksReadInput,
): MarkLook => ({
  ...{ row, material, light, of: { jobId: own.id }, insetMm: content.draft.insetMm },
  outcomes: Array.from({ length: tries }, (_, i) => wereRead && i === tries - 1),
});

/** Keeps how a job came out; told again, the newest counts. */
export async function tellResult(
  database: Database,
  actor: Actor,
  input: TellResultInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { jobId: input.jobId });
  if (stranger) return fail(stranger);
  const found = await lockedJob(database, input.jobId);
  if (!found.ok) return found;
  const { job: own, locked } = found.value;
  const results = await findResults(database, input.jobId);
  if (results.some(({ result }) => result.id === input.id)) return ok(input.jobId);
  if (own.state !== 'waiting' && own.state !== 'cut') return fail(refusal('A result is told after the cut.'));
  const released = await findReleases(database, locked.layout.id);
  if (released.length === 0) return fail(refusal('No cut was released for this job yet.'));
  const { id, jobId, good, spoiled, spoiledCost, note } = input;
  await database.transaction(async (session) => {
    await session.insert(jobResult).values({
      ...{ id, jobId, seq: results.length + 1, good, spoiled, spoiledCost, note, at: now(), by: actor.personId },
    });
    await session
      .update(job)
      .set({ state: 'cut', version: sql`${job.version} + 1` })
      .where(and(eq(job.id, jobId), eq(job.state, 'waiting')));
    if (input.marks) await keepMarkReadings(session, actor, marksOf(found.value, input.marks));
  });
  return ok(jobId);
}
