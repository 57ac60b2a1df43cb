import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { wilsonInterval } from '@/core/math/proportion';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findRelease } from '@/db/queries/job';
import { cutRelease, jobResult } from '@/db/schema/job';
import { machineSetting } from '@/db/schema/settings';
import { material } from '@/db/schema/shop';
import { readHpgl, type FilePath } from '@/formats/hpgl/hpgl';
import { logEvent } from './events';
import { cutChanges, tellResult } from './job-cut';
import { dryCalendar } from './job-give';
import { readJob, readJobs } from './job-view';
import { readMarkReadings } from './mark-readings';
import { DISC, jobWork, refusedBy, stamp } from './jobs.testing';
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

const BARE = { stamp, stack: '' };

describe('waiting and cutting', () => {
  it('dries as long as its material says, and says so before the cut', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    await db().update(material).set({ dryingHours: 24 }).where(eq(material.id, shop.materialId));
    const jobId = await at(shop).locked();
    await at(shop).printed(jobId);
    await at(shop).testCut();
    expect(await cutChanges(db(), jobId, BARE)).toEqual(['The print is not dry for another 24 h.']);
    const calendar = await (await dryCalendar(db(), jobId))?.text();
    const dryAt = (await readJob(db(), shop.shopId, jobId, 'UTC'))?.print?.dryAt;
    const start = dryAt?.toISOString().replace(/[-:]|\.\d+/g, '');
    expect(calendar).toContain(`DTSTART:${start ?? 'none'}`);
    expect(calendar).toContain('SUMMARY:Discs (job 1): dry');
    const [line] = (await readJobs(db(), { shopId: shop.shopId, timeZone: 'UTC' })).open;
    expect(line?.sentence).toMatch(
      /Discs \(job 1\): 2 sheets printed \w+day, not dry for another 24 h, the end with the words first\./,
    );
  });
  it('tells settings, blades, materials and marks that changed, by name; nothing slips in unseen', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobId = await at(shop).locked();
    await at(shop).printed(jobId);
    await at(shop).testCut();
    expect(await cutChanges(db(), jobId, BARE)).toEqual([]);
    const [setting] = await db()
      .select()
      .from(machineSetting)
      .where(eq(machineSetting.id, shop.settingIds[0] ?? ''));
    await tellShownValue(db(), shop.actor, { id: randomUUID(), settingId: setting?.id ?? '', value: 27 });
    await logEvent(db(), shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'new_blade', note: '' });
    await db().update(material).set({ thicknessMm: 0.4 }).where(eq(material.id, shop.materialId));
    const changes = await cutChanges(db(), jobId, BARE);
    expect(changes.join(' ')).toMatch(/OFFSET_ACROSS was .*12\.5.* and is .*27.* now/);
    expect(changes.join(' ')).toMatch(/New blade or holder.*not cut clean since the new blade/);
    expect(changes.join(' ')).toMatch(/thickness was not given and is 0\.40 mm now/);
    expect(await refusedBy(at(shop).release(jobId, { seenChanges: [] }))).toContain('changed while this page was open');
    expect(await at(shop).release(jobId)).toMatchObject({ ok: true });
  });
  it('asks for a test cut of what was never cut clean as it lies: another stack, a new blade, a cut that was not clean', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const jobs = at(shop);
    const jobId = await jobs.locked();
    await jobs.printed(jobId);
    const asked = async (stack = ''): Promise<string> => (await cutChanges(db(), jobId, { stamp, stack })).join(' ');
    expect(await asked()).toMatch(/never written down as cut clean here: make a test cut in the spare first/);
    await jobs.testCut();
    expect(await asked()).toBe('');
    expect(await asked('laminated')).toMatch(/, laminated, was never/);
    await jobs.testCut({ stack: 'Laminated', force: 110 });
    expect(await asked('laminated')).toBe('');
    await jobs.testCut({ outcome: 'liner_cut' });
    expect(await asked()).toMatch(/did not come out clean/);
    expect(await refusedBy(jobs.release(jobId, { seenChanges: [] }))).toContain('changed while this page was open');
    expect(await jobs.release(jobId, { stack: 'laminated' })).toMatchObject({ ok: true });
    const [release] = await db().select().from(cutRelease).where(eq(cutRelease.stack, 'laminated'));
    expect(release?.changes).toEqual([]);
  });
  it('keeps how often the eye looked for the marks, and under what light', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR, route: 'D' });
    const jobs = at(shop);
    const jobId = await jobs.locked();
    await jobs.printed(jobId);
    await jobs.release(jobId);
    const result = { id: randomUUID(), jobId, good: 20, spoiled: 0, spoiledCost: 0, note: '' };
    await tellResult(db(), shop.actor, { ...result, marks: { tries: 3, wereRead: true, light: 'sun' } });
    await tellResult(db(), shop.actor, { ...result, marks: { tries: 3, wereRead: true, light: 'sun' } });
    const groups = await readMarkReadings(db(), shop.shopId, { by: 'light', system: 'mm' });
    expect(groups).toMatchObject([{ words: 'sun or a lamp right on it', hits: 1, tries: 3, against: null }]);
    expect(groups[0]?.share.upper).toBeCloseTo(wilsonInterval(1, 3).upper, 12);
  });
  it('scored lines are given out with a tool of their own, or in a file of their own', async () => {
    const shop = await makeShop(db(), { error: NO_ERROR });
    const folded = DISC.replace(
      '</svg>',
      '<path d="M30 10v40" fill="none" stroke="#0000ff" stroke-width="0.1"/></svg>',
    );
    const jobId = await at(shop).folded(folded);
    await at(shop).printed(jobId);
    const given = async (changes: Parameters<ReturnType<typeof at>['release']>[1]) => {
      const done = await at(shop).release(jobId, changes);
      const release = done.ok ? await findRelease(db(), jobId, done.value.id) : undefined;
      return { name: release?.name, text: release?.content?.toString() ?? '' };
    };
    const both = await given({ lines: 'all', scoreTool: 3 });
    expect(both.text.match(/SP\d/g)).toEqual(['SP3', 'SP1', 'SP0']);
    const [scored, cut] = [await given({ lines: 'scored' }), await given({ lines: 'cut' })];
    expect([scored.name, cut.name]).toEqual(['job-1-score-turned-0.hpgl', 'job-1-cut-only-turned-0.hpgl']);
    expect(hpglPaths(scored.text)).toHaveLength(12);
    expect([...hpglPaths(scored.text), ...hpglPaths(cut.text)]).toEqual(hpglPaths(both.text));
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
    const [line] = (await readJobs(db(), { shopId: shop.shopId, timeZone: 'UTC' })).cut.lines;
    expect(line).toMatchObject({ state: 'cut', result: { good: 18, spoiled: 2, spoiledCost: 3 } });
    expect(await db().select().from(jobResult).where(eq(jobResult.jobId, jobId))).toHaveLength(2);
  });
});
