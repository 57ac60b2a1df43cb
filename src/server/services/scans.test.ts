import { randomUUID } from 'node:crypto';
import { displacement } from '@/core/geometry/affine';
import { fromParameters, NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import { mapOnSheet, type Load, type TurnDeg } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import type { CutLine } from '@/core/shop/cut-lines';
import { combineScans } from '@/core/scan/combine-scans';
import type { GrayImage } from '@/core/scan/gray';
import { scanFigures } from '@/core/scan/scan-figures';
import type { ScanResult } from '@/core/scan/scan-result';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { isRead } from './looks';
import { onSheet, type CalibrationRecord } from './record';
import { keepOriginal, keptOriginal, type OriginalPlace } from './scan-originals';
import { otherSheets } from './other-sheets';
import { inputOf, measuredImage, scannedImage, scanWith, type Laid } from './scan.testing';
import { nothingCutWords } from '@/ui/scan/scan-words';
import { keptScans, saveScan } from './scans';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { addSheet, checkPrint } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(() => test.close());

const ERROR: ErrorParameters = {
  ...NO_ERROR,
  offsetAcrossMm: 0.42,
  offsetAlongMm: -0.31,
  rotationRad: 0.0008,
  scaleAlong: 0.0012,
};
const LOAD: Load = { turnDeg: 0, face: 'ink-up' };

/** A sheet that was cut, its wedges read by an eye as unsteady as asked; its discs wait for the scanner. */
async function cutSheet(
  order: Partial<ShopOrder> = {},
  load = LOAD,
  cutLine: CutLine = 'weeded',
): Promise<{ shop: TestShop; record: CalibrationRecord }> {
  const shop = await makeShop(test.database, { family: 'F1', error: ERROR, markSdMm: 0, ...order });
  const input = { ...startOrder(shop, 'full'), cutLine };
  const started = await startCalibration(test.database, shop.actor, input);
  if (!started.ok) throw new Error(started.error.message);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  await cutAndRead(test.database, shop.actor, input.id, { load, rng: seededRng(5) });
  return { shop, record: await mustLoad(test.database, input.id) };
}

const imageOf = (record: CalibrationRecord, laid: Laid): Promise<GrayImage> =>
  scannedImage(test.database, record, laid);
const scanOf = (record: CalibrationRecord, laid: Laid = {}): Promise<ScanResult> =>
  scanWith(test.database, record, laid);

/** Largest distance at the work area's corners between the map found from the scans alone and the truth. */
function farthest(record: CalibrationRecord, scans: readonly ScanResult[]): number {
  const found = analyse({ ...record, readings: record.readings.filter((r) => r.method === 'scan') });
  if (!found.ok) throw new Error(found.error.kind);
  expect(scans.length).toBeGreaterThan(0);
  const truth = mapOnSheet(fromParameters<'machine'>(ERROR), found.value.load);
  return Math.max(
    ...record.corners.map((corner) => {
      const [a, b] = [displacement(found.value.fit.map, corner), displacement(truth, corner)];
      return Math.hypot(a.x - b.x, a.y - b.y);
    }),
  );
}

describe('a sheet on the scanner', () => {
  it('from the real files through stand-in printer, cutter and scanner to the map', async () => {
    const { shop, record } = await cutSheet();
    const scans = [await scanOf(record), await scanOf(record, { turnDeg: 180 })];
    expect(scans.map((s) => [s.turnDeg, s.isMirrored])).toEqual([
      [0, false],
      [180, false],
    ]);
    expect(combineScans(scans).atOdds).toBeNull();
    const one = scans[0]!;
    const own = one.discs.filter((d) => d.key.startsWith('1 '));
    expect(own.map((d) => d.state)).toEqual(Array.from({ length: 9 }, () => 'good'));
    expect(one.discs.filter((d) => d.key.startsWith('2 ')).map((d) => d.state)).toEqual(
      Array.from({ length: 9 }, () => 'not-weeded'),
    );
    const saved = await saveScan(test.database, shop.actor, inputOf(record, scans));
    expect(saved).toEqual({ ok: true, value: 9 });
    const after = await mustLoad(test.database, record.calibration.id);
    expect(isRead(after, after.cutSets[0]!)).toBe(true);
    expect(farthest(after, scans)).toBeLessThan(0.015);
  });

  it.each<[Load, TurnDeg]>([
    [{ turnDeg: 90, face: 'ink-up' }, 90],
    [{ turnDeg: 180, face: 'ink-down' }, 270],
  ])('however it lay in the cutter and lies on the glass: %j, %i', async (load, turnDeg) => {
    const { shop, record } = await cutSheet({}, load);
    const scans = [await scanOf(record, { turnDeg })];
    await saveScan(test.database, shop.actor, inputOf(record, scans));
    expect(farthest(await mustLoad(test.database, record.calibration.id), scans)).toBeLessThan(0.035);
  });

  it('one scan says that a lamp\u2019s shadow may have moved it, two that lay differently no longer', async () => {
    const { shop, record } = await cutSheet();
    const first = await scanOf(record);
    const shiftSd = async (scans: readonly ScanResult[]): Promise<number> => {
      await saveScan(test.database, shop.actor, inputOf(record, scans));
      const after = await mustLoad(test.database, record.calibration.id);
      const found = analyse({ ...after, readings: after.readings.filter((r) => r.method === 'scan') });
      if (!found.ok) throw new Error(found.error.kind);
      return Math.sqrt(found.value.fit.readingCovariance[7]!);
    };
    expect(await shiftSd([first])).toBeGreaterThan(0.014);
    expect(await shiftSd([first, await scanOf(record, { turnDeg: 90 })])).toBeLessThan(0.006);
  });

  it('a worn sheet: what was not weeded, or is torn, is said so; the rest still tells the map', async () => {
    const { shop, record } = await cutSheet();
    const worn = await scanOf(record, { condition: 'worn' });
    const own = worn.discs.filter((d) => d.key.startsWith('1 '));
    expect(own.filter((d) => d.state === 'not-weeded')).toHaveLength(1);
    expect(own.filter((d) => d.state === 'missing' || d.state === 'partial')).toHaveLength(1);
    const input = inputOf(record, [worn]);
    expect(input.discs.length).toBeGreaterThanOrEqual(7);
    await saveScan(test.database, shop.actor, input);
    expect(farthest(await mustLoad(test.database, record.calibration.id), [worn])).toBeLessThan(0.035);
  });

  it('two photographs from the hand, turned by half: a few hundredths of a mm, and called approximate', async () => {
    const { shop, record } = await cutSheet();
    const photos = [
      await scanOf(record, { device: 'camera' }),
      await scanOf(record, { device: 'camera', turnDeg: 180 }),
    ];
    expect(photos.map((p) => p.kind)).toEqual(['photo', 'photo']);
    await saveScan(test.database, shop.actor, inputOf(record, photos));
    expect(farthest(await mustLoad(test.database, record.calibration.id), photos)).toBeLessThan(0.04);
  });

  it.each(['rubbed', 'pen'] as const)('%s: a dark circle in every ring, one scan', async (cutLine) => {
    const { shop, record } = await cutSheet({}, LOAD, cutLine);
    const scan = await scanOf(record, { turnDeg: 270 });
    expect(scan.discs.map((d) => d.state)).toEqual(record.definition.combs.slice(9).map(() => 'good'));
    await saveScan(test.database, shop.actor, inputOf(record, [scan]));
    const after = await mustLoad(test.database, record.calibration.id);
    const found = analyse({ ...after, readings: after.readings.filter((r) => r.method === 'scan') });
    if (!found.ok) throw new Error(found.error.kind);
    // A pen's sheet says nothing of the knife's own shift, however it was measured.
    expect([found.value.fit.map.tx, found.value.fit.map.ty].every((t) => t === 0)).toBe(cutLine === 'pen');
    if (cutLine === 'rubbed') expect(farthest(after, [scan])).toBeLessThan(0.02);
    const worn = await scanOf(record, { condition: 'worn' });
    expect(worn.discs.filter((d) => d.state === 'not-weeded')).toHaveLength(1);
  });

  it('lifted discs, loose on dark card, each its own way: from the traced picture to the map', async () => {
    const { shop, record } = await cutSheet({ route: 'B', program: { knowsCutBy: 'tracing', opens: ['png'] } });
    expect(record.definition.liftOffs.length).toBeGreaterThanOrEqual(6);
    const scans = [await scanOf(record), await scanOf(record, { turnDeg: 180 })];
    for (const { discs, turnDeg } of scans) {
      expect(discs.map((d) => d.state)).toEqual(record.definition.liftOffs.map(() => 'good'));
      expect(turnDeg).toBeNull();
    }
    expect(combineScans(scans).atOdds).toBeNull();
    await saveScan(test.database, shop.actor, inputOf(record, scans));
    const after = await mustLoad(test.database, record.calibration.id);
    expect(isRead(after, after.cutSets[0]!)).toBe(true);
    // The stand-in program traces at 150 dpi: what it makes of a ring is the cut that is measured.
    expect(farthest(after, scans)).toBeLessThan(0.05);
    const worn = await scanOf(record, { condition: 'worn' });
    expect(worn.discs.filter((d) => d.state === 'not-weeded')).toHaveLength(1);
    expect(worn.discs.filter((d) => d.state === 'good').length).toBeGreaterThanOrEqual(worn.discs.length - 3);
  });

  it('another check\u2019s sheet carries other words, and is not taken for this one', async () => {
    const [own, other] = [await cutSheet(), await cutSheet()];
    const image = await imageOf(other.record, {});
    expect(measuredImage(image, own.record)).toMatchObject({ ok: false, error: { kind: 'no-page' } });
    const others = [{ code: other.record.code, figures: scanFigures(other.record.definition) }];
    expect(measuredImage(image, own.record, others)).toMatchObject({
      ...{ ok: false, error: { kind: 'other-sheet', code: other.record.code } },
    });
    const photo = await imageOf(other.record, { device: 'camera' });
    expect(measuredImage(photo, own.record, others)).toMatchObject({
      error: { kind: 'other-sheet', code: other.record.code },
    });
  });

  it.each([4, 6, 9])(
    'a cut %i mm off is too far for a scan: no disc of it is measured, none is misread',
    async (offsetMm) => {
      const { record } = await cutSheet({
        error: { ...NO_ERROR, offsetAcrossMm: offsetMm, offsetAlongMm: -offsetMm / 2 },
      });
      const { discs } = await scanOf(record);
      const own = discs.filter((d) => d.key.startsWith('1 '));
      const words = nothingCutWords(own, new Set(own.map((d) => d.key)), { cutShape: 'hole', hasRough: true });
      expect(words).toMatch(/too far off for a scan: read the rough position/);
    },
  );

  it('the second sheet of a check is not taken for the first', async () => {
    const { shop, record } = await cutSheet();
    await addSheet(test.database, shop.actor, { calibrationId: record.calibration.id });
    const after = await mustLoad(test.database, record.calibration.id);
    expect(after.sheets.map((s) => s.sheetNo)).toEqual([1, 2]);
    const [first, second] = [onSheet(after, 1), onSheet(after, 2)];
    const image = await imageOf(first, {});
    expect(measuredImage(image, first)).toMatchObject({ ok: true });
    const others = await otherSheets(test.database, second, { sheetId: after.sheets[1]!.id });
    expect(others.map((o) => o.code)).toEqual([first.code]);
    expect(measuredImage(image, second, others)).toMatchObject({ error: { kind: 'other-sheet', code: first.code } });
  });

  it('the same scan sent twice is kept once; a later one supersedes its readings; an unknown disc is refused', async () => {
    const { shop, record } = await cutSheet();
    const input = inputOf(record, [await scanOf(record)]);
    expect(await saveScan(test.database, shop.actor, input)).toEqual({ ok: true, value: 9 });
    expect(await saveScan(test.database, shop.actor, input)).toEqual({ ok: true, value: 9 });
    const later = {
      ...input,
      id: randomUUID(),
      discs: input.discs.map((d) => ({ ...d, acrossId: randomUUID(), alongId: randomUUID(), acrossMm: 0.1 })),
    };
    await saveScan(test.database, shop.actor, later);
    const { readings } = await mustLoad(test.database, record.calibration.id);
    const kept = readings.filter((r) => r.method === 'scan' && r.axis === 'across');
    expect(kept.map((r) => r.readingMm)).toEqual(Array.from({ length: 9 }, () => 0.1));
    const unknown = { ...later, id: randomUUID(), discs: [{ ...later.discs[0]!, spotNo: 77 }] };
    expect(await saveScan(test.database, shop.actor, unknown)).toMatchObject({ ok: false });
  });

  it('originals are kept as they came where that is wished: pictures only, of this calibration, once', async () => {
    const { shop, record } = await cutSheet();
    const input = inputOf(record, [await scanOf(record)]);
    await saveScan(test.database, shop.actor, input);
    const place = { calibrationId: record.calibration.id, scanId: input.id, no: 0 };
    const content = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]);
    const keep = (at: OriginalPlace, bytes: Uint8Array) =>
      keepOriginal(test.database, at, { name: 'top left.png', content: bytes });
    expect(await keep(place, Uint8Array.from([1, 2, 3, 4]))).toMatchObject({
      error: { message: expect.stringContaining('no PNG, JPEG or TIFF') as string },
    });
    expect(await keep({ ...place, no: 1 }, content)).toMatchObject({ ok: false });
    expect(await keep({ ...place, calibrationId: randomUUID() }, content)).toMatchObject({ ok: false });
    expect(await keep(place, content)).toEqual({ ok: true, value: true });
    expect(await keep(place, Uint8Array.from([...content, 9]))).toEqual({ ok: true, value: true });
    const kept = await keptOriginal(test.database, place);
    expect({ ...kept, content: [...(kept?.content ?? [])] }).toEqual({
      ...{ fileName: 'top left.png', mediaType: 'image/png', content: [...content] },
    });
    expect(await keptOriginal(test.database, { ...place, calibrationId: randomUUID() })).toBeNull();
    const [scan] = await keptScans(test.database, input.cutSetId);
    expect(scan?.originals).toMatchObject([{ no: 0, fileName: 'top left.png', bytes: 7 }]);
    expect(scan?.printSize).toBeNull();
  });
});
