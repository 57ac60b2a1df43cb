import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad, readDoneSet } from '../../../scripts/run-calibration';
import { analyse, type Analysis } from './analysis';
import { explanationsOf } from './explanations';
import { nextSpot } from './next-spot';
import { saveReading, saveReadingList } from './readings';
import type { CalibrationRecord } from './record';
import { repeatsView } from './repeats';
import { makeShop, startOrder, type TestShop } from './shop.testing';
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

interface Read {
  readonly shop: TestShop;
  readonly record: CalibrationRecord;
  readonly look: (spotNo: number, axis: 'across' | 'along', repeatNo: number, readingMm: number) => Promise<void>;
  readonly again: () => Promise<CalibrationRecord>;
}

/** A sheet cut and read once. */
async function readOnce(kind: 'full' | 'quick'): Promise<Read> {
  const shop = await makeShop(test.database, { error: { ...NO_ERROR, offsetAcrossMm: 0.2 }, markSdMm: 0.02 });
  const input = startOrder(shop, kind);
  await startCalibration(test.database, shop.actor, input);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  const load = { turnDeg: 0, face: 'ink-up' } as const;
  await cutAndRead(test.database, shop.actor, input.id, { load, rng: seededRng(5) });
  const record = await mustLoad(test.database, input.id);
  const cutSetId = record.cutSets[0]?.id ?? '';
  return {
    shop,
    record,
    look: async (spotNo, axis, repeatNo, readingMm) => {
      const what = { cutSetId, spotNo, axis, repeatNo, readingMm, method: 'wedge', state: 'read' } as const;
      const done = await saveReading(test.database, shop.actor, { id: randomUUID(), ...what, startedAtMm: 0 });
      expect(done.ok && done.value.earlierMm).toBeNull();
    },
    again: () => mustLoad(test.database, input.id),
  };
}

function analysed(record: CalibrationRecord): Analysis {
  const a = analyse(record);
  if (!a.ok) throw new Error(a.error.kind);
  return a.value;
}

const firstOf = (record: CalibrationRecord, spotNo: number, axis: string): number =>
  record.readings.find((r) => r.spotNo === spotNo && r.axis === axis)?.readingMm ?? NaN;

it('a whole second look: both count as one reading, the eye is known from them, and doubt shrinks', async () => {
  const { shop, record, again } = await readOnce('full');
  const before = analysed(record);
  expect(repeatsView(record, 'mm')).toEqual({ steadiness: null, notes: [], nextLook: 2 });
  const cutSetId = record.cutSets[0]?.id ?? '';
  await readDoneSet(test.database, shop.actor, record.calibration.id, { cutSetId, rng: seededRng(6), repeatNo: 2 });
  const after = await again();
  const a = analysed(after);
  expect([after.readings.length, after.repeats.length]).toEqual([record.readings.length, record.readings.length]);
  expect(a.fit.readings.length).toBe(before.fit.readings.length);
  const doubt = (x: Analysis): number => x.bounds.upperMm - x.bounds.worstMm;
  expect(doubt(a)).toBeLessThan(doubt(before));
  const { steadiness, nextLook } = repeatsView(after, 'mm');
  expect(steadiness).toMatch(
    new RegExp(`from ${record.readings.length} repeats\\)\\. Verdicts now use it instead of the usual 0\\.043 mm`),
  );
  expect(nextLook).toBe(3);
  expect(explanationsOf(after, a)[0]?.lines[0]).toMatch(/^eye and rounding from \d+ repeats/);
});

