import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { readBench } from './bench';
import { acceptCorrection, changedOnly } from './corrections';
import { makeShop, startOrder } from './shop.testing';
import { tellShownValue } from './shown-value';
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

it('a setup that was cut and corrected is not called unmeasured, and its own correction is no event of it', async () => {
  const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.6 } });
  const { database } = test;
  const own = async () => (await readBench(database, shop.shopId))[0]!;
  const words = async () => benchSentences(await own(), () => 'today', 'mm').join(' ');
  expect(await words()).toBe('Nothing measured yet. Limit 0.30 mm.');
  const input = startOrder(shop, 'full');
  expect((await startCalibration(database, shop.actor, input)).ok).toBe(true);
  const load = { turnDeg: 0, face: 'ink-up' } as const;
  await cutAndRead(database, shop.actor, input.id, { load, rng: seededRng(1) });
  expect(await words()).toBe('Measured: 1 cut. No cut has confirmed it yet. Limit 0.30 mm.');
  const found = analyse(await mustLoad(database, input.id));
  if (!found.ok) throw new Error(found.error.kind);
  const typed = Object.fromEntries(changedOnly(found.value.plan).map((c) => [c.setting.id, c.toType]));
  expect(Object.keys(typed).length).toBeGreaterThan(0);
  const order = { id: randomUUID(), calibrationId: input.id, way: 'settings', typed } as const;
  expect((await acceptCorrection(database, shop.actor, order)).ok).toBe(true);
  expect((await own()).events).toEqual([]);
  // A value that somebody else set is one.
  await tellShownValue(database, shop.actor, { id: randomUUID(), settingId: shop.settingIds[1] ?? '', value: 20 });
  expect((await own()).events).toMatchObject([{ words: 'a machine setting was changed' }]);
});
