import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import { readBench } from './bench';
import { setLimit } from './limit';
import { readMeasure } from './measure';
import { readSetup } from './setup';
import { makeShop, startOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { benchSentences } from './trust-words';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const limitTo = (shop: TestShop, limitMm: number) =>
  setLimit(test.database, shop.actor, { id: randomUUID(), setupId: shop.setupId, limitMm });
const start = (shop: TestShop, toleranceMm: number) =>
  startCalibration(test.database, shop.actor, { ...startOrder(shop, 'quick'), toleranceMm });
const bench = async (shop: TestShop) => (await readBench(test.database, shop.shopId))[0]!;

describe('the limit of a printer + cutter', () => {
  it('is one for every screen, and is changed in one place', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    expect((await limitTo(shop, 0.8)).ok).toBe(true);
    expect((await bench(shop)).toleranceMm).toBe(0.8);
    expect((await readSetup(test.database, shop.setupId))?.toleranceMm).toBe(0.8);
    expect((await readMeasure(test.database, shop.setupId))?.toleranceMm).toBe(0.8);
  });

  it('a check may ask for less, never for more: then the limit itself is to be changed', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    expect(await start(shop, 0.8)).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/at most 0\.30 mm.*limit of this printer \+ cutter/) as string },
    });
    expect((await start(shop, 0.2)).ok).toBe(true);
    await limitTo(shop, 0.8);
    expect((await start(shop, 0.8)).ok).toBe(true);
  });

  it('made tighter than what the last check proved, it asks for a check and says why', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.3 }, markSdMm: 0.02 });
    await limitTo(shop, 0.8);
    const order = { ...startOrder(shop, 'full'), page: 'A4', kind: 'full', way: 'settings', toleranceMm: 0.8 } as const;
    expect((await runCalibration(test.database, shop.actor, order, seededRng(1))).verdict).toBe('pass');
    expect((await bench(shop)).state).toBe('in-register');
    await limitTo(shop, 0.05);
    const own = await bench(shop);
    expect(own).toMatchObject({ state: 'check-first', next: 'quick-check', events: [] });
    const words = benchSentences(own, () => 'today', 'mm').join(' ');
    expect(words).toMatch(/The limit is 0\.05 mm now\. The last check proved 0\.\d\d mm\./);
    await limitTo(shop, 0.8);
    expect((await bench(shop)).state).toBe('in-register');
  });

  it.each([0, -1, 6, Number.NaN])('refuses %s mm', async (limitMm) => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    expect(await limitTo(shop, limitMm)).toMatchObject({ ok: false });
    expect((await bench(shop)).toleranceMm).toBe(0.3);
  });
});
