import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { computeHere } from '@/compute/compute-here';
import type { JobDraft } from '@/core/layout/job-draft';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findArt, findJob, findLocked, findLockedFile } from '@/db/queries/job';
import { findSetup } from '@/db/queries/shop';
import { job, lockedFile } from '@/db/schema/job';
import { jobFacts } from './job-facts';
import { buildLock, lockJob } from './job-lock';
import { readJob, readJobs } from './job-view';
import { archiveJob, bringBack, copyJob, keepArt, keepDraft, startJob } from './jobs';
import { discItem, jobWork, refusedBy } from './jobs.testing';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});
const db = (): TestDatabase['database'] => test.database;
const at = (shop: TestShop) => jobWork(db(), shop);

describe('a job that is being laid out', () => {
  it('is begun once however often it is sent; numbers count up within the shop, two at once as well', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const input = { id: randomUUID(), setupId: shop.setupId, materialId: shop.materialId, name: 'Discs' };
    await startJob(db(), shop.actor, input);
    await startJob(db(), shop.actor, input);
    await Promise.all([at(shop).begun(), at(shop).begun(), at(shop).begun()]);
    const lines = await readJobs(db(), { shopId: shop.shopId, timeZone: 'UTC' });
    expect(lines.open.map((l) => l.number)).toEqual([4, 3, 2, 1]);
  });
  it('keeps what is typed; an older page does not overwrite a newer one', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const { jobId, draft } = await at(shop).begun();
    await at(shop).kept(jobId, { ...draft, gapMm: 3.5 });
    const old = { jobId, version: 1, name: 'Old', materialId: shop.materialId, draft };
    expect(await refusedBy(keepDraft(db(), old))).toContain('changed on another device');
    expect((await findJob(db(), jobId))?.job.draft).toMatchObject({ gapMm: 3.5 });
  });
  it('takes art once, refuses what is none by name', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const { jobId } = await at(shop).begun();
    const id = randomUUID();
    const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();
    const file = { name: 'a.png', content: png };
    expect(await keepArt(db(), { jobId, id }, file)).toMatchObject({
      ok: true,
      value: { kind: 'picture', widthPx: 30, heightPx: 20 },
    });
    await keepArt(db(), { jobId, id }, file);
    expect(await findArt(db(), jobId)).toHaveLength(1);
    const none = { name: 'a.txt', content: Buffer.from('twelve apples') };
    expect(await refusedBy(keepArt(db(), { jobId, id: randomUUID() }, none))).toContain(
      'Art is an SVG, a PNG or a JPEG',
    );
  });
  it('is never deleted: put away with a reason, and brought back as it was', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const { jobId } = await at(shop).begun();
    await expect(db().delete(job).where(eq(job.id, jobId))).rejects.toThrow();
    await archiveJob(db(), { jobId, reason: 'the order was called off' });
    expect((await readJob(db(), shop.shopId, jobId, 'UTC'))?.job).toMatchObject({
      state: 'archived',
      archivedReason: 'the order was called off',
    });
    await bringBack(db(), jobId);
    expect((await findJob(db(), jobId))?.job).toMatchObject({ state: 'draft', archivedReason: null });
  });
});

