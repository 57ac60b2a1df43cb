import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { rollDrift } from '@/core/drift/roll-drift';
import { combineScans, type ScannedDisc } from '@/core/scan/combine-scans';
import { measurePieces } from '@/core/scan/measure-pieces';
import { placed } from '@/core/scan/placed-pieces';
import type { ScanResult } from '@/core/scan/scan-result';
import { stationFigures } from '@/core/scan/station-figures';
import { slotName, type StripSide } from '@/core/target/roll-strip';
import { stationDiscOf } from '@/core/target/station-disc';
import { AXES } from '@/core/target/wedge';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { rollRun } from '@/db/schema/roll';
import { scanPieces } from './roll-glass';
import { loadRoll, type RollRecord } from './roll-read';
import { readByStandIn, standInValues } from './roll-stand-in';
import { saveStations, startRoll, stripOf } from './rolls';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

async function begun(shop: TestShop, form: 'strip' | 'piece' = 'strip'): Promise<RollRecord> {
  const id = randomUUID();
  await startRoll(test.database, shop.actor, {
    ...{ id, setupId: shop.setupId, materialId: shop.materialId, kind: 'strip', form },
    ...{ widthMm: 200, spacingMm: 100, stations: 18, everyNth: 1, sides: ['left', 'right'], toleranceMm: 0.3 },
  });
  const record = await loadRoll(test.database, id);
  if (!record) throw new Error('the roll is there');
  return record;
}

async function scanned({ roll }: RollRecord, firstNo: number, turnDeg: 0 | 180): Promise<ScanResult> {
  const png = await scanPieces(test.database, roll.id, { firstNo, turnDeg });
  if (!png.ok) throw new Error(png.error.message);
  const { data, info } = await sharp(png.value).toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  const strip = stripOf(roll);
  const work = measurePieces(
    { width: info.width, height: info.height, data: new Uint8Array(data) },
    stationFigures(strip),
  );
  for (;;) {
    const step = work.next();
    if (!step.done) continue;
    if (!step.value.ok) throw new Error(step.value.error.kind);
    return placed(strip, step.value.value, { firstNo: roll.form === 'piece' ? firstNo : 1, every: 1 });
  }
}

/** Found less true, by the stand-in's own values. */
async function errorsOf({ roll }: RollRecord, discs: readonly ScannedDisc[]): Promise<readonly number[]> {
  const values = (await standInValues(test.database, roll)) ?? [];
  const truth = new Map(values.filter((v) => v.isPictured).map((v) => [slotName(v), v.valueMm]));
  return discs.flatMap(({ key, acrossMm, alongMm }) =>
    AXES.map((axis) => (axis === 'across' ? acrossMm : alongMm) - (truth.get(`${key} ${axis}`) ?? NaN)),
  );
}

const rms = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((total, v) => total + v * v, 0) / values.length);

const keep = (shop: TestShop, { roll }: RollRecord, discs: readonly ScannedDisc[]) =>
  saveStations(
    test.database,
    shop.actor,
    discs.flatMap(({ key, acrossMm, alongMm }) => {
      const [no, side] = key.split(' ') as [string, StripSide];
      return AXES.map((axis) => ({
        ...{ id: randomUUID(), rollId: roll.id, stationNo: Number(no), side, axis, method: 'scan' as const },
        ...{ state: 'read' as const, readingMm: axis === 'across' ? acrossMm : alongMm },
      }));
    }),
  );

describe('pieces of a roll on the stand-in\u2019s scanner', () => {
  it('tell what its machine cut, to a few micrometres, and the drift from them', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAlongMm: 0.3, scaleAlong: 0.0004 } });
    const record = await begun(shop);
    const scans = [];
    for (const firstNo of [1, 7, 13])
      for (const turnDeg of [0, 180] as const) scans.push(await scanned(record, firstNo, turnDeg));
    const { discs, atOdds } = combineScans(scans);
    expect(discs.map((d) => d.state)).toEqual(Array.from({ length: 36 }, () => 'good'));
    expect(atOdds).toBeNull();
    const errors = await errorsOf(record, discs);
    expect(errors).toHaveLength(72);
    expect(rms(errors)).toBeLessThan(0.006);
    expect(await keep(shop, record, discs)).toMatchObject({ ok: true });
    const read = await loadRoll(test.database, record.roll.id);
    expect(read?.values).toHaveLength(72);
    // A scanned reading stands at its disc, not at the wedge beside it.
    const first = stationDiscOf(stripOf(record.roll), { stationNo: 1, side: 'left' });
    expect(read?.values.some((v) => v.atMm === first.centre.y && v.asideMm === first.centre.x)).toBe(true);
    const drift = rollDrift(read?.values ?? []);
    if (!drift.ok) throw new Error('there is a drift');
    // The stand-in's own feed on a roll comes on top of its sheet's: 0.25 to 0.45 mm a metre.
    const feed = drift.value.along.perMetreMm.value;
    expect(feed).toBeGreaterThan(0.55);
    expect(feed).toBeLessThan(0.95);
  });

  it('agree with the eye at the same stations: the roll slipped but once', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const record = await begun(shop);
    await readByStandIn(test.database, shop.actor, record.roll.id);
    const byEye = (await loadRoll(test.database, record.roll.id))?.readings;
    const { discs } = combineScans([await scanned(record, 1, 0), await scanned(record, 1, 180)]);
    const gaps = discs.flatMap(({ key, acrossMm, alongMm }) =>
      AXES.map((axis) => (axis === 'across' ? acrossMm : alongMm) - (byEye?.get(`${key} ${axis}`)?.readingMm ?? NaN)),
    );
    // An eye's 0.03 mm, steps of 0.01, and 11 to 37 mm between disc and wedge.
    expect(rms(gaps)).toBeLessThan(0.05);
  });

  it('copied pieces are known by their order', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.2 } });
    const record = await begun(shop, 'piece');
    const result = await scanned(record, 4, 0);
    expect(result.discs.map((d) => d.key).slice(0, 4)).toEqual(['4 left', '4 right', '5 left', '5 right']);
    expect(rms(await errorsOf(record, combineScans([result]).discs))).toBeLessThan(0.02);
  });

  it('are refused where a strip has no discs, and beyond its end', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const record = await begun(shop);
    const beyond = await scanPieces(test.database, record.roll.id, { firstNo: 19, turnDeg: 0 });
    expect(!beyond.ok && beyond.error.message).toContain('the last one is 18');
    await test.database.update(rollRun).set({ hasDiscs: false }).where(eq(rollRun.id, record.roll.id));
    const old = await loadRoll(test.database, record.roll.id);
    if (!old) throw new Error('the roll is there');
    expect(await scanPieces(test.database, old.roll.id, { firstNo: 1, turnDeg: 0 })).toMatchObject({ ok: false });
    const key = '1 left';
    const disc = { key, state: 'good', acrossMm: 0.1, alongMm: 0.1 } as ScannedDisc;
    const refused = await keep(shop, old, [disc]);
    expect(!refused.ok && refused.error.message).toContain('no discs that could be scanned');
  });
});
