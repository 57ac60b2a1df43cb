import { randomUUID } from 'node:crypto';
import { StoredLadder } from '@/contracts/stored';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { explanationsOf } from './explanations';
import { keepLadder, readMeasure } from './measure';
import { makeShop, startOrder } from './shop.testing';
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

describe('measuring by rule', () => {
  it('starts from the page, the frame in its middle, and marks within the page', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const view = await readMeasure(test.database, shop.setupId);
    if (!view) throw new Error('the setup is there');
    expect(view.frame.widthMm).toBeLessThan(view.page.widthMm);
    expect(view.frame.lengthMm).toBeLessThan(view.page.lengthMm);
    expect(view.marks).toHaveLength(4);
    for (const mark of view.marks) {
      expect(Math.abs(mark.x)).toBeLessThan(view.page.widthMm / 2);
      expect(Math.abs(mark.y)).toBeLessThan(view.page.lengthMm / 2);
    }
    expect(view.ladder).toBeNull();
    expect(await readMeasure(test.database, randomUUID())).toBeNull();
  });
  it('keeps a ladder with its cutter, and only in the shop that the cutter stands in', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const other = await makeShop(test.database, { error: NO_ERROR });
    const ladder = { first: -10, last: 10, middle: 0, stepMm: 0.1 };
    const input = { setupId: shop.setupId, ladder };
    expect(await keepLadder(test.database, other.shopId, input)).toMatchObject({ ok: false });
    expect((await readMeasure(test.database, shop.setupId))?.ladder).toBeNull();
    expect((await keepLadder(test.database, shop.shopId, input)).ok).toBe(true);
    expect((await readMeasure(test.database, shop.setupId))?.ladder).toEqual(ladder);
    expect((await readMeasure(test.database, other.setupId))?.ladder).toBeNull();
  });
  it.each([
    ['the middle outside', { first: 1, last: 21, middle: 22, stepMm: null }],
    ['first and last the wrong way round', { first: 21, last: 1, middle: 11, stepMm: null }],
    ['a step of nothing', { first: 1, last: 21, middle: 11, stepMm: 0 }],
  ])('%s is no ladder', (_name, ladder) => {
    expect(StoredLadder.safeParse(ladder).success).toBe(false);
  });
});

it('every figure of a map tells how it was worked out, with this sheet\u2019s own numbers', async () => {
  const shop = await makeShop(test.database, {
    error: { ...NO_ERROR, offsetAcrossMm: 0.4, rotationRad: 0.002 },
    markSdMm: 0.03,
  });
  const input = startOrder(shop, 'full');
  await startCalibration(test.database, shop.actor, input);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: input.id, lineMm: 230 });
  await cutAndRead(test.database, shop.actor, input.id, { load: { turnDeg: 0, face: 'ink-up' }, rng: seededRng(11) });
  const record = await mustLoad(test.database, input.id);
  const analysed = analyse(record);
  if (!analysed.ok) throw new Error(analysed.error.kind);
  const told = explanationsOf(record, analysed.value);
  expect(new Set(told.map((e) => e.id)).size).toBe(told.length);
  expect(told.length).toBeGreaterThanOrEqual(12);
  for (const { title, lines } of told) {
    expect(title.length).toBeGreaterThan(3);
    expect(lines.join(' ')).toMatch(/\d/);
    expect(lines.join(' ')).not.toMatch(/NaN|undefined|Infinity/);
  }
  const words = (id: string): string => told.find((e) => e.id === id)?.lines.join('\n') ?? '';
  const { bounds, fit } = analysed.value;
  expect(words('map')).toContain(`${fit.readings.filter((r) => r.used).length} readings counted`);
  expect(words('worst')).toContain(bounds.worstMm.toFixed(3));
  expect(words('verdict')).toContain(bounds.upperMm.toFixed(3));
});
