import { randomUUID } from 'node:crypto';
import { computeHere } from '@/compute/compute-here';
import type { KeepTestCutInput } from '@/contracts/floor';
import type { ReleaseCutInput } from '@/contracts/jobs';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import type { Database } from '@/db/client';
import { findJob } from '@/db/queries/job';
import { cutChanges, releaseCut, tellPrinted } from './job-cut';
import { lockJob } from './job-lock';
import { keepArt, keepDraft, startJob } from './jobs';
import type { TestShop } from './shop.testing';
import { keepTestCut } from './test-cuts';

export const DISC = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60">
<circle cx="30" cy="30" r="25" fill="#0b6b62"/><circle cx="30" cy="30" r="27" fill="none" stroke="#ff0000" stroke-width="0.1"/></svg>`;
export const stamp = (at: Date): string => at.toISOString();

export const discItem = (fileId: string, changes: Partial<JobItem> = {}): JobItem => ({
  ...{ id: randomUUID(), name: 'Disc', quantity: 20, widthMm: 50, lengthMm: 50, mayTurn: false },
  art: {
    kind: 'drawing',
    fileId,
    fileName: 'disc.svg',
    cutBy: 'colour',
    cutNames: ['#ff0000'],
    cutFrom: 'lines',
    keepsHoles: true,
  },
  ...changes,
});

/** What was answered, or a test that fails with the refusal's words. */
export async function taken<T>(
  done: Promise<
    { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: { readonly message: string } }
  >,
): Promise<T> {
  const answer = await done;
  if (!answer.ok) throw new Error(answer.error.message);
  return answer.value;
}

export async function refusedBy(
  done: Promise<{ readonly ok: boolean; readonly error?: { readonly message: string } }>,
): Promise<string> {
  const answer = await done;
  return answer.ok ? 'taken' : String(answer.error?.message);
}

/** Jobs of discs in one test shop, as far as they are wanted. */
export function jobWork(db: Database, shop: TestShop) {
  const { actor, setupId, materialId } = shop;
  const begun = async () => {
    const jobId = await taken(startJob(db, actor, { id: randomUUID(), setupId, materialId, name: 'Discs' }));
    const found = await findJob(db, jobId);
    return { jobId, draft: found?.job.draft as JobDraft };
  };
  const kept = async (jobId: string, draft: JobDraft): Promise<number> => {
    const found = await findJob(db, jobId);
    return taken(keepDraft(db, { jobId, version: found?.job.version ?? 0, name: 'Discs', materialId, draft }));
  };
  /** Drawn and kept, ready to be locked. */
  const discs = async (changes: Partial<JobDraft> = {}, drawing = DISC) => {
    const { jobId, draft } = await begun();
    const file = { name: 'disc.svg', content: Buffer.from(drawing) };
    const { id } = await taken(keepArt(db, { jobId, id: randomUUID() }, file));
    return { jobId, version: await kept(jobId, { ...draft, items: [discItem(id)], ...changes }) };
  };
  const locked = async (changes: Partial<JobDraft> = {}): Promise<string> => {
    const { jobId, version } = await discs(changes);
    return taken(lockJob(db, actor, { id: randomUUID(), jobId, version, ownFile: null }, computeHere));
  };
  /** Discs that are scored where a drawing has blue lines. */
  const folded = async (drawing: string): Promise<string> => {
    const { jobId } = await discs({}, drawing);
    const draft = (await findJob(db, jobId))?.job.draft as JobDraft;
    const items = draft.items.map((i) =>
      i.art.kind === 'drawing' ? { ...i, art: { ...i.art, scoreNames: ['#0000ff'] } } : i,
    );
    const next = await kept(jobId, { ...draft, items });
    return taken(lockJob(db, actor, { id: randomUUID(), jobId, version: next, ownFile: null }, computeHere));
  };
  /** The machine's own small figure in the spare, and how it came out. */
  const testCut = (changes: Partial<KeepTestCutInput> = {}) =>
    keepTestCut(db, actor, {
      ...{ id: randomUUID(), setupId, materialId, stack: '', force: 80, forceUnit: 'gf', depth: null, speed: null },
      ...{ passes: 1, outcome: 'clean', note: '', ...changes },
    });
  const printed = (jobId: string) => tellPrinted(db, actor, { id: randomUUID(), jobId, sheets: 2, minutesAgo: 0 });
  const release = async (jobId: string, changes: Partial<ReleaseCutInput> = {}) => {
    const seenChanges = [...(await cutChanges(db, jobId, { stamp, stack: changes.stack ?? '' }))];
    const nothing = { ownFile: null, isUnmoved: false, lines: 'all' as const, scoreTool: 2, turnDeg: null };
    return releaseCut(db, actor, { input: { id: randomUUID(), jobId, ...nothing, seenChanges, ...changes }, stamp });
  };
  return { begun, kept, discs, locked, folded, testCut, printed, release };
}
