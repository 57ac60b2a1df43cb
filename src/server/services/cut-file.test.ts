import { randomUUID } from 'node:crypto';
import { correctionOnPage } from '@/core/cutting/page-move';
import { apply, displacement } from '@/core/geometry/affine';
import { fromParameters, NO_ERROR } from '@/core/geometry/error-parameters';
import { mapOnSheet } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import { readCutFileSetup } from './cut-file';
import { makeShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const error = { ...NO_ERROR, offsetAcrossMm: 0.5, offsetAlongMm: -0.3, rotationRad: 0.002, scaleAlong: 0.002 };

async function saved(way: 'file' | 'settings', hidden: typeof error) {
  const shop = await makeShop(test.database, { limitMm: 0.4, error: hidden, markSdMm: 0 });
  const order = {
    setupId: shop.setupId,
    materialId: shop.materialId,
    page: 'A4',
    kind: 'full',
    toleranceMm: 0.4,
    way,
  } as const;
  const { verdict } = await runCalibration(test.database, shop.actor, { ...order, id: randomUUID() }, seededRng(12));
  const view = await readCutFileSetup(test.database, shop.setupId);
  if (!view) throw new Error('no setup');
  return { verdict, view };
}

it('a correction kept in the file brings a job\u2019s own drawing onto its print, to what the map can tell', async () => {
  const { verdict, view } = await saved('file', error);
  expect(verdict).toBe('pass');
  const [xx = 1, xy = 0, yx = 0, yy = 1, tx = 0, ty = 0] = view.saved?.correction ?? [];
  const centre = { x: 105, y: 148.5 };
  const lies = { kind: 'on-sheet', load: view.load } as const;
  const move = correctionOnPage({ xx, xy, yx, yy, tx, ty }, lies, centre);
  // What the hidden machine really does to a sheet that lies so.
  const real = mapOnSheet(fromParameters<'machine'>(error), view.load);
  for (const p of [
    { x: 20, y: 20 },
    { x: 190, y: 270 },
    { x: 105, y: 148.5 },
  ]) {
    const moved = apply(move, p);
    const d = displacement(real, { x: moved.x - centre.x, y: moved.y - centre.y });
    expect(Math.hypot(moved.x + d.x - p.x, moved.y + d.y - p.y)).toBeLessThan(0.15);
  }
});

it('a correction that stands in the machine\u2019s settings needs no move, and a new setup has none', async () => {
  const { verdict, view } = await saved('settings', { ...NO_ERROR, offsetAcrossMm: 0.5, offsetAlongMm: -0.3 });
  expect(verdict).toBe('pass');
  expect(view.saved).toMatchObject({ correction: null });
  const shop = await makeShop(test.database, { limitMm: 0.4, error });
  expect(await readCutFileSetup(test.database, shop.setupId)).toMatchObject({ saved: null });
  expect(await readCutFileSetup(test.database, randomUUID())).toBeNull();
});
