import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { lockedLayout } from '@/db/schema/job';
import { material } from '@/db/schema/shop';
import { cutChanges } from './job-cut';
import { jobWork, refusedBy, stamp, taken } from './jobs.testing';
import { makeShop, type TestShop } from './shop.testing';
import { readThing } from './thing-read';
import { saveThing } from './things';

jest.setTimeout(120_000);

let test: TestDatabase;
let shop: TestShop;
let jobId: string;
beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: NO_ERROR });
  await change({ widthMm: 610, printableWidthMm: 600, thicknessMm: 0.3, dryingHours: 2 });
  const jobs = jobWork(test.database, shop);
  jobId = await jobs.locked();
  await jobs.printed(jobId);
  await jobs.testCut();
});
afterAll(async () => {
  await test.close();
});

const asked = () => ({ kind: 'material', id: shop.materialId, ownerId: null }) as const;
const values = async () => (await readThing(test.database, shop.shopId, asked()))?.values ?? {};
const actor = () => ({ ...shop.actor, shopId: shop.shopId });

/** Changes the material's description through the form's use case. */
async function change(changes: Readonly<Record<string, unknown>>): Promise<void> {
  await taken(saveThing(test.database, actor(), { ...asked(), values: { ...(await values()), ...changes } }));
}

const said = async (): Promise<string> =>
  (await cutChanges(test.database, jobId, { stamp, stack: '' })).filter((c) => !c.includes('not dry')).join(' ');

describe('a material that changed after its job was locked', () => {
  it.each<[string, Record<string, unknown>, RegExp]>([
    ['thickness', { thicknessMm: 0.45 }, /thickness was 0\.30 mm and is 0\.45 mm now/],
    ['drying time', { dryingHours: 24 }, /drying time was 2 h and is 24 h now/],
    ['width', { widthMm: 650 }, /width was 610\.00 mm and is 650\.00 mm now/],
    ['printable width', { printableWidthMm: 590 }, /printable width was 600\.00 mm and is 590\.00 mm now/],
    ['finish and films', { finish: 'matt, laminated' }, /finish was matt and is matt, laminated now/],
    ['colour', { colour: 'dark' }, /colour was white and is dark now/],
    ['transparency', { transparency: 'clear' }, /transparency was opaque and is clear now/],
    ['carrier', { carrier: 'paper liner' }, /carrier was not given and is paper liner now/],
    ['form', { form: 'roll' }, /form was sheet and is roll now/],
    [
      'growth with heat',
      { thermalPerK: 0.00002, thermalSource: 'data sheet' },
      /growth per kelvin was not given and is 0\.00002 now/,
    ],
    [
      'growth with damp',
      { humidityPerPercent: 0.0001, humiditySource: 'a guess' },
      /growth per % humidity was not given and is 0\.0001 now/,
    ],
  ])('%s: noticed and named', async (_, changes, words) => {
    const before = await values();
    expect(await said()).toBe('');
    await change(changes);
    expect(await said()).toMatch(words);
    const jobs = jobWork(test.database, shop);
    expect(await refusedBy(jobs.release(jobId, { seenChanges: [] }))).toContain('changed while this page was open');
    await change(before);
    expect(await said()).toBe('');
  });

  it('raises the version when something changes, and not when it is saved as it was', async () => {
    const version = async () =>
      (await test.database.select().from(material).where(eq(material.id, shop.materialId)))[0]?.version ?? 0;
    const before = await version();
    await change({});
    expect(await version()).toBe(before);
    await change({ thicknessMm: 0.31 });
    expect(await version()).toBe(before + 1);
    await change({ thicknessMm: 0.3 });
  });

  it('a layout locked before snapshots existed says only that the description changed', async () => {
    const other = await makeShop(test.database, { error: NO_ERROR });
    const jobs = jobWork(test.database, other);
    const old = await jobs.locked();
    await jobs.printed(old);
    await jobs.testCut();
    await test.query('alter table locked_layout disable trigger append_only');
    await test.database
      .update(lockedLayout)
      .set({ materialSnapshot: null, materialVersion: 0 })
      .where(eq(lockedLayout.jobId, old));
    await test.query('alter table locked_layout enable trigger append_only');
    expect((await cutChanges(test.database, old, { stamp, stack: '' })).join(' ')).toMatch(
      /The description of the material .* changed/,
    );
  });

  it('a material saved under a random other id is another material', async () => {
    const id = randomUUID();
    const done = await saveThing(test.database, actor(), {
      ...asked(),
      id,
      values: { ...(await values()), name: 'x' },
    });
    expect(done.ok).toBe(true);
    expect(await said()).toBe('');
  });
});
