import { NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import { apply, inverseOf } from '@/core/geometry/affine';
import { sheetToMachine, TURNS, type Load, type TurnDeg } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { planCut } from './record';
import { makeShop, type ShopOrder } from './shop.testing';

jest.setTimeout(240_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const ERROR = { ...NO_ERROR, offsetAcrossMm: 0.62, offsetAlongMm: -0.44 };
const SPOT: ShopOrder['program'] = { knowsCutBy: 'spot_ink', spotInkName: 'Knife', opens: ['pdf'] };
const TRACE: ShopOrder['program'] = { knowsCutBy: 'tracing', opens: ['png'], canCutAgain: false };

/** What the map says before the correction, and how the confirm went. */
async function play(order: Omit<ShopOrder, 'error'>, turnDeg: TurnDeg = 0, error: ErrorParameters = ERROR) {
  const shop = await makeShop(test.database, { limitMm: 0.4, ...order, error });
  const load: Load = { turnDeg, face: 'ink-up' };
  const { calibrationId, verdict } = await runCalibration(
    test.database,
    shop.actor,
    {
      setupId: shop.setupId,
      materialId: shop.materialId,
      page: 'A4',
      kind: 'full',
      toleranceMm: 0.4,
      way: 'settings',
      loads: [load, load],
    },
    seededRng(11),
  );
  const record = await mustLoad(test.database, calibrationId);
  const [parameters] = (await test.query('select parameters from fit where calibration_id = $1 order by at limit 1', [
    calibrationId,
  ])) as [{ parameters: number[] }];
  return { record, verdict, shift: parameters.parameters.slice(0, 2) as [number, number] };
}

const isTrue = ([x, y]: [number, number], within: number) => {
  expect(Math.abs(x - ERROR.offsetAcrossMm)).toBeLessThan(within);
  expect(Math.abs(y - ERROR.offsetAlongMm)).toBeLessThan(within);
};

describe('every route from sheet to verdict, on the stand-ins', () => {
  it.each([
    ['A at 96 to the inch', { route: 'A', importScale: '96' }],
    ['A at 72 to the inch', { route: 'A', importScale: '72' }],
    ['C, cut again by layer', { route: 'C', family: 'F3', program: SPOT }],
    ['D, plain cut file', { route: 'D', family: 'F3' }],
    ['D, by hand over two targets', { route: 'D', family: 'F8' }],
  ] as const)('%s: two sets on one sheet', async (_, order) => {
    const { record, verdict, shift } = await play(order);
    isTrue(shift, 0.06);
    expect(verdict).toBe('pass');
    expect(record.sheets).toHaveLength(1);
  });

  it.each([
    ['A where the program refuses a second cut', { route: 'A', program: { canCutAgain: false } }],
    ['C in one pass', { route: 'C', family: 'F2', program: SPOT }],
    ['C, one station of a long run', { route: 'C', family: 'F9', program: SPOT }],
  ] as const)('%s: the confirm is a second sheet', async (_, order) => {
    const { record, verdict, shift } = await play(order);
    isTrue(shift, 0.06);
    expect(verdict).toBe('pass');
    expect(record.sheets).toHaveLength(2);
    expect(record.definition.sets).toBe(1);
    expect(planCut(record, true)).toMatchObject({ setNo: 1, needsNewSheet: true });
  });

  it.each([
    ['B, traced true', { route: 'B', program: TRACE, truth: { traceGrowthMm: 0 } }],
    ['B, traced 0.3 mm large', { route: 'B', program: TRACE, truth: { traceGrowthMm: 0.3 } }],
    ['B, traced 0.3 mm small', { route: 'B', program: TRACE, truth: { traceGrowthMm: -0.3 } }],
    ['E, photographed on a mat', { route: 'E', family: 'F7', program: TRACE }],
  ] as const)('%s: the rims tell the shift, no false zero', async (_, order) => {
    const { record, verdict, shift } = await play(order);
    isTrue(shift, 0.08);
    expect(verdict).toBe('pass');
    expect(record.readings.every((r) => r.method === 'rim')).toBe(true);
    expect(record.sheets).toHaveLength(2);
  });

  it.each(TURNS.map((turnDeg) => [turnDeg] as const))(
    'a program that moves the block and turns it by %s: told by its arrow, the map is in its own frame and the settings pass',
    async (turnDeg) => {
      const placement = { xMm: 7.5, yMm: -11.25 };
      const { verdict, shift } = await play({ route: 'A', truth: { placement } }, turnDeg);
      const turned = apply(inverseOf(sheetToMachine({ turnDeg, face: 'ink-up' })), {
        x: ERROR.offsetAcrossMm,
        y: ERROR.offsetAlongMm,
      });
      expect(Math.hypot(shift[0] - turned.x, shift[1] - turned.y)).toBeLessThan(0.07);
      expect(verdict).toBe('pass');
    },
  );

  it('a block moved on a page whose cut is scaled about the page\u2019s middle is out by that much more, and seen so', async () => {
    const error = { ...NO_ERROR, scaleAcross: 0.01 };
    const { shift } = await play({ route: 'A', truth: { placement: { xMm: 20, yMm: 0 } } }, 0, error);
    expect(Math.abs(shift[0] - 0.2)).toBeLessThan(0.06);
  });
});