describe('locking', () => {
  it('is refused by name while something stops it, and gives nothing out', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const plain = discItem('', { art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 } });
    const { jobId, version } = await at(shop).discs({ items: [plain] });
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await refusedBy(lockJob(db(), shop.actor, input, computeHere))).toContain('It has no art to print');
    expect(await findLocked(db(), jobId)).toBeUndefined();
    expect(await findLockedFile(db(), jobId, 'print-pdf')).toBeUndefined();
    expect(await refusedBy(at(shop).printed(jobId))).toContain('not locked');
    expect(await refusedBy(at(shop).release(jobId))).toContain('not locked');
  });
  it('twice gives the same bytes, and once locked nothing changes', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const { jobId, version } = await at(shop).discs();
    const found = await findJob(db(), jobId);
    const row = await findSetup(db(), shop.setupId);
    if (!found || !row) throw new Error('the job is there');
    const order = {
      ...{ row, title: 'Job 1', draft: found.job.draft as JobDraft, facts: jobFacts(row, found.material) },
      compute: computeHere,
      art: await findArt(db(), jobId),
    };
    const [one, two] = [await buildLock(db(), order), await buildLock(db(), order)];
    if (!one.ok || !two.ok) throw new Error('it can be locked');
    expect(one.value.files.map((f) => f.kind)).toEqual(['print-pdf', 'print-svg']);
    for (const [i, file] of one.value.files.entries())
      expect(file.content.equals(two.value.files[i]?.content ?? Buffer.alloc(0))).toBe(true);
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await lockJob(db(), shop.actor, input, computeHere)).toMatchObject({ ok: true });
    expect(await lockJob(db(), shop.actor, { ...input, id: randomUUID() }, computeHere)).toMatchObject({ ok: true });
    const stored = await findLockedFile(db(), jobId, 'print-pdf');
    expect(stored?.content.equals(one.value.files[0]?.content ?? Buffer.alloc(0))).toBe(true);
    await expect(db().update(lockedFile).set({ name: 'other' })).rejects.toThrow();
    await expect(db().update(job).set({ draft: {} }).where(eq(job.id, jobId))).rejects.toThrow();
    await expect(db().update(job).set({ state: 'draft' }).where(eq(job.id, jobId))).rejects.toThrow();
    const draft = found.job.draft as JobDraft;
    const late = keepDraft(db(), { jobId, version: 3, name: 'x', materialId: shop.materialId, draft });
    expect(await refusedBy(late)).toContain('locked');
  });
  it('a change makes a new job, with its own copies of the art', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobId = await at(shop).locked();
    const id = randomUUID();
    await copyJob(db(), shop.actor, { id, jobId });
    const copy = await findJob(db(), id);
    expect(copy?.job).toMatchObject({ state: 'draft', madeFromId: jobId, number: 2 });
    const [own] = await findArt(db(), id);
    expect((copy?.job.draft as JobDraft).items[0]?.art).toMatchObject({ fileId: own?.id });
    const again = await lockJob(
      db(),
      shop.actor,
      {
        id: randomUUID(),
        jobId: id,
        version: copy?.job.version ?? 0,
        ownFile: null,
      },
      computeHere,
    );
    expect(again.ok).toBe(true);
  });
  it('an own program locks the fingerprint of its saved file, and needs no art here', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR, route: 'A' });
    const artBox = { widthMm: 100, lengthMm: 150, leftMm: 50, topMm: 60 };
    const { jobId, version } = await at(shop).discs({ laysOut: 'program', items: [], artBox });
    const ownFile = { name: 'discs.job', bytes: 1234, sha256: 'a'.repeat(64) };
    const input = { id: randomUUID(), jobId, version, ownFile: null };
    expect(await refusedBy(lockJob(db(), shop.actor, input, computeHere))).toContain('fingerprint');
    expect((await lockJob(db(), shop.actor, { ...input, ownFile }, computeHere)).ok).toBe(true);
    await at(shop).printed(jobId);
    const other = { ...ownFile, bytes: 1300, sha256: 'b'.repeat(64) };
    expect(await refusedBy(at(shop).release(jobId))).toContain('Drop discs.job in again');
    expect(await refusedBy(at(shop).release(jobId, { ownFile: other, isUnmoved: true }))).toContain(
      'changed after printing',
    );
    expect(await refusedBy(at(shop).release(jobId, { ownFile }))).toContain('nothing on the page was moved');
    expect(await at(shop).release(jobId, { ownFile, isUnmoved: true })).toMatchObject({
      ok: true,
      value: { fileName: null },
    });
  });
  it.each([
    ['A', 'drawing', { opens: ['svg' as const], knowsCutBy: 'colour' as const }],
    ['C', 'queue-pdf', { opens: ['pdf' as const], knowsCutBy: 'spot_ink' as const, spotInkName: 'Plumb' }],
  ] as const)('route %s gives %s, art and cut lines in one', async (route, kind, program) => {
    const shop = await makeShop(db(), {
      error: NO_ERROR,
      route,
      program: { ...program, opens: [...program.opens] },
    });
    const jobId = await at(shop).locked();
    const file = await findLockedFile(db(), jobId, kind);
    const text = file?.content.toString('latin1') ?? '';
    expect(text).toContain(kind === 'drawing' ? '#0b6b62' : 'Plumb');
    await at(shop).printed(jobId);
    expect(await at(shop).release(jobId)).toMatchObject({ ok: true, value: { fileName: null } });
  });
});
