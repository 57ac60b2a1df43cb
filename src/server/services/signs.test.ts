import { TURNS, type Load } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { makeShop, type ShopOrder } from './shop.testing';

jest.setTimeout(120_000);

/** Every part large enough that a wrong sign of any would leave more than it took away. */
const ERROR = {
  offsetAcrossMm: 0.41,
  offsetAlongMm: -0.27,
  rotationRad: 0.0016,
  scaleAcross: 0.0021,
  scaleAlong: -0.0013,
  squareness: 0.0012,
};

const FEEDS = [
  ['away', ['+x', '+y'], [1, -1, 1, -1]],
  ['towards', ['+y', '-x'], [-1, 1, -1, 1]],
] as const;
const FACES = ['ink-up', 'ink-down'] as const;

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

async function proveSigns(order: Omit<ShopOrder, 'error'>, load: Load): Promise<void> {
  const shop = await makeShop(test.database, { ...order, error: ERROR });
  const rng = seededRng(3);
  // Confirmed under another turn: what was learned must hold in the machine, not on the sheet.
  const other: Load = { turnDeg: TURNS[(TURNS.indexOf(load.turnDeg) + 1) % 4]!, face: load.face };
  const { calibrationId, verdict } = await runCalibration(
    test.database,
    shop.actor,
    {
      setupId: shop.setupId,
      materialId: shop.materialId,
      page: 'A4',
      kind: 'full',
      toleranceMm: 0.3,
      way: 'settings-and-file',
      loads: [load, other],
    },
    rng,
  );
  const record = await mustLoad(test.database, calibrationId);
  expect(record.corrections[0]!.predictedLeftoverMm).toBe(0);
  const after = analyse(record);
  if (!after.ok) throw new Error(after.error.kind);
  // One reading set of 0.03 mm noise cannot tell less than this.
  expect(after.value.bounds.worstMm).toBeLessThan(0.12);
  expect(verdict).toBe('pass');
}

describe('signs, end to end through the real files', () => {
  describe.each(FEEDS)('fed %s', (feeds, axes, senses) => {
    describe.each(FACES)('%s', (face) => {
      it.each(TURNS)('HPGL, turned %s', async (turnDeg) => {
        await proveSigns({ route: 'D', fileFormat: 'hpgl', feeds, axes, senses }, { turnDeg, face });
      });
    });
  });
  it.each([
    ['SVG cut file', { route: 'D', fileFormat: 'svg' }],
    ['one drawing at 96 to the inch', { route: 'A', importScale: '96' }],
    ['one drawing at 72 to the inch', { route: 'A', importScale: '72' }],
  ] as const)('%s, turned and face down', async (_, order) => {
    await proveSigns({ ...order, senses: [-1, -1, 1, 1] }, { turnDeg: 270, face: 'ink-down' });
  });
  it('would fail with one sign wrong: a setting that truly moves the other way doubles its part', async () => {
    const shop = await makeShop(test.database, { error: ERROR, senses: [1, 1, 1, 1] });
    await test.query(`update machine_setting set sense = -sense where id = $1`, [shop.settingIds[0]]);
    const { verdict } = await runCalibration(
      test.database,
      shop.actor,
      {
        setupId: shop.setupId,
        materialId: shop.materialId,
        page: 'A4',
        kind: 'full',
        toleranceMm: 0.3,
        way: 'settings',
      },
      seededRng(3),
    );
    expect(verdict).toBe('fail');
  });
});
