import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { acceptCorrection, changedOnly } from './corrections';
import { currentSets } from './record';
import { makeShop, type TestShop } from './shop.testing';
import { addSheet, planCutFor, recordCut } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const PLAIN = { turnDeg: 0, face: 'ink-up' } as const;
const ERROR = { ...NO_ERROR, offsetAcrossMm: 0.5, offsetAlongMm: -0.4, rotationRad: 0.0025 };

const run = (shop: TestShop, way: 'settings' | 'settings-and-file' | 'file' | 'none') =>
  runCalibration(
    test.database,
    shop.actor,
    { setupId: shop.setupId, materialId: shop.materialId, page: 'A4', kind: 'full', toleranceMm: 0.12, way },
    seededRng(8),
  );

async function worstNow(calibrationId: string): Promise<number> {
  const analysed = analyse(await mustLoad(test.database, calibrationId));
  if (!analysed.ok) throw new Error(analysed.error.kind);
  return analysed.value.bounds.worstMm;
}

describe('a second round', () => {
  it.each(['settings', 'settings-and-file', 'file', 'none'] as const)(
    'after lines were moved in the file, %s keeps that move',
    async (way) => {
      const shop = await makeShop(test.database, { error: ERROR });
      const { calibrationId } = await run(shop, 'settings-and-file');
      const record = await mustLoad(test.database, calibrationId);
      expect(record.calibration.state).toBe('open');
      const before = await worstNow(calibrationId);
      const analysed = analyse(record);
      if (!analysed.ok) throw new Error(analysed.error.kind);
      const typed = Object.fromEntries(changedOnly(analysed.value.plan).map((c) => [c.setting.id, c.toType]));
      const done = await acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId, way, typed });
      expect(done.ok).toBe(true);
      await addSheet(test.database, shop.actor, { calibrationId });
      await cutAndRead(test.database, shop.actor, calibrationId, { load: PLAIN, rng: seededRng(9) });
      // Rotation alone is worth 0.37 mm here: were the first move dropped, it would be back.
      expect(before).toBeLessThan(0.12);
      expect(await worstNow(calibrationId)).toBeLessThan(0.2);
    },
  );

  it('a fresh load outranks the check of the old one', async () => {
    const shop = await makeShop(test.database, { error: ERROR, markSdMm: 0.05 });
    const { calibrationId } = await run(shop, 'none');
    const record = await mustLoad(test.database, calibrationId);
    const id = randomUUID();
    await acceptCorrection(test.database, shop.actor, { id, calibrationId, way: 'file', typed: {} });
    await addSheet(test.database, shop.actor, { calibrationId });
    const cut = (isFreshLoad: boolean) =>
      recordCut(test.database, shop.actor, { id: randomUUID(), calibrationId, ...PLAIN, outcome: 'done', isFreshLoad });
    await cut(false);
    expect(currentSets(await mustLoad(test.database, calibrationId)).map((c) => c.purpose)).toEqual(['settings_check']);
    await cut(true);
    expect(currentSets(await mustLoad(test.database, calibrationId)).map((c) => c.purpose)).toEqual(['confirm']);
    expect(record.corrections).toHaveLength(1);
  });

  it('figures are left out on the sheet with the misplaced set, and on no other', async () => {
    const shop = await makeShop(test.database, { error: { ...ERROR, offsetAcrossMm: 6 } });
    const { calibrationId } = await run(shop, 'file');
    const record = await mustLoad(test.database, calibrationId);
    expect(record.cutSets.map((c) => [c.sheetNo, c.setNo, c.leftOut.length > 0])).toEqual([
      [1, 1, false],
      [1, 2, true],
      [2, 1, false],
    ]);
    expect(planCutFor(record, PLAIN, true)).toMatchObject({ sheetNo: 2, setNo: 2, leftOut: [] });
  });

  it('asking twice for another sheet gives one', async () => {
    const shop = await makeShop(test.database, { error: ERROR });
    const { calibrationId } = await run(shop, 'none');
    expect(await addSheet(test.database, shop.actor, { calibrationId })).toEqual({ ok: true, value: 2 });
    expect(await addSheet(test.database, shop.actor, { calibrationId })).toEqual({ ok: true, value: 2 });
    expect((await mustLoad(test.database, calibrationId)).sheets).toHaveLength(2);
  });
});
