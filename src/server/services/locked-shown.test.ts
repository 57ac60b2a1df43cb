import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { polyline } from '@/formats/vector-drawing';
import type { LockedContent } from './job-content';
import { jobWork } from './jobs.testing';
import { readJob } from './job-view';
import { lockedShown } from './locked-shown';
import { makeShop } from './shop.testing';

jest.setTimeout(60_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(() => test.close());

it('a locked layout is shown as it was locked, though the printer reaches less of the page by now', async () => {
  const shop = await makeShop(test.database, { error: NO_ERROR });
  const jobId = await jobWork(test.database, shop).locked();
  const look = async () => {
    const view = await readJob(test.database, shop.shopId, jobId, 'UTC');
    if (!view?.locked) throw new Error('it is locked');
    return { page: view.facts.page, shown: lockedShown(view.locked.content) };
  };
  const before = await look();
  await test.query(`update printer set margin_left_mm = 70, margin_top_mm = 90
    where id = (select printer_id from setup where id = '${shop.setupId}')`);
  const after = await look();
  expect(after.page).not.toEqual(before.page);
  expect(after.shown).toEqual(before.shown);
  expect(after.shown.placements.length).toBeGreaterThan(10);
  expect(after.shown.markBoxes).toHaveLength(4);
  const [item] = Object.values(after.shown.items);
  expect(item?.cutPath).toMatch(/^M[\d.-]+ [\d.-]+/);
});

it('lines of many points are written coarsely, within what a screen shows; of few points as they are', () => {
  const ring = (points: number) =>
    polyline(
      Array.from({ length: points + 1 }, (_, i) => {
        const turn = (2 * Math.PI * (i % points)) / points;
        return { x: 25 + 25 * Math.cos(turn), y: 25 + 25 * Math.sin(turn) };
      }),
    );
  const box = { left: 0, bottom: 0, width: 50, height: 50 };
  const content = (points: number) =>
    ({
      page: { widthMm: 60, lengthMm: 60 },
      placements: [{ itemId: 'disc', box, turnDeg: 0 }],
      markBoxes: [],
      items: [{ id: 'disc', artBox: box, cuts: [ring(points)] }],
    }) as unknown as LockedContent;
  const cornersOf = (points: number) =>
    (lockedShown(content(points)).items.disc?.cutPath ?? '')
      .split(/[MLZ]/)
      .filter((t) => t !== '')
      .map((t) => t.split(' ').map(Number));
  expect(cornersOf(100)).toHaveLength(100);
  const coarse = cornersOf(10_000);
  expect(coarse.length).toBeLessThan(1000);
  for (const [x = 0, y = 0] of coarse) expect(Math.abs(Math.hypot(x - 25, y - 25) - 25)).toBeLessThan(50 / 2500);
});
