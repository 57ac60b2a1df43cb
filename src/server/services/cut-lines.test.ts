import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { displacement, type Point } from '@/core/geometry/affine';
import { mapOnSheet, TURNS, type Load } from '@/core/geometry/load';
import { fromParameters, NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import { seededRng, standardNormal } from '@/core/math/random';
import type { CutLine } from '@/core/shop/cut-lines';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutter, setup } from '@/db/schema/machines';
import { readWalls } from '@/core/simulate/read-picture';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse, isPenAlone, type Analysis } from './analysis';
import { confirmCorrection } from './confirm';
import { acceptCorrection, changedOnly } from './corrections';
import { cutInstructions } from './instructions';
import { discsOf, looksAnswered, looksOf } from './looks';
import { verdictLines } from './map-words';
import { saveReading } from './readings';
import type { CalibrationRecord } from './record';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { cutsOfSet } from './simulation';
import { startCalibration } from './start';
import { addSheet, checkPrint } from './steps';
import { mapHeadline } from './way-out';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const ERROR: ErrorParameters = {
  ...NO_ERROR,
  offsetAcrossMm: 1.7,
  offsetAlongMm: -0.9,
  rotationRad: 0.001,
  scaleAlong: 0.003,
};
const LOAD: Load = { turnDeg: 0, face: 'ink-up' };

interface Read {
  readonly shop: TestShop;
  readonly record: CalibrationRecord;
  readonly a: Analysis;
}

function analysed(record: CalibrationRecord): Analysis {
  const a = analyse(record);
  if (!a.ok) throw new Error(a.error.kind);
  return a.value;
}

async function readSheet(order: Partial<ShopOrder>, cutLine: CutLine, kind: 'full' | 'quick' = 'full'): Promise<Read> {
  const shop = await makeShop(test.database, { error: ERROR, ...order });
  return readIn(shop, cutLine, kind);
}

async function readIn(shop: TestShop, cutLine: CutLine, kind: 'full' | 'quick', load = LOAD): Promise<Read> {
  const input = { ...startOrder(shop, kind), cutLine };
  const started = await startCalibration(test.database, shop.actor, input);
  if (!started.ok) throw new Error(started.error.message);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  await cutAndRead(test.database, shop.actor, input.id, { load, rng: seededRng(5) });
  const record = await mustLoad(test.database, input.id);
  return { shop, record, a: analysed(record) };
}

/** Largest distance of the map found from the truth, at the work area's corners. */
function farthest({ record, a }: Read, truth: ErrorParameters): number {
  const real = mapOnSheet(fromParameters<'machine'>(truth), a.load);
  return Math.max(
    ...record.corners.map((corner) => {
      const [found, wanted] = [displacement(a.fit.map, corner), displacement(real, corner)];
      return Math.hypot(found.x - wanted.x, found.y - wanted.y);
    }),
  );
}

describe('slits rubbed in', () => {
  it.each(['A', 'D'] as const)(
    'route %s: 1.7 mm is within a comb\u2019s reach, and the map is the machine\u2019s',
    async (route) => {
      const read = await readSheet({ route }, 'rubbed');
      const { record, a } = read;
      expect(record.calibration.cutLine).toBe('rubbed');
      expect([record.definition.wedges.length, record.definition.combs.length, record.definition.sets]).toEqual([
        0, 18, 1,
      ]);
      expect(looksAnswered(record, record.cutSets[0]!)).toBe(looksOf(record, record.cutSets[0]!).length);
      expect(farthest(read, ERROR)).toBeLessThan(0.12);
      expect(a.fit.backlash).toHaveProperty('across');
      expect(a.verdict).toBe('fail');
      expect(isPenAlone(a)).toBe(false);
    },
  );

  it('a program that only traces leaves no choice, and a page too small for combs is refused by name', async () => {
    const traced = await makeShop(test.database, {
      error: NO_ERROR,
      route: 'B',
      program: { knowsCutBy: 'tracing', opens: ['png'] },
    });
    const input = { ...startOrder(traced, 'quick'), cutLine: 'pen' as const };
    await startCalibration(test.database, traced.actor, input);
    const record = await mustLoad(test.database, input.id);
    expect([record.definition.liftOffs.length, record.calibration.cutLine]).toEqual([5, 'weeded']);
    const small = await makeShop(test.database, { error: NO_ERROR });
    const page = { name: 'card', widthMm: 148, lengthMm: 190 };
    const done = await startCalibration(test.database, small.actor, {
      ...startOrder(small, 'quick'),
      page,
      cutLine: 'rubbed',
    });
    expect(done).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/too small for combs/) as string },
    });
  });
});

