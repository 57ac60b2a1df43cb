import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { mustLoad, readDoneSet } from '../../../scripts/run-calibration';
import { printInstructions } from './instructions';
import { saveReading } from './readings';
import type { CalibrationRecord } from './record';
import { inputOf, scanWith } from './scan.testing';
import { saveScan } from './scans';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { pictureOf } from './simulation';
import { startCalibration } from './start';
import { checkPrint, recordCut } from './steps';
import { backAgainstFront, facePairs, keepFaces } from './two-faces';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const error = { ...NO_ERROR, offsetAcrossMm: 0.45, offsetAlongMm: -0.3, rotationRad: 0.001 };
const BACK = { xMm: -0.6, yMm: 0.35, rotationRad: 0.002 };
const TWO_SIDED = { family: 'F6', truth: { backPrint: BACK }, markSdMm: 0.05 } as const;

/** What a rule finds on the lifted discs' backs: print and cut as the stand-ins' picture of that face shows them. */
async function readBacks(shop: TestShop, record: CalibrationRecord, cutSetId: string): Promise<void> {
  const picture = await pictureOf(test.database, record, 1, 'back');
  if (!picture.ok) throw new Error(picture.error.message);
  const middle = (points: readonly { x: number; y: number }[]) => {
    const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
    return { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
  };
  const near = (at: { x: number; y: number }, shapes: readonly (readonly { x: number; y: number }[])[]) =>
    shapes.map(middle).find((m) => Math.hypot(m.x - at.x, m.y - at.y) < 3);
  const discs = picture.value.ink.filter((i) => i.isFilled && i.points.length > 60).map((i) => i.points);
  for (const { spotNo, centre } of record.definition.liftOffs) {
    const [cut, print] = [near(centre, picture.value.cuts), near(centre, discs)];
    if (!cut || !print) throw new Error(`disc ${spotNo} is not there`);
    for (const [axis, c] of [
      ['across', 'x'],
      ['along', 'y'],
    ] as const) {
      const readingMm = Math.round((cut[c] - print[c]) * 20) / 20;
      const input = { cutSetId, spotNo, axis, method: 'rim_back', state: 'read', readingMm, startedAtMm: 0.1 } as const;
      const kept = await saveReading(test.database, shop.actor, { id: randomUUID(), ...input });
      expect(kept.ok).toBe(true);
    }
  }
}

async function measure(order: Omit<ShopOrder, 'error'>) {
  const shop = await makeShop(test.database, { error, ...order });
  const input = startOrder(shop, 'two_faces');
  expect(await startCalibration(test.database, shop.actor, input)).toEqual({ ok: true, value: input.id });
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  const cut = { id: randomUUID(), calibrationId: input.id, turnDeg: 0, face: 'ink-up' } as const;
  await recordCut(test.database, shop.actor, { ...cut, outcome: 'done', isFreshLoad: true });
  await readDoneSet(test.database, shop.actor, input.id, { cutSetId: cut.id, rng: seededRng(4) });
  expect(backAgainstFront(await mustLoad(test.database, input.id))).toBeNull();
  await readBacks(shop, await mustLoad(test.database, input.id), cut.id);
  return { shop, record: await mustLoad(test.database, input.id) };
}

it.each([
  ['plain cut file', { ...TWO_SIDED, route: 'D' }],
  ['one drawing', { ...TWO_SIDED, route: 'A' }],
] as const)('%s: how the back lies comes out, whatever the cut does', async (_, order) => {
  const { shop, record } = await measure(order);
  expect(facePairs(record)).toHaveLength(2 * record.definition.liftOffs.length);
  const told = backAgainstFront(record);
  expect(Math.abs((told?.fit.map.tx ?? NaN) - BACK.xMm)).toBeLessThan(0.08);
  expect(Math.abs((told?.fit.map.ty ?? NaN) - BACK.yMm)).toBeLessThan(0.08);
  expect(Math.abs((told?.fit.map.yx ?? NaN) - BACK.rotationRad)).toBeLessThan(0.001);
  const input = { id: randomUUID(), calibrationId: record.calibration.id };
  expect((await keepFaces(test.database, shop.actor, input)).ok).toBe(true);
  expect((await mustLoad(test.database, record.calibration.id)).calibration.state).toBe('saved');
});

it('both faces by the scanner: the front\u2019s discs, then all of them turned over', async () => {
  const shop = await makeShop(test.database, { error, ...TWO_SIDED, route: 'D' });
  const input = startOrder(shop, 'two_faces');
  await startCalibration(test.database, shop.actor, input);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  const cut = { id: randomUUID(), calibrationId: input.id, turnDeg: 0, face: 'ink-up' } as const;
  await recordCut(test.database, shop.actor, { ...cut, outcome: 'done', isFreshLoad: true });
  const record = await mustLoad(test.database, input.id);
  for (const face of ['front', 'back'] as const) {
    const scan = await scanWith(test.database, record, { face });
    expect(scan.discs.map((d) => d.state)).toEqual(record.definition.liftOffs.map(() => 'good'));
    expect([scan.isMirrored, scan.isMixed]).toEqual([face === 'back', false]);
    expect((await saveScan(test.database, shop.actor, inputOf(record, [scan], face))).ok).toBe(true);
  }
  const told = backAgainstFront(await mustLoad(test.database, input.id));
  expect(Math.abs((told?.fit.map.tx ?? NaN) - BACK.xMm)).toBeLessThan(0.02);
  expect(Math.abs((told?.fit.map.ty ?? NaN) - BACK.yMm)).toBeLessThan(0.02);
  expect(Math.abs((told?.fit.map.yx ?? NaN) - BACK.rotationRad)).toBeLessThan(0.0003);
});

it('the sheet is made of discs, and its back has a file and a step of its own', async () => {
  const { record } = await measure({ ...TWO_SIDED, route: 'D' });
  expect(record.definition.wedges).toHaveLength(0);
  const { files, steps } = printInstructions(record);
  expect(files.map((f) => f.kind)).toContain('back-pdf');
  expect(steps.join(' ')).toMatch(/Turn the sheet over.*BACK.*Print the back file/);
});

it('only work printed on both sides has a back to measure', async () => {
  const shop = await makeShop(test.database, { error });
  const refused = await startCalibration(test.database, shop.actor, startOrder(shop, 'two_faces'));
  expect(refused).toMatchObject({ ok: false, error: { message: expect.stringContaining('both sides') as string } });
});
