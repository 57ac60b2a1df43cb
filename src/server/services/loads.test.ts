import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import type { TurnDeg } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse, type Analysis } from './analysis';
import { acceptCorrection } from './corrections';
import { cutInstructions } from './instructions';
import { earlierLoads } from './earlier-loads';
import { faultWords, noiseWords } from './map-words';
import { makeShop, startOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { addSheet, checkPrint } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

/** As many loads of one check as wanted, two sets a sheet, each unloaded and read afresh. */
async function readLoads(markSdMm: number, turns: readonly TurnDeg[], offsetAcrossMm = 0.1): Promise<Analysis> {
  const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm }, markSdMm });
  return (await checkIn(shop, turns)).a;
}

async function checkIn(
  shop: TestShop,
  turns: readonly TurnDeg[],
): Promise<{ readonly id: string; readonly a: Analysis }> {
  const input = startOrder(shop, 'full');
  await startCalibration(test.database, shop.actor, input);
  const rng = seededRng(21);
  for (const [i, turnDeg] of turns.entries()) {
    if (i > 0 && i % 2 === 0) await addSheet(test.database, shop.actor, { calibrationId: input.id });
    if (i % 2 === 0)
      await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
    if (i === 1)
      expect(cutInstructions(await mustLoad(test.database, input.id)).steps[0]).toMatch(
        /Unload the sheet, load it again/,
      );
    await cutAndRead(test.database, shop.actor, input.id, { load: { turnDeg, face: 'ink-up' }, rng });
  }
  const analysed = analyse(await mustLoad(test.database, input.id));
  if (!analysed.ok) throw new Error(analysed.error.kind);
  return { id: input.id, a: analysed.value };
}

/** Takes nothing up, so that the loads are kept with the setup. */
async function keepAsItIs(shop: TestShop, calibrationId: string): Promise<void> {
  const done = await acceptCorrection(test.database, shop.actor, {
    ...{ id: randomUUID(), calibrationId, way: 'none', typed: {}, keepAll: false },
  });
  expect(done).toMatchObject({ ok: true });
}

it('four loads: the noise is estimated, its interval holds the truth, and intervals widen by its degrees', async () => {
  const a = await readLoads(0.2, [0, 0, 0, 0]);
  if (a.noise.kind !== 'estimated') throw new Error(a.noise.kind);
  expect(a.noise.degrees).toBe(18);
  expect(a.noise.lowerMm).toBeLessThan(0.2);
  expect(a.noise.upperMm).toBeGreaterThan(0.2);
  expect(a.fit.quantileDegrees).toBe(18);
  expect(a.markSdMm).toBe(a.noise.sdMm);
  expect(Math.max(...a.loads.map((l) => l.departureMm))).toBeGreaterThan(0.05);
});

it('one load: nothing is said of what changes, the noise is assumed and so called', async () => {
  const a = await readLoads(0.1, [0]);
  expect(a.noise).toEqual({ kind: 'one-load' });
  expect([a.fault, a.markSdMm]).toEqual([null, 0.05]);
  expect(noiseWords(a, 'mm')).toMatch(/one load.*assumed to scatter by 0.05 mm/);
});

it('two loads of a machine that finds its marks: steady; of one that does not: unsteady, and a third is asked for', async () => {
  const steady = await readLoads(0.01, [0, 0]);
  expect(steady.noise.kind).toBe('steady');
  expect(steady.loads.map((l) => l.loadNo)).toEqual([1, 2]);
  expect(noiseWords({ ...steady, noise: { kind: 'steady', withinMm: 0.06, degrees: 6 } }, 'mm')).toMatch(
    /steady, though up to 0\.06 mm a mark could hide.* assumed/,
  );
  // Two loads that agree better than reading lets them have no bound but luck: no figure is shown for it.
  expect(noiseWords({ ...steady, noise: { kind: 'steady', withinMm: 0, degrees: 6 } }, 'mm')).toMatch(
    /^Two loads agree more closely than reading alone would let them: steady, as far as two can tell/,
  );
  const unsteady = await readLoads(0.35, [0, 0]);
  expect(unsteady.noise.kind).toBe('unsteady');
  expect(unsteady.markSdMm).toBeGreaterThanOrEqual(0.05);
  expect(noiseWords(unsteady, 'mm')).toMatch(/unsteady.*third load/);
});