it('two looks that contradict: named, with the way to a third; the third names the odd one and leaves it out', async () => {
  const { record, look, again } = await readOnce('full');
  const first = firstOf(record, 2, 'across');
  await look(2, 'across', 2, first + 0.6);
  const [dispute] = repeatsView(await again(), 'mm').notes;
  expect(dispute).toMatchObject({ spotNo: 2, axis: 'across', nextLook: 3 });
  expect(dispute?.words).toMatch(/contradict each other\. A third look tells which is wrong/);
  await look(2, 'across', 3, first + 0.05);
  const after = await again();
  const [odd] = repeatsView(after, 'mm').notes;
  expect(odd).toMatchObject({ nextLook: null });
  expect(odd?.words).toMatch(/is the odd one of 3 looks and is left out/);
  const fitted = analysed(after).fit.readings.find(
    (r) => r.observation.id === record.readings.find((x) => x.spotNo === 2 && x.axis === 'across')?.id,
  );
  const dithered = record.readings.find((x) => x.spotNo === 2 && x.axis === 'across')?.displacementMm ?? NaN;
  expect(fitted?.observation.valueMm).toBeCloseTo(dithered + 0.025, 2);
});

it('a figure first skipped and read later: the next look is a free one and takes nothing away', async () => {
  const { shop, record, look, again } = await readOnce('quick');
  const own = record.readings.find((r) => r.spotNo === 1 && r.axis === 'across');
  if (!own) throw new Error('spot 1 was read');
  const { cutSetId } = own;
  const skip = { cutSetId, spotNo: 1, axis: 'across', method: 'wedge', state: 'skipped', readingMm: null } as const;
  await saveReading(test.database, shop.actor, { id: randomUUID(), ...skip, startedAtMm: 0 });
  await look(1, 'across', 2, 0.2);
  await look(1, 'across', 3, 0.9);
  const [dispute] = repeatsView(await again(), 'mm').notes;
  expect(dispute).toMatchObject({ spotNo: 1, nextLook: 1 });
  expect(dispute?.words).toMatch(/seen at \+0\.20 mm and \+0\.90 mm/);
});

it('the next best spot of a quick check is one of its corners, and less doubt is what a second look there gives', async () => {
  const { record, look, again } = await readOnce('quick');
  const before = analysed(record);
  const next = nextSpot(record, before);
  if (!next) throw new Error('there is a spot to read');
  expect(next).toMatchObject({ lookNo: 2, isRead: true });
  const spot = record.definition.spots.find((s) => s.spotNo === next.spotNo);
  expect(Math.abs(spot?.centre.y ?? 0)).toBeGreaterThan(50);
  for (const axis of ['across', 'along'] as const) await look(next.spotNo, axis, 2, firstOf(record, next.spotNo, axis));
  const after = nextSpot(await again(), analysed(await again()));
  if (!next.doubt) throw new Error('the map is whole');
  expect(next.doubt.afterMm).toBeLessThan(next.doubt.beforeMm);
  // Residuals change a little with the values; the promise is of the doubt, not of them.
  expect(Math.abs((after?.doubt?.beforeMm ?? NaN) - next.doubt.afterMm)).toBeLessThan(0.01);
});

it('a list is kept whole or not at all, and sent twice it is kept once', async () => {
  const { shop, record, again } = await readOnce('quick');
  const cutSetId = record.cutSets[0]?.id ?? '';
  const row = (spotNo: number, readingMm: number) => {
    const what = { cutSetId, spotNo, axis: 'across', method: 'wedge', repeatNo: 2, state: 'read' } as const;
    return { id: randomUUID(), ...what, readingMm, startedAtMm: 0 };
  };
  const wrong = await saveReadingList(test.database, shop.actor, { readings: [row(1, 0.1), row(77, 0.1)] });
  expect(wrong).toMatchObject({ ok: false, error: { message: expect.stringContaining('Spot 77') as string } });
  expect((await again()).repeats).toHaveLength(0);
  const readings = [row(1, 0.1), row(2, 0.15)];
  expect(await saveReadingList(test.database, shop.actor, { readings })).toEqual({ ok: true, value: 2 });
  expect(await saveReadingList(test.database, shop.actor, { readings })).toEqual({ ok: true, value: 2 });
  expect((await again()).repeats.map((r) => r.readingMm).sort()).toEqual([0.1, 0.15]);
});
