import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findRelease } from '@/db/queries/job';
import { jobResult } from '@/db/schema/job';
import { machineSetting } from '@/db/schema/settings';
import { material } from '@/db/schema/shop';
import { readHpgl, type FilePath } from '@/formats/hpgl/hpgl';
import { logEvent } from './events';
import { cutChanges, tellResult } from './job-cut';
import { dryCalendar } from './job-give';
import { readJob, readJobs } from './job-view';
import { jobWork, refusedBy, stamp } from './jobs.testing';
import { makeShop, type TestShop } from './shop.testing';
import { tellShownValue } from './shown-value';

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

function hpglPaths(text: string): readonly FilePath[] {
  const read = readHpgl(text);
  if (!read.ok) throw new Error(read.error.kind);
  return read.value;
}

function middleOf(path: FilePath = []) {
  const xs = path.map((p) => p.x);
  const ys = path.map((p) => p.y);
  return { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
}

describe('waiting and cutting', () => {
  it('dries as long as its material says, and says so before the cut', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    await db().update(material).set({ dryingHours: 24 }).where(eq(material.id, shop.materialId));
    const jobId = await at(shop).locked();
    await at(shop).printed(jobId);
    expect(await cutChanges(db(), jobId, stamp)).toEqual(['The print is not dry for another 24 h.']);
    const calendar = await (await dryCalendar(db(), jobId))?.text();
    const dryAt = (await readJob(db(), shop.shopId, jobId, 'UTC'))?.print?.dryAt;
    const start = dryAt?.toISOString().replace(/[-:]|\.\d+/g, '');
    expect(calendar).toContain(`DTSTART:${start ?? 'none'}`);
    expect(calendar).toContain('SUMMARY:Discs (job 1): dry');
    const [line] = await readJobs(db(), shop.shopId, 'UTC');
    expect(line?.sentence).toMatch(
      /Discs \(job 1\): 2 sheets printed \w+day, not dry for another 24 h, the end with the words first\./,
    );
  });
  it('tells settings, blades, materials and marks that changed, by name; nothing slips in unseen', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobId = await at(shop).locked();
    await at(shop).printed(jobId);
    expect(await cutChanges(db(), jobId, stamp)).toEqual([]);
    const [setting] = await db()
      .select()
      .from(machineSetting)
      .where(eq(machineSetting.id, shop.settingIds[0] ?? ''));
    await tellShownValue(db(), shop.actor, { id: randomUUID(), settingId: setting?.id ?? '', value: 27 });
    await logEvent(db(), shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'new_blade', note: '' });
    await db().update(material).set({ version: 2 }).where(eq(material.id, shop.materialId));
    const changes = await cutChanges(db(), jobId, stamp);
    expect(changes.join(' ')).toMatch(/OFFSET_ACROSS was .*26\.5.* and is .*27.* now/);
    expect(changes.join(' ')).toMatch(/New blade or holder.*test cut in the spare/);
    expect(changes.join(' ')).toMatch(/described anew/);
    expect(await refusedBy(at(shop).release(jobId, { seenChanges: [] }))).toContain('changed while this page was open');
    expect(await at(shop).release(jobId)).toMatchObject({ ok: true });
  });
  it('the cut file is the locked layout in the cutter\u2019s axes: every copy about its printed place', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobId = await at(shop).locked();
    await at(shop).printed(jobId);
    const done = await at(shop).release(jobId, { turnDeg: 0 });
    if (!done.ok) throw new Error(done.error.message);
    const file = await findRelease(db(), jobId, done.value.id);
    const paths = hpglPaths(String(file?.content));
    const content = (await readJob(db(), shop.shopId, jobId, 'UTC'))?.locked?.content;
    if (!content) throw new Error('the layout is kept');
    expect(paths).toHaveLength(content.placements.length);
    const origin = content.markBoxes[0] ?? { left: NaN, bottom: NaN };
    for (const [i, { box }] of content.placements.entries()) {
      const middle = middleOf(paths[i]);
      expect(Math.abs(middle.x - (box.left + box.width / 2 - origin.left))).toBeLessThan(0.03);
      expect(Math.abs(middle.y - (box.bottom + box.height / 2 - origin.bottom))).toBeLessThan(0.03);
    }
  });
  it('nothing is cut before it was printed; a result follows a cut, told again the newest counts', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobId = await at(shop).locked();
    const result = (good: number) => ({ id: randomUUID(), jobId, good, spoiled: 20 - good, spoiledCost: 3, note: '' });
    expect(await refusedBy(at(shop).release(jobId))).toContain('waits for no cut');
    await at(shop).printed(jobId);
    expect(await refusedBy(tellResult(db(), shop.actor, result(19)))).toContain('No cut was released');
    await at(shop).release(jobId);
    await tellResult(db(), shop.actor, result(19));
    await tellResult(db(), shop.actor, result(18));
    const [line] = await readJobs(db(), shop.shopId, 'UTC');
    expect(line).toMatchObject({ state: 'cut', result: { good: 18, spoiled: 2, spoiledCost: 3 } });
    expect(await db().select().from(jobResult).where(eq(jobResult.jobId, jobId))).toHaveLength(2);
  });
});
