import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { saveReading } from './readings';
import { roughQuestion } from './rough';
import { makeShop, startOrder } from './shop.testing';
import { startCalibration } from './start';
import { checkPrint } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

/** A sheet cut 0.4 mm to the right, its figures read, and one rough grid read as told. */
async function withRough(acrossMm: number): Promise<string | null> {
  const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.4 }, markSdMm: 0.02 });
  const input = startOrder(shop, 'quick');
  await startCalibration(test.database, shop.actor, input);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  await cutAndRead(test.database, shop.actor, input.id, { load: { turnDeg: 0, face: 'ink-up' }, rng: seededRng(3) });
  const [set] = (await mustLoad(test.database, input.id)).cutSets;
  for (const [axis, readingMm] of [
    ['across', acrossMm],
    ['along', 0],
  ] as const) {
    const kept = await saveReading(test.database, shop.actor, {
      id: randomUUID(),
      cutSetId: set?.id ?? '',
      spotNo: 1,
      axis,
      method: 'rough',
      state: 'read',
      readingMm,
      startedAtMm: 0,
    });
    expect(kept.ok).toBe(true);
  }
  const record = await mustLoad(test.database, input.id);
  const analysed = analyse(record);
  if (!analysed.ok) throw new Error(analysed.error.kind);
  return roughQuestion(record, analysed.value, 'mm');
}

it('a rough grid that agrees with the figures raises no question', async () => {
  expect(await withRough(0.5)).toBeNull();
});

it('a rough grid that cannot be right beside the figures is questioned, with both answers', async () => {
  expect(await withRough(4)).toMatch(
    /The rough grids put this cut at \+4\.00 mm across, 0\.00 mm along; the fine figures say \+0\.[34]\d mm across.*Both cannot be right/,
  );
});