describe('a pen in the holder', () => {
  const truth = { knifeFromPen: { xMm: 0.8, yMm: -0.35 } };

  it('tells scale and rotation, says nothing of the knife\u2019s shift, and is never passed', async () => {
    const read = await readSheet({ truth }, 'pen');
    const { record, a } = read;
    expect([a.fit.map.tx, a.fit.map.ty]).toEqual([0, 0]);
    expect(farthest(read, { ...ERROR, offsetAcrossMm: 0, offsetAlongMm: 0 })).toBeLessThan(0.12);
    expect(a.parts.filter((p) => p.part.startsWith('offset')).map((p) => [p.standardError, p.isToBeCorrected])).toEqual(
      [
        [0, false],
        [0, false],
      ],
    );
    expect(isPenAlone(a)).toBe(true);
    expect(mapHeadline(record, a, 'mm')).toMatch(/by scale, rotation and squareness/);
    expect(verdictLines(record, a, 'mm').next).toMatch(/not known while the knife/);
  });

  it.each([
    ['weeded', /must lift cleanly/],
    ['rubbed', /The slit must go through the face/],
    ['pen', /Put the pen in place of the knife/],
  ] as const)('%s: what to make sure of first is said at the cut', async (cutLine, words) => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const input = { ...startOrder(shop, 'quick'), cutLine };
    await startCalibration(test.database, shop.actor, input);
    expect(cutInstructions(await mustLoad(test.database, input.id)).steps[0]).toMatch(words);
  });

  it('a machine whose scale is put right stays "cannot tell": the knife may be anywhere', async () => {
    const { shop, record, a } = await readSheet({ truth }, 'pen');
    const calibrationId = record.calibration.id;
    const typed = Object.fromEntries(changedOnly(a.plan).map((c) => [c.setting.id, c.toType]));
    const accepted = await acceptCorrection(test.database, shop.actor, {
      ...{ id: randomUUID(), calibrationId, way: 'settings', typed, keepAll: false },
    });
    expect(accepted.ok).toBe(true);
    await addSheet(test.database, shop.actor, { calibrationId });
    await cutAndRead(test.database, shop.actor, calibrationId, { load: LOAD, rng: seededRng(8) });
    const after = await mustLoad(test.database, calibrationId);
    expect(analysed(after).bounds.worstMm).toBeLessThan(0.4);
    const verdict = await confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId });
    expect(verdict).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/nothing about the knife is confirmed/) as string },
    });
    const told = analysed(after);
    expect(told.verdict).toBe('cannot_tell');
    expect(verdictLines(after, told, 'mm').advice).toMatch(/A pen drew this sheet/);
  });

  it('with knife against pen measured, the knife\u2019s shift follows, with its own doubt', async () => {
    const { shop } = await readSheet({ truth }, 'pen');
    const [own] = await test.database.select().from(setup).where(eq(setup.id, shop.setupId));
    await test.database
      .update(cutter)
      .set({ knifeFromPenAcrossMm: 0.8, knifeFromPenAlongMm: -0.35 })
      .where(eq(cutter.id, own!.cutterId));
    for (const turnDeg of TURNS)
      for (const face of ['ink-up', 'ink-down'] as const) {
        const read = await readIn(shop, 'pen', 'quick', { turnDeg, face });
        expect([turnDeg, face, farthest(read, ERROR) < 0.25]).toEqual([turnDeg, face, true]);
        expect(read.a.fit.untold).toEqual([]);
        expect(Math.sqrt(read.a.fit.covariance[0]!)).toBeGreaterThan(0.03);
      }
  });
});

it('walls of the discs by caliper count beside the wedges, and the doubt shrinks', async () => {
  const { shop, record, a } = await readSheet(
    { error: { ...NO_ERROR, offsetAcrossMm: 0.3, scaleAlong: 0.001 } },
    'weeded',
  );
  const set = record.cutSets[0]!;
  const picture = await cutsOfSet(test.database, record, set);
  const rng = seededRng(2);
  const caliper = (mm: number): number => Number((Math.round((mm + 0.05 * standardNormal(rng)) * 20) / 20).toFixed(2));
  const walls = discsOf(record, set).map((disc) => {
    const isOwn = (p: Point): boolean => Math.hypot(p.x - disc.centre.x, p.y - disc.centre.y) < 6;
    const seen = readWalls(
      disc,
      picture!.cuts.find((cut) => cut.length > 40 && cut.every(isOwn))!,
    );
    return { spotNo: disc.spotNo, acrossMm: caliper(seen!.x), alongMm: caliper(seen!.y) };
  });
  expect(walls).toHaveLength(9);
  for (const { spotNo, acrossMm, alongMm } of walls)
    for (const [axis, readingMm] of [
      ['across', acrossMm],
      ['along', alongMm],
    ] as const) {
      const what = {
        cutSetId: set.id,
        spotNo,
        axis,
        readingMm,
        method: 'wall',
        state: 'read',
        instrument: 'caliper',
      } as const;
      expect(await saveReading(test.database, shop.actor, { id: randomUUID(), ...what, startedAtMm: 0 })).toMatchObject(
        { ok: true },
      );
    }
  const both = analysed(await mustLoad(test.database, record.calibration.id));
  expect(both.fit.readings).toHaveLength(36);
  expect(both.fit.misfitIds).toEqual([]);
  expect(both.bounds.upperMm - both.bounds.worstMm).toBeLessThan(a.bounds.upperMm - a.bounds.worstMm);
  const beyond = {
    cutSetId: set.id,
    spotNo: 1,
    axis: 'across',
    readingMm: 1.8,
    method: 'wall',
    state: 'read',
  } as const;
  expect(await saveReading(test.database, shop.actor, { id: randomUUID(), ...beyond, startedAtMm: 0 })).toMatchObject({
    ok: false,
    error: { message: '1.80 mm is beyond the figure: it shows 1.6 mm to either side.' },
  });
});
