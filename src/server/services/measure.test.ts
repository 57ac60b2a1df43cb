import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { StoredOwnTest } from '@/contracts/stored';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import type { MachineSetting } from '@/core/setting/machine-setting';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup } from '@/db/queries/shop';
import { machineSetting } from '@/db/schema/settings';
import { analyse } from './analysis';
import { changeView } from './change-view';
import { explanationsOf } from './explanations';
import { keepOwnTest, readMeasure } from './measure';
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

const OWN_TEST = {
  across: { labels: 'letters', firstNumber: 1, lines: 7, middle: 4, takesHalves: false, stepMm: 0.2 },
  along: { labels: 'signed', firstNumber: 1, lines: 11, middle: 6, takesHalves: true, stepMm: 0.1 },
  sheet: 'check-sheet',
} as const;

const mustLoadSetup = async (setupId: string) => {
  const row = await findSetup(test.database, setupId);
  if (!row) throw new Error('the setup is there');
  return row;
};

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
    expect(view.ownTest).toBeNull();
    expect(await readMeasure(test.database, randomUUID())).toBeNull();
  });
  it('keeps its own test with its cutter, and only in the shop that the cutter stands in', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const other = await makeShop(test.database, { error: NO_ERROR });
    const input = { setupId: shop.setupId, ownTest: OWN_TEST };
    const keptIn = async (setupId: string) => (await readMeasure(test.database, setupId))?.ownTest;
    expect(await keepOwnTest(test.database, other.shopId, input)).toMatchObject({ ok: false });
    expect(await keptIn(shop.setupId)).toBeNull();
    expect((await keepOwnTest(test.database, shop.shopId, input)).ok).toBe(true);
    expect(await keptIn(shop.setupId)).toEqual(OWN_TEST);
    expect(await keptIn(other.setupId)).toBeNull();
  });
  it('a wizard picks from the row as it is described, and the line has the label that the machine shows', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    for (const id of shop.settingIds.slice(0, 2))
      await test.database
        .update(machineSetting)
        .set({ kind: 'wizard', unit: 'step', unitSize: 0.05, step: 1, combine: 'adds', entry: 'change' })
        .where(eq(machineSetting.id, id));
    await keepOwnTest(test.database, shop.shopId, { setupId: shop.setupId, ownTest: OWN_TEST });
    const record = await mustLoadSetup(shop.setupId);
    const settings = await findSettings(test.database, ownersOf(record), { x: 0, y: 0 });
    const along = settings.find((s) => s.actsOn === 'offset_along')!;
    const across = settings.find((s) => s.actsOn === 'offset_across')!;
    expect(across).toMatchObject({ minValue: -3, maxValue: 3, step: 1, unitSize: 0.2 });
    expect(along).toMatchObject({ minValue: -5, maxValue: 5, step: 0.5, unitSize: 0.1 });
    const plan = (setting: MachineSetting, toType: number) => ({
      ...{ setting, before: 0, after: toType, toType, isAtLimit: false },
    });
    expect(changeView(plan(across, 2), record.cutter).toType).toBe('F');
    expect(changeView(plan(along, -1.5), record.cutter).toType).toBe('\u22122/\u22121');
  });
  it('a step that cuts have told stays when the row is described', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const [learned, unknown] = shop.settingIds as [string, string];
    for (const id of [learned, unknown])
      await test.database
        .update(machineSetting)
        .set({ kind: 'wizard', unit: 'step', unitSize: 0.05, step: 1, combine: 'adds', entry: 'change' })
        .where(eq(machineSetting.id, id));
    await test.query(`insert into which_way_test select gen_random_uuid(), $1, 5, 0.25, 0, 0.02, 1, 1, now(), $2`, [
      learned,
      shop.actor.personId,
    ]);
    await keepOwnTest(test.database, shop.shopId, { setupId: shop.setupId, ownTest: OWN_TEST });
    const settings = await findSettings(test.database, ownersOf(await mustLoadSetup(shop.setupId)), { x: 0, y: 0 });
    const of = (id: string) => settings.find((s) => s.id === id);
    expect(of(learned)).toMatchObject({ unitSize: 0.05, maxValue: 3 });
    expect(of(unknown)).toMatchObject({ unitSize: 0.1, maxValue: 5 });
  });
  it.each([
    ['no row at all', { across: null, along: null, sheet: 'own' }],
    ['the middle outside', { ...OWN_TEST, across: { ...OWN_TEST.across, middle: 9 } }],
    ['a step of nothing', { ...OWN_TEST, along: { ...OWN_TEST.along, stepMm: 0 } }],
    ['half a line', { ...OWN_TEST, along: { ...OWN_TEST.along, lines: 7.5 } }],
  ])('%s is no test', (_name, ownTest) => {
    expect(StoredOwnTest.safeParse(ownTest).success).toBe(false);
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
