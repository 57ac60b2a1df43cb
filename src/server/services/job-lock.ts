import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import { Draft, type LockJobInput } from '@/contracts/jobs';
import type { Compute } from '@/compute/compute-here';
import { itemFindingWords, type FindingWords } from '@/core/artwork/item-finding';
import type { JobDraft } from '@/core/layout/job-draft';
import { layoutFindings } from '@/core/layout/layout-findings';
import { fail, ok, type Result } from '@/core/result';
import { canonicalJson } from '@/core/target/canonical-json';
import type { Database } from '@/db/client';
import { findArt, findJob, findLocked } from '@/db/queries/job';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { job, lockedFile, lockedLayout } from '@/db/schema/job';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { computeInChild } from './decoder';
import { correctionInForce } from './job-correction';
import { lockedContent, titleOf, type ArtRow, type LockedContent, type ReadyLayout } from './job-content';
import { describedMaterial } from './material-changes';
import { jobFacts, type JobFacts } from './job-facts';
import { printFiles, sheetOf, type JobFile } from './job-files';
import { JOB_GONE, sha256 } from './jobs';
import { spotInkOf } from './spot-ink';
import { strangerTo } from './own-shop';

const PROBLEM_WORDS: Readonly<Record<string, string>> = {
  'nothing-to-place': 'There is nothing on the page yet: add an item first.',
  'no-area': 'Nothing of the page can be used: the insets meet. Set the marks nearer to the edge.',
  'does-not-fit': 'One item does not fit the usable area even once.',
};

/** Lays a job out in a process of its own, so that a hostile drawing ends with it. */
export async function readyLayout(
  draft: JobDraft,
  art: readonly ArtRow[],
  facts: JobFacts,
  compute: Compute,
): Promise<Result<ReadyLayout, Refusal>> {
  const drawings = Object.fromEntries(
    art.filter((a) => a.mediaType === 'image/svg+xml').map((a) => [a.id, a.content.toString('utf8')]),
  );
  const { margins, marks } = facts.page;
  const answered = await compute('layout', { draft, margins, marks, drawings });
  if (!answered.parsed) return fail(refusal(answered.issues[0]?.message ?? 'The layout could not be read.'));
  if (answered.result.ok) return ok(answered.result.value as ReadyLayout);
  const { error } = answered.result;
  const words = 'words' in error && typeof error.words === 'string' ? error.words : PROBLEM_WORDS[error.kind];
  return fail(refusal(words ?? 'The layout could not be made.'));
}

/** Everything that is known to be wrong with a layout, what stops it first. */
export function findingsOf(draft: JobDraft, ready: ReadyLayout, facts: JobFacts): readonly FindingWords[] {
  const page = { ...ready.page, margins: facts.page.margins, marks: { ...facts.page.marks, insetMm: draft.insetMm } };
  const items = draft.laysOut === 'here' ? ready.items : [];
  const ofItems = items.flatMap((item) => item.findings.map(itemFindingWords));
  const found = [...layoutFindings(draft, { ...ready, page }, facts.layout), ...ofItems];
  return [...found.filter((f) => f.severity === 'stop'), ...found.filter((f) => f.severity === 'look')];
}

interface Locking {
  readonly row: SetupRow;
  readonly title: string;
  readonly draft: JobDraft;
  readonly facts: JobFacts;
  readonly art: readonly ArtRow[];
  readonly compute?: Compute;
}

/** A layout of the program's own has no items here, whatever was tried before. */
const ownDraft = (draft: JobDraft): JobDraft => (draft.laysOut === 'program' ? { ...draft, items: [] } : draft);

/** Content and print files of a draft, or why it cannot be locked. */
export async function buildLock(
  database: Database,
  { row, title, draft, facts, art, compute = computeInChild }: Locking,
): Promise<
  Result<
    { readonly content: LockedContent; readonly files: readonly JobFile[]; readonly warnings: readonly string[] },
    Refusal
  >
> {
  if (facts.onlyProgram && draft.laysOut === 'here') return fail(refusal(facts.onlyProgram));
  const own = ownDraft(draft);
  const ready = await readyLayout(own, art, facts, compute);
  if (!ready.ok) return ready;
  const findings = findingsOf(draft, ready.value, facts);
  const stops = findings.filter((f) => f.severity === 'stop');
  if (stops.length > 0)
    return fail(refusal(`It cannot be locked so. ${stops.map((s) => `${s.words} ${s.todo}`).join(' ')}`));
  const isInPrint = facts.route === 'A' || facts.route === 'C';
  const correction = isInPrint ? await correctionInForce(database, row) : null;
  const content = lockedContent({ title, draft: own }, ready.value, art, correction);
  const warnings = findings.map((f) => f.words);
  if (draft.laysOut === 'program') return ok({ content, files: [], warnings });
  const sheet = await sheetOf({ content, items: ready.value.items, art, hasOwnMarks: facts.hasOwnMarks, correction });
  if (!sheet.ok) return sheet;
  const spotInk = spotInkOf(row);
  return ok({ content, files: await printFiles(sheet.value, { route: facts.route, row, spotInk }), warnings });
}

/** Locks a job for printing: from here on nothing of it changes. Locked twice is locked once. */
export async function lockJob(
  database: Database,
  actor: Actor,
  input: LockJobInput,
  compute: Compute = computeInChild,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { jobId: input.jobId });
  if (stranger) return fail(stranger);
  const found = await findJob(database, input.jobId);
  if (!found) return fail(refusal(JOB_GONE));
  if (await findLocked(database, input.jobId)) return ok(input.jobId);
  const row = await findSetup(database, found.job.setupId);
  if (!row || found.job.state !== 'draft' || found.job.version !== input.version)
    return fail(refusal('This job was changed on another device meanwhile. Load the page again before you lock it.'));
  const draft = Draft.parse(found.job.draft);
  if (draft.laysOut === 'program' && !input.ownFile)
    return fail(refusal('Drop the file that your program saved first: its fingerprint is what is locked.'));
  const facts = jobFacts(row, found.material);
  const art = await findArt(database, input.jobId);
  const built = await buildLock(database, { row, title: titleOf(found.job), draft, facts, art, compute });
  if (!built.ok) return built;
  const { content, files, warnings } = built.value;
  const settings = await findSettings(database, ownersOf(row), { x: 0, y: 0 });
  const own = draft.laysOut === 'program' ? input.ownFile : null;
  return database.transaction(async (session) => {
    const [locked] = await session
      .update(job)
      .set({ state: 'locked', version: sql`${job.version} + 1` })
      .where(and(eq(job.id, input.jobId), eq(job.version, input.version), eq(job.state, 'draft')))
      .returning({ id: job.id });
    if (!locked)
      return fail(refusal('This job was changed on another device meanwhile. Load the page again before you lock it.'));
    await session.insert(lockedLayout).values({
      ...{ id: input.id, jobId: input.jobId, content, contentSha256: sha256(canonicalJson(content)) },
      settingsSnapshot: Object.fromEntries(settings.map((s) => [s.id, s.value])),
      materialVersion: found.material.version,
      materialSnapshot: describedMaterial(found.material),
      ...{ ownFileName: own?.name ?? null, ownFileBytes: own?.bytes ?? null, ownFileSha256: own?.sha256 ?? null },
      ...{ warnings: [...warnings], at: now(), by: actor.personId },
    });
    for (const { kind, name, content: bytes } of files)
      await session
        .insert(lockedFile)
        .values({ lockedLayoutId: input.id, kind, name, content: bytes, contentSha256: sha256(bytes) });
    return ok(input.jobId);
  });
}
