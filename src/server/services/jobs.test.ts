import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { ReleaseCutInput } from '@/contracts/jobs';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findArt, findJob, findLocked, findLockedFile, findRelease } from '@/db/queries/job';
import { findSetup } from '@/db/queries/shop';
import { job, jobResult, lockedFile } from '@/db/schema/job';
import { material } from '@/db/schema/shop';
import { machineSetting } from '@/db/schema/settings';
import { readHpgl } from '@/formats/hpgl/hpgl';
import { logEvent } from './events';
import { cutChanges, releaseCut, tellPrinted, tellResult } from './job-cut';
import { jobFacts } from './job-facts';
import { buildLock, lockJob } from './job-lock';
import { readJob, readJobs } from './job-view';
import { archiveJob, bringBack, copyJob, keepArt, keepDraft, startJob } from './jobs';
import { makeShop, type TestShop } from './shop.testing';
import { tellShownValue } from './shown-value';

// A thread needs the built program: here the same computation runs where it is asked for.
jest.mock('./computation-thread', () => {
  const { COMPUTATIONS } = jest.requireActual<typeof import('@/compute/computations')>('@/compute/computations');
  return {
    computeInThread: (name: keyof typeof COMPUTATIONS, raw: unknown) => Promise.resolve(COMPUTATIONS[name].run(raw)),
  };
});
jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const DISC = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60">
<circle cx="30" cy="30" r="25" fill="#0b6b62"/><circle cx="30" cy="30" r="27" fill="none" stroke="#ff0000" stroke-width="0.1"/></svg>`;
const stamp = (at: Date): string => at.toISOString();

const item = (fileId: string, changes: Partial<JobItem> = {}): JobItem => ({
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

async function begun(shop: TestShop): Promise<{ readonly jobId: string; readonly draft: JobDraft }> {
  const id = randomUUID();
  const done = await startJob(test.database, shop.actor, {
    id,
    setupId: shop.setupId,
    materialId: shop.materialId,
    name: 'Discs',
  });
  if (!done.ok) throw new Error(done.error.message);
  const found = await findJob(test.database, id);
  return { jobId: id, draft: found?.job.draft as JobDraft };
}

async function kept(shop: TestShop, jobId: string, draft: JobDraft): Promise<number> {
  const version = (await findJob(test.database, jobId))?.job.version ?? 0;
  const done = await keepDraft(test.database, { jobId, version, name: 'Discs', materialId: shop.materialId, draft });
  if (!done.ok) throw new Error(done.error.message);
  return done.value;
}

async function art(jobId: string, content: string | Buffer = DISC, name = 'disc.svg'): Promise<string> {
  const id = randomUUID();
  const done = await keepArt(test.database, { jobId, id }, { name, content: Buffer.from(content) });
  if (!done.ok) throw new Error(done.error.message);
  return id;
}

/** A job of discs, drawn and kept, ready to be locked. */
async function discs(shop: TestShop, changes: Partial<JobDraft> = {}) {
  const { jobId, draft } = await begun(shop);
  const fileId = await art(jobId);
  const version = await kept(shop, jobId, { ...draft, items: [item(fileId)], ...changes });
  return { jobId, version };
}

async function locked(shop: TestShop, changes: Partial<JobDraft> = {}): Promise<string> {
  const { jobId, version } = await discs(shop, changes);
  const done = await lockJob(test.database, shop.actor, { id: randomUUID(), jobId, version, ownFile: null });
  if (!done.ok) throw new Error(done.error.message);
  return jobId;
}

const printed = (shop: TestShop, jobId: string) =>
  tellPrinted(test.database, shop.actor, { id: randomUUID(), jobId, sheets: 2, minutesAgo: 0 });

const release = async (shop: TestShop, jobId: string, changes: Partial<ReleaseCutInput> = {}) =>
  releaseCut(test.database, shop.actor, {
    input: {
      ...{ id: randomUUID(), jobId, ownFile: null, isUnmoved: false, turnDeg: null },
      seenChanges: [...(await cutChanges(test.database, jobId, stamp))],
      ...changes,
    },
    stamp,
  });

const refusedBy = async (done: Promise<{ ok: boolean; error?: { message: string } }>): Promise<string> => {
  const answer = await done;
  return answer.ok ? 'taken' : (answer.error?.message ?? '');
};

describe('a job that is being laid out', () => {
  it('is begun once however often it is sent; numbers count up within the shop, two at once as well', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const input = { id: randomUUID(), setupId: shop.setupId, materialId: shop.materialId, name: 'Discs' };
    await startJob(test.database, shop.actor, input);
    await startJob(test.database, shop.actor, input);
    await Promise.all([begun(shop), begun(shop), begun(shop)]);
    const lines = await readJobs(test.database, shop.shopId, 'UTC');
    expect(lines.map((l) => l.number)).toEqual([4, 3, 2, 1]);
  });
  it('keeps what is typed; an older page does not overwrite a newer one', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const { jobId, draft } = await begun(shop);
    await kept(shop, jobId, { ...draft, gapMm: 3.5 });
    const old = { jobId, version: 1, name: 'Old', materialId: shop.materialId, draft };
    expect(await refusedBy(keepDraft(test.database, old))).toContain('changed on another device');
    expect((await findJob(test.database, jobId))?.job.draft).toMatchObject({ gapMm: 3.5 });
  });
  it('takes art once, refuses what is none by name', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const { jobId } = await begun(shop);
    const id = randomUUID();
    const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();
    const file = { name: 'a.png', content: png };
    expect(await keepArt(test.database, { jobId, id }, file)).toMatchObject({
      ok: true,
      value: { kind: 'picture', widthPx: 30, heightPx: 20 },
    });
    await keepArt(test.database, { jobId, id }, file);
    expect(await findArt(test.database, jobId)).toHaveLength(1);
    const none = { name: 'a.txt', content: Buffer.from('twelve apples') };
    expect(await refusedBy(keepArt(test.database, { jobId, id: randomUUID() }, none))).toContain(
      'Art is an SVG, a PNG or a JPEG',
    );
  });
  it('is never deleted: put away with a reason, and brought back as it was', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const { jobId } = await begun(shop);
    await expect(test.database.delete(job).where(eq(job.id, jobId))).rejects.toThrow();
    await archiveJob(test.database, { jobId, reason: 'the order was called off' });
    expect((await readJob(test.database, shop.shopId, jobId, 'UTC'))?.job).toMatchObject({
      state: 'archived',
      archivedReason: 'the order was called off',
    });
    await bringBack(test.database, jobId);
    expect((await findJob(test.database, jobId))?.job).toMatchObject({ state: 'draft', archivedReason: null });
  });
});

describe('locking', () => {
  it('is refused by name while something stops it, and gives nothing out', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const plain = item('', { art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 } });
    const { jobId, version } = await discs(shop, { items: [plain] });
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await refusedBy(lockJob(test.database, shop.actor, input))).toContain('It has no art to print');
    expect(await findLocked(test.database, jobId)).toBeUndefined();
    expect(await findLockedFile(test.database, jobId, 'print-pdf')).toBeUndefined();
    expect(await refusedBy(printed(shop, jobId))).toContain('not locked');
    expect(await refusedBy(release(shop, jobId))).toContain('not locked');
  });
  it('twice gives the same bytes, and once locked nothing changes', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const { jobId, version } = await discs(shop);
    const found = await findJob(test.database, jobId);
    const row = await findSetup(test.database, shop.setupId);
    if (!found || !row) throw new Error('the job is there');
    const order = {
      ...{ row, title: 'Job 1', draft: found.job.draft as JobDraft, facts: jobFacts(row, found.material) },
      art: await findArt(test.database, jobId),
    };
    const [one, two] = [await buildLock(test.database, order), await buildLock(test.database, order)];
    if (!one.ok || !two.ok) throw new Error('it can be locked');
    expect(one.value.files.map((f) => f.kind)).toEqual(['print-pdf', 'print-svg']);
    for (const [i, file] of one.value.files.entries())
      expect(file.content.equals(two.value.files[i]?.content ?? Buffer.alloc(0))).toBe(true);
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await lockJob(test.database, shop.actor, input)).toMatchObject({ ok: true });
    expect(await lockJob(test.database, shop.actor, { ...input, id: randomUUID() })).toMatchObject({ ok: true });
    const stored = await findLockedFile(test.database, jobId, 'print-pdf');
    expect(stored?.content.equals(one.value.files[0]?.content ?? Buffer.alloc(0))).toBe(true);
    await expect(test.database.update(lockedFile).set({ name: 'other' })).rejects.toThrow();
    await expect(test.database.update(job).set({ draft: {} }).where(eq(job.id, jobId))).rejects.toThrow();
    await expect(test.database.update(job).set({ state: 'draft' }).where(eq(job.id, jobId))).rejects.toThrow();
    const draft = found.job.draft as JobDraft;
    const late = keepDraft(test.database, { jobId, version: 3, name: 'x', materialId: shop.materialId, draft });
    expect(await refusedBy(late)).toContain('locked');
  });
  it('a change makes a new job, with its own copies of the art', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const jobId = await locked(shop);
    const id = randomUUID();
    await copyJob(test.database, shop.actor, { id, jobId });
    const copy = await findJob(test.database, id);
    expect(copy?.job).toMatchObject({ state: 'draft', madeFromId: jobId, number: 2 });
    const [own] = await findArt(test.database, id);
    expect((copy?.job.draft as JobDraft).items[0]?.art).toMatchObject({ fileId: own?.id });
    const again = await lockJob(test.database, shop.actor, {
      id: randomUUID(),
      jobId: id,
      version: copy?.job.version ?? 0,
      ownFile: null,
    });
    expect(again.ok).toBe(true);
  });
  it('an own program locks the fingerprint of its saved file, and needs no art here', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR, route: 'A' });
    const artBox = { widthMm: 100, lengthMm: 150, leftMm: 50, topMm: 60 };
    const { jobId, version } = await discs(shop, { laysOut: 'program', items: [], artBox });
    const ownFile = { name: 'discs.job', bytes: 1234, sha256: 'a'.repeat(64) };
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await refusedBy(lockJob(test.database, shop.actor, input))).toContain('fingerprint');
    expect((await lockJob(test.database, shop.actor, { ...input, ownFile })).ok).toBe(true);
    await printed(shop, jobId);
    const other = { ...ownFile, bytes: 1300, sha256: 'b'.repeat(64) };
    expect(await refusedBy(release(shop, jobId))).toContain('Drop discs.job in again');
    expect(await refusedBy(release(shop, jobId, { ownFile: other, isUnmoved: true }))).toContain(
      'changed after printing',
    );
    expect(await refusedBy(release(shop, jobId, { ownFile }))).toContain('nothing on the page was moved');
    expect(await release(shop, jobId, { ownFile, isUnmoved: true })).toMatchObject({
      ok: true,
      value: { fileName: null },
    });
  });
  it.each([
    ['A', 'drawing', { opens: ['svg' as const], knowsCutBy: 'colour' as const }],
    ['C', 'queue-pdf', { opens: ['pdf' as const], knowsCutBy: 'spot_ink' as const, spotInkName: 'Plumb' }],
  ] as const)('route %s gives %s, art and cut lines in one', async (route, kind, program) => {
    const shop = await makeShop(test.database, {
      error: NO_ERROR,
      route,
      program: { ...program, opens: [...program.opens] },
    });
    const jobId = await locked(shop);
    const file = await findLockedFile(test.database, jobId, kind);
    const text = file?.content.toString('latin1') ?? '';
    expect(text).toContain(kind === 'drawing' ? '#0b6b62' : 'Plumb');
    await printed(shop, jobId);
    expect(await release(shop, jobId)).toMatchObject({ ok: true, value: { fileName: null } });
  });
});

describe('waiting and cutting', () => {
  it('dries as long as its material says, and says so before the cut', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    await test.database.update(material).set({ dryingHours: 24 }).where(eq(material.id, shop.materialId));
    const jobId = await locked(shop);
    await printed(shop, jobId);
    expect(await cutChanges(test.database, jobId, stamp)).toEqual(['The print is not dry for another 24 h.']);
    const [line] = await readJobs(test.database, shop.shopId, 'UTC');
    expect(line?.sentence).toMatch(
      /Discs \(job 1\): 2 sheets printed \w+day, not dry for another 24 h, the end with the words first\./,
    );
  });
  it('tells settings, blades, materials and marks that changed, by name; nothing slips in unseen', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const jobId = await locked(shop);
    await printed(shop, jobId);
    expect(await cutChanges(test.database, jobId, stamp)).toEqual([]);
    const [setting] = await test.database
      .select()
      .from(machineSetting)
      .where(eq(machineSetting.id, shop.settingIds[0] ?? ''));
    await tellShownValue(test.database, shop.actor, { id: randomUUID(), settingId: setting?.id ?? '', value: 27 });
    await logEvent(test.database, shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'new_blade', note: '' });
    await test.database.update(material).set({ version: 2 }).where(eq(material.id, shop.materialId));
    const changes = await cutChanges(test.database, jobId, stamp);
    expect(changes.join(' ')).toMatch(/OFFSET_ACROSS was .*26\.5.* and is .*27.* now/);
    expect(changes.join(' ')).toMatch(/New blade or holder.*test cut in the spare/);
    expect(changes.join(' ')).toMatch(/described anew/);
    expect(await refusedBy(release(shop, jobId, { seenChanges: [] }))).toContain('changed while this page was open');
    expect(await release(shop, jobId)).toMatchObject({ ok: true });
  });
  it('the cut file is the locked layout in the cutter\u2019s axes: every copy about its printed place', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const jobId = await locked(shop);
    await printed(shop, jobId);
    const done = await release(shop, jobId, { turnDeg: 0 });
    if (!done.ok) throw new Error(done.error.message);
    const file = await findRelease(test.database, jobId, done.value.id);
    const read = readHpgl(file?.content?.toString() ?? '');
    const content = (await readJob(test.database, shop.shopId, jobId, 'UTC'))?.locked?.content;
    if (!read.ok || !content) throw new Error('the cut file reads');
    expect(read.value).toHaveLength(content.placements.length);
    const [mark] = content.markBoxes;
    for (const [i, { box }] of content.placements.entries()) {
      const path = read.value[i] ?? [];
      const middle = {
        x: (Math.min(...path.map((p) => p.x)) + Math.max(...path.map((p) => p.x))) / 2,
        y: (Math.min(...path.map((p) => p.y)) + Math.max(...path.map((p) => p.y))) / 2,
      };
      expect(Math.abs(middle.x - (box.left + box.width / 2 - (mark?.left ?? 0)))).toBeLessThan(0.03);
      expect(Math.abs(middle.y - (box.bottom + box.height / 2 - (mark?.bottom ?? 0)))).toBeLessThan(0.03);
    }
  });
  it('nothing is cut before it was printed; a result follows a cut, told again the newest counts', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const jobId = await locked(shop);
    const result = (good: number) => ({ id: randomUUID(), jobId, good, spoiled: 20 - good, spoiledCost: 3, note: '' });
    expect(await refusedBy(release(shop, jobId))).toContain('waits for no cut');
    await printed(shop, jobId);
    expect(await refusedBy(tellResult(test.database, shop.actor, result(19)))).toContain('No cut was released');
    await release(shop, jobId);
    await tellResult(test.database, shop.actor, result(19));
    await tellResult(test.database, shop.actor, result(18));
    const [line] = await readJobs(test.database, shop.shopId, 'UTC');
    expect(line).toMatchObject({ state: 'cut', result: { good: 18, spoiled: 2, spoiledCost: 3 } });
    expect(await test.database.select().from(jobResult).where(eq(jobResult.jobId, jobId))).toHaveLength(2);
  });
});
