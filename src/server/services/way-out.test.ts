import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse, type Analysis } from './analysis';
import type { CalibrationRecord } from './record';
import { makeShop, startOrder, type ShopOrder } from './shop.testing';
import { startCalibration } from './start';
import { mapHeadline, wayOut } from './way-out';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

async function read(order: ShopOrder): Promise<{ record: CalibrationRecord; analysis: Analysis }> {
  const shop = await makeShop(test.database, order);
  const input = startOrder(shop, 'full');
  expect((await startCalibration(test.database, shop.actor, input)).ok).toBe(true);
  await cutAndRead(test.database, shop.actor, input.id, {
    load: { turnDeg: 0, face: 'ink-up' },
    rng: seededRng(3),
  });
  const record = await mustLoad(test.database, input.id);
  const found = analyse(record);
  if (!found.ok) throw new Error(found.error.kind);
  return { record, analysis: found.value };
}

const OFF = { ...NO_ERROR, offsetAcrossMm: 0.6 };
const UNKNOWN = [null, null, null, null];

describe('the way out of a map', () => {
  it.each<[string, ShopOrder, string, RegExp]>([
    [
      'within the limit',
      { error: { ...NO_ERROR, offsetAcrossMm: 0.05 } },
      'good-as-it-is',
      /^Good as it is\. Worst corner 0\.\d\d mm off\. Limit 0\.30 mm\.$/,
    ],
    [
      'within the limit, no setting at all',
      { error: NO_ERROR, withoutSettings: true },
      'good-as-it-is',
      /^Good as it is\./,
    ],
    ['settings reach it', { error: OFF }, 'set', /off\. Limit 0\.30 mm\. One setting brings it to 0\.0\d mm\./],
    [
      'only the direction is unknown',
      { error: OFF, senses: UNKNOWN },
      'find-direction',
      /First find which way \+ goes on OFFSET_ACROSS/,
    ],
    [
      'only the direction is unknown, and the program traces',
      { error: OFF, senses: UNKNOWN, route: 'A' },
      'find-direction',
      /First find which way/,
    ],
    [
      'nothing can be set',
      { error: OFF, withoutSettings: true },
      'move-file',
      /No setting reaches it\. Move the cut in the file\.$/,
    ],
  ])('%s', async (_, order, way, words) => {
    const { record, analysis } = await read(order);
    expect(wayOut(record, analysis)).toBe(way);
    expect(mapHeadline(record, analysis, 'mm')).toMatch(words);
  });
});
