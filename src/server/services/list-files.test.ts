import { randomUUID } from 'node:crypto';
import { csvParse } from 'd3';
import { LIST_NAMES } from '@/contracts/lists';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import { keepDailyCheck } from './daily-check';
import { logEvent } from './events';
import { tellResult } from './job-cut';
import { jobWork } from './jobs.testing';
import { listFile } from './list-files';
import { makeShop, type TestShop } from './shop.testing';
import { readSpoilage } from './spoilage';

jest.setTimeout(120_000);

let test: TestDatabase;
let shop: TestShop;
let other: TestShop;

beforeAll(async () => {
  test = await testDatabase();
  const error = { ...NO_ERROR, offsetAcrossMm: 0.6 };
  shop = await makeShop(test.database, { error, markSdMm: 0.01 });
  other = await makeShop(test.database, { error });
  const order = { setupId: shop.setupId, materialId: shop.materialId, toleranceMm: 0.3, id: randomUUID() };
  await runCalibration(
    test.database,
    shop.actor,
    { ...order, kind: 'full', page: 'A4', way: 'settings' },
    seededRng(3),
  );
  for (const owner of [shop, other])
    await logEvent(test.database, owner.actor, {
      ...{ id: randomUUID(), setupId: owner.setupId, kind: 'new_blade', note: '=1+1, "quoted"\nand more' },
    });
  await keepDailyCheck(test.database, shop.actor, {
    ...{ id: randomUUID(), setupId: shop.setupId, materialId: shop.materialId, side: 'outside', note: '' },
    ...{ borders: { leftMm: 3.1, rightMm: 2.9, topMm: 3, bottomMm: 3 }, borderSdMm: 0.05 },
  });
  const jobs = jobWork(test.database, shop);
  const jobId = await jobs.locked();
  await jobs.testCut();
  await jobs.printed(jobId);
  await jobs.release(jobId);
  const told = { jobId, note: '', marks: { tries: 2, wereRead: true, light: 'room' as const } };
  await tellResult(test.database, shop.actor, { id: randomUUID(), ...told, good: 30, spoiled: 10, spoiledCost: 12.5 });
  await tellResult(test.database, shop.actor, { id: randomUUID(), ...told, good: 36, spoiled: 4, spoiledCost: 5 });
});
afterAll(async () => {
  await test.close();
});

const csvOf = async (what: (typeof LIST_NAMES)[number], of = shop) => {
  const { body } = await listFile(test.database, of.shopId, { what, format: 'csv' });
  return csvParse(String(body).replaceAll('\r\n', '\n'));
};

it.each(LIST_NAMES)('%s: CSV and JSON tell the same lines, of this shop alone', async (what) => {
  const lines = await csvOf(what);
  const json = JSON.parse(String((await listFile(test.database, shop.shopId, { what, format: 'json' })).body)) as {
    lines: Record<string, string | number | null>[];
  };
  expect(json.lines).toHaveLength(lines.length);
  for (const [i, line] of json.lines.entries())
    for (const name of lines.columns)
      if (typeof line[name] === 'number') expect(Number(lines[i]?.[name])).toBe(line[name]);
  expect(new Set(lines.map((l) => l.id)).size).toBe(lines.length);
  const theirs = new Set((await csvOf(what, other)).map((l) => l.id));
  expect(lines.filter((l) => theirs.has(l.id))).toEqual([]);
  // Everything but rolls was written down in the shop above; of another shop less or as much.
  expect(lines.length > 0).toBe(what !== 'roll-readings');
});

it('readings of a calibration are all there, with their units in the head; words that look like formulas are text', async () => {
  const readings = await csvOf('readings');
  const stored = await test.query('select 1 from current_reading');
  expect(readings).toHaveLength(stored.length);
  expect(readings.columns).toEqual(expect.arrayContaining(['displacement mm', 'standard uncertainty mm']));
  const [event] = await csvOf('events');
  expect(event?.note).toBe(`'=1+1, "quoted"\nand more`);
});

it('spoiled work: a job told twice counts as it was told last, in its month, with its share', async () => {
  const found = await readSpoilage(test.database, shop.shopId, 365);
  expect(found.all).toMatchObject({ jobs: 1, good: 36, spoiled: 4, cost: 5 });
  expect(found.all.share?.share).toBeCloseTo(0.1, 12);
  expect(found.months).toHaveLength(13);
  expect(found.months.at(-1)).toMatchObject({ words: new Date().toISOString().slice(0, 7), cost: 5 });
  expect(found.worst).toMatchObject([{ spoiled: 4, cost: 5 }]);
  expect((await readSpoilage(test.database, other.shopId, 365)).all).toMatchObject({ jobs: 0, share: null });
});
