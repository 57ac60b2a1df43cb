import 'server-only';
import { createHash, randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { Draft, type KeepDraftInput, type StartJobInput } from '@/contracts/jobs';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import { fail, ok, type Result } from '@/core/result';
import type { Database, Session } from '@/db/client';
import { findArt, findJob, type JobRow } from '@/db/queries/job';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { job, jobArt } from '@/db/schema/job';
import { now } from '../clock';
import type { PictureFacts } from '../documents/job-picture';
import { refusal, type Actor, type Refusal } from './actor';
import { readPictureFacts } from './decoder';
import { firstDraft, jobFacts } from './job-facts';
import { strangerTo } from './own-shop';

export const JOB_GONE = 'This job is not there any more.';
const ELSEWHERE =
  'This job was changed on another device meanwhile. What you typed is still here: load the page again to see the other.';

export const sha256 = (content: string | Uint8Array): Buffer => createHash('sha256').update(content).digest();

/** Next number of a shop's jobs. Two begun at once: the second waits for the first's row lock on the shop. */
async function nextNumber(session: Session, shopId: string): Promise<number> {
  await session.execute(sql`select 1 from shop where id = ${shopId} for update`);
  const [row] = await session
    .select({ last: sql<number>`coalesce(max(${job.number}), 0)` })
    .from(job)
    .where(eq(job.shopId, shopId));
  return (row?.last ?? 0) + 1;
}

/** Begins a job. The id comes from the client: begun twice is begun once. */
export async function startJob(
  database: Database,
  actor: Actor,
  input: StartJobInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  if (await findJob(database, input.id)) return ok(input.id);
  const row = await findSetup(database, input.setupId);
  if (!row) return fail(refusal('This printer + cutter is not there any more.'));
  const { shopId } = row.setup;
  const own = (await findMaterials(database, shopId)).find((m) => m.id === input.materialId);
  if (!own) return fail(refusal('Choose the material first.'));
  const draft = firstDraft(row, own, jobFacts(row, own));
  await database.transaction(async (session) => {
    await session.insert(job).values({
      ...{ id: input.id, shopId, number: await nextNumber(session, shopId), name: input.name },
      ...{ setupId: input.setupId, materialId: own.id, state: 'draft', draft },
      ...{ startedAt: now(), startedBy: actor.personId },
    });
  });
  return ok(input.id);
}

/** Keeps a draft as it stands on the screen. @returns its new version. */
export async function keepDraft(database: Database, input: KeepDraftInput): Promise<Result<number, Refusal>> {
  const { jobId, version, name, materialId, draft } = input;
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  if (found.job.state !== 'draft')
    return fail(refusal('This job is locked: nothing of it changes any more. Make a changed copy of it instead.'));
  const materials = await findMaterials(database, found.job.shopId);
  if (!materials.some((m) => m.id === materialId)) return fail(refusal('Choose the material first.'));
  const [kept] = await database
    .update(job)
    .set({ name, materialId, draft, version: version + 1 })
    .where(and(eq(job.id, jobId), eq(job.version, version), eq(job.state, 'draft')))
    .returning({ version: job.version });
  return kept ? ok(kept.version) : fail(refusal(ELSEWHERE));
}

/** Art is bounded like every upload. */
export const MOST_ART_BYTES = 64 * 1024 * 1024;
const MOST_ART_FILES = 60;

export interface KeptArt {
  readonly id: string;
  readonly kind: 'drawing' | 'picture';
  readonly widthPx: number;
  readonly heightPx: number;
}

async function artKind(content: Uint8Array): Promise<Result<Omit<KeptArt, 'id'>, Refusal>> {
  const head = new TextDecoder('utf-8').decode(content.subarray(0, 4096));
  if (/<svg[\s>]/.test(head) || head.trimStart().startsWith('<?xml'))
    return ok({ kind: 'drawing', widthPx: 0, heightPx: 0 });
  const facts = await readPictureFacts<PictureFacts>(content);
  if (!facts.ok) return fail(refusal(`${facts.error} Art is an SVG, a PNG or a JPEG.`));
  return ok({ kind: 'picture', widthPx: facts.value.widthPx, heightPx: facts.value.heightPx });
}

/** Keeps art byte for byte; the same sent again is harmless. */
export async function keepArt(
  database: Database,
  { jobId, id }: { readonly jobId: string; readonly id: string },
  file: { readonly name: string; readonly content: Uint8Array },
): Promise<Result<KeptArt, Refusal>> {
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  if (found.job.state !== 'draft') return fail(refusal('This job is locked: no art can be added to it.'));
  if (file.content.length > MOST_ART_BYTES) return fail(refusal('The file is larger than 64 MB.'));
  const kind = await artKind(file.content);
  if (!kind.ok) return kind;
  const count = await database.select({ id: jobArt.id }).from(jobArt).where(eq(jobArt.jobId, jobId));
  if (count.length >= MOST_ART_FILES) return fail(refusal(`A job keeps at most ${MOST_ART_FILES} files of art.`));
  const isPng = file.content[0] === 0x89;
  const picture = isPng ? 'image/png' : 'image/jpeg';
  await database
    .insert(jobArt)
    .values({
      ...{ id, jobId, fileName: file.name.slice(0, 200), at: now() },
      mediaType: kind.value.kind === 'drawing' ? 'image/svg+xml' : picture,
      content: Buffer.from(file.content),
      contentSha256: sha256(file.content),
    })
    .onConflictDoNothing();
  return ok({ id, ...kind.value });
}

/** A draft whose art is another job's copies of the same files. */
const withArt = (draft: JobDraft, ids: ReadonlyMap<string, string>): JobDraft => ({
  ...draft,
  items: draft.items.map((item): JobItem => {
    const { art } = item;
    return art.kind === 'plain' ? item : { ...item, art: { ...art, fileId: ids.get(art.fileId) ?? art.fileId } };
  }),
});

/** Another job like this one, as a draft: what changes after locking is always a new job. */
export async function copyJob(
  database: Database,
  actor: Actor,
  { id, jobId }: { readonly id: string; readonly jobId: string },
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { jobId });
  if (stranger) return fail(stranger);
  if (await findJob(database, id)) return ok(id);
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  const draft = Draft.parse(found.job.draft);
  await database.transaction(async (session) => {
    const art = await findArt(session, jobId);
    const ids = new Map(art.map((a) => [a.id, randomUUID()]));
    const { shopId, name, setupId, materialId } = found.job;
    await session.insert(job).values({
      ...{ id, shopId, number: await nextNumber(session, shopId), name, setupId, materialId, madeFromId: jobId },
      ...{ state: 'draft', draft: withArt(draft, ids), startedAt: now(), startedBy: actor.personId },
    });
    for (const a of art) await session.insert(jobArt).values({ ...a, id: ids.get(a.id) ?? a.id, jobId: id });
  });
  return ok(id);
}

type Kept = Exclude<JobRow['state'], 'archived'>;

/** Puts a job away with the reason; nothing of it is deleted. */
export async function archiveJob(
  database: Database,
  { jobId, reason }: { readonly jobId: string; readonly reason: string },
): Promise<Result<string, Refusal>> {
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  const { state } = found.job;
  if (state === 'archived') return ok(jobId);
  await database
    .update(job)
    .set({ state: 'archived', archivedReason: reason, archivedState: state, version: sql`${job.version} + 1` })
    .where(and(eq(job.id, jobId), eq(job.state, state)));
  return ok(jobId);
}

/** Takes a job out of the archive again, as it was. */
export async function bringBack(database: Database, jobId: string): Promise<Result<string, Refusal>> {
  const found = await findJob(database, jobId);
  if (!found) return fail(refusal(JOB_GONE));
  const { state, archivedState } = found.job;
  if (state !== 'archived' || archivedState === null) return ok(jobId);
  const back: Kept = archivedState;
  await database
    .update(job)
    .set({ state: back, archivedReason: null, archivedState: null, version: sql`${job.version} + 1` })
    .where(eq(job.id, jobId));
  return ok(jobId);
}