it('a reading fault is told from a calibration fault', async () => {
  const calibration = await readLoads(0.02, [0, 0, 0], 0.9);
  expect(calibration.fault).toBe('calibration');
  expect(faultWords(calibration)).toMatch(/same with every load/);
  const reading = await readLoads(0.4, [0, 0, 0], 0);
  expect(['reading', 'both']).toContain(reading.fault);
  expect(faultWords(reading)).toMatch(/no calibration removes|No calibration removes/);
});

it('loads that lay otherwise are not compared with the newest', async () => {
  const a = await readLoads(0.05, [0, 180, 180]);
  expect(a.loads.map((l) => l.loadNo)).toEqual([2, 3]);
  expect(a.noise.kind).toMatch(/steady/);
});

describe('loads of earlier checks', () => {
  it('are pooled: one load of a setup that is known is told with its own noise, not the assumed one', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.1 }, markSdMm: 0.15 });
    const first = await checkIn(shop, [0, 0, 0]);
    expect(first.a.earlierLoads).toBe(0);
    await keepAsItIs(shop, first.id);
    const { a } = await checkIn(shop, [0]);
    if (a.noise.kind !== 'estimated') throw new Error(a.noise.kind);
    expect([a.noise.degrees, a.earlierLoads, a.loads.length]).toEqual([12, 3, 1]);
    expect(a.noise.lowerMm).toBeLessThan(0.15);
    expect(a.noise.upperMm).toBeGreaterThan(0.15);
    expect(a.markSdMm).toBe(a.noise.sdMm);
    expect(noiseWords(a, 'mm')).toMatch(/^3 loads of earlier checks: mark reading scatters by/);
  });

  it('two of them make no interval: the words say where they are from', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.1 }, markSdMm: 0.005 });
    const first = await checkIn(shop, [0, 0]);
    await keepAsItIs(shop, first.id);
    const { a } = await checkIn(shop, [0]);
    expect(a.noise.kind).toBe('steady');
    expect(noiseWords(a, 'mm')).toMatch(/^Two loads of an earlier check agree/);
  });

  it('other marks do not count', () => {
    const map = {
      ...{ fitId: 'f', loadNo: 1, correctionId: null, loadModel: 'affine' as const },
      parameters: [0, 0, 0, 0, 0, 0],
      covariance: new Array<number>(36).fill(0),
      marks: [-80, -100, 80, -100, 80, 100, -80, 100],
    };
    const rows = [1, 2].map((loadNo) => ({ calibrationId: 'c', map: { ...map, loadNo } }));
    const marks = [-80, 80].flatMap((x) => [{ x, y: x > 0 ? 100 : -100 }]);
    const four = [
      { x: -80, y: -100 },
      { x: 80, y: -100 },
      { x: 80, y: 100 },
      { x: -80, y: 100 },
    ];
    const own = { loadModel: 'affine' as const, calibrationId: 'now', correctionId: null };
    expect(earlierLoads(rows, { ...own, marks })).toEqual([]);
    expect(earlierLoads(rows, { ...own, marks: four, loadModel: 'similarity' })).toEqual([]);
    expect(earlierLoads(rows, { ...own, marks: four })).toHaveLength(1);
    expect(earlierLoads(rows, { ...own, marks: four, calibrationId: 'c' })).toEqual([]);
    // Of a state fitted twice, the newest counts.
    const older = rows.map((r) => ({ ...r, map: { ...r.map, fitId: 'older' } }));
    expect(earlierLoads([...rows, ...older], { ...own, marks: four })[0]).toHaveLength(2);
  });
});
