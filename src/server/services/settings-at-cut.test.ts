import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad } from '../../../scripts/run-calibration';
import { analyse, type Analysis } from './analysis';
import { confirmCorrection } from './confirm';
import { acceptCorrection, changedOnly } from './corrections';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { tellShownValue } from './shown-value';
import { startCalibration } from './start';
import { addSheet } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const PLAIN = { turnDeg: 0, face: 'ink-up' } as const;
/** 0.3 mm across, in steps of the shop's own offset setting; it stands at 12.5 when the sheet is cut. */
const ERROR = { ...NO_ERROR, offsetAcrossMm: 0.3, offsetAlongMm: 0 };
const AT_CUT = 12.5;

async function analysed(calibrationId: string): Promise<Analysis> {
  const found = analyse(await mustLoad(test.database, calibrationId));
  if (!found.ok) throw new Error(found.error.kind);
  return found.value;
}

async function started(shop: TestShop): Promise<string> {
  const input = startOrder(shop, 'full');
  expect((await startCalibration(test.database, shop.actor, input)).ok).toBe(true);
  return input.id;
}

const cut = (shop: TestShop, calibrationId: string, seed: number) =>
  cutAndRead(test.database, shop.actor, calibrationId, { load: PLAIN, rng: seededRng(seed) });

/** Somebody sets the offset across meanwhile: a which-way test, a trial, another person. */
const setMeanwhile = (shop: TestShop, value: number) =>
  tellShownValue(test.database, shop.actor, { id: randomUUID(), settingId: shop.settingIds[0] ?? '', value });

async function cutThenSet(order: Partial<ShopOrder>, value: number) {
  const shop = await makeShop(test.database, { error: ERROR, ...order });
  const calibrationId = await started(shop);
  await cut(shop, calibrationId, 1);
  expect((await setMeanwhile(shop, value)).ok).toBe(true);
  return { shop, calibrationId };
}

const across = (a: Analysis, shop: TestShop) => a.plan.changes.find((c) => c.setting.id === shop.settingIds[0]);

describe('a setting that was changed after the sheet was cut', () => {
  it('is planned from the value that the sheet was cut with', async () => {
    const { shop, calibrationId } = await cutThenSet({}, AT_CUT + 0.5);
    const change = across(await analysed(calibrationId), shop);
    expect(change).toMatchObject({ before: AT_CUT + 0.5, after: AT_CUT - 0.3, toType: AT_CUT - 0.3 });
  });

  it('is set back, even when nothing is known of its direction', async () => {
    const { shop, calibrationId } = await cutThenSet({ senses: [null, 1, 1, 1] }, AT_CUT + 0.5);
    const change = across(await analysed(calibrationId), shop);
    expect(change).toMatchObject({ before: AT_CUT + 0.5, after: AT_CUT });
  });

  it('is set back before the cut is moved in the file, where its direction is not known', async () => {
    const { shop, calibrationId } = await cutThenSet({ senses: [null, 1, 1, 1] }, AT_CUT + 0.5);
    const input = { calibrationId, way: 'file' } as const;
    const refused = await acceptCorrection(test.database, shop.actor, { id: randomUUID(), ...input, typed: {} });
    expect(refused).toMatchObject({ ok: false });
    const typed = { [shop.settingIds[0] ?? '']: AT_CUT };
    const done = await acceptCorrection(test.database, shop.actor, { id: randomUUID(), ...input, typed });
    expect(done.ok).toBe(true);
    await cut(shop, calibrationId, 2);
    expect((await analysed(calibrationId)).bounds.worstMm).toBeLessThan(0.1);
  });

  it('stays where it stands when the cut is moved in the file and its direction is known', async () => {
    const { shop, calibrationId } = await cutThenSet({}, AT_CUT + 0.5);
    const done = await acceptCorrection(test.database, shop.actor, {
      ...{ id: randomUUID(), calibrationId, way: 'file', typed: {} },
    });
    expect(done.ok).toBe(true);
    await cut(shop, calibrationId, 2);
    expect((await analysed(calibrationId)).bounds.worstMm).toBeLessThan(0.1);
  });

  it('whatever it was set to meanwhile, the plan ends in register', async () => {
    for (const [i, value] of [AT_CUT - 1, AT_CUT + 0.15, AT_CUT + 2].entries()) {
      const { shop, calibrationId } = await cutThenSet({}, value);
      const plan = (await analysed(calibrationId)).plan;
      const typed = Object.fromEntries(changedOnly(plan).map((c) => [c.setting.id, c.toType]));
      await acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId, way: 'settings', typed });
      await cut(shop, calibrationId, 10 + i);
      expect(await confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId })).toEqual({
        ok: true,
        value: 'pass',
      });
    }
  });

  it('loads cut with different values count together as one machine', async () => {
    const { shop, calibrationId } = await cutThenSet({}, AT_CUT + 0.5);
    await addSheet(test.database, shop.actor, { calibrationId });
    await cut(shop, calibrationId, 2);
    const a = await analysed(calibrationId);
    // The map is in the frame of the newer load, which was cut 0.5 mm further.
    expect(a.fit.map.tx).toBeCloseTo(0.8, 1);
    expect(Math.max(...a.loads.map((l) => l.departureMm))).toBeLessThan(0.05);
    expect(across(a, shop)).toMatchObject({ before: AT_CUT + 0.5, after: AT_CUT - 0.3 });
  });

  it('where its direction is not known, loads cut with another value are left out and named', async () => {
    const { shop, calibrationId } = await cutThenSet({ senses: [null, 1, 1, 1] }, AT_CUT + 0.5);
    await addSheet(test.database, shop.actor, { calibrationId });
    await cut(shop, calibrationId, 2);
    const a = await analysed(calibrationId);
    expect(a.atCut.leftOutLoads).toEqual([1]);
    // The simulated machine's plus truly goes the other way.
    expect(a.fit.map.tx).toBeCloseTo(-0.2, 1);
  });

  it('no verdict is kept of a machine that was set otherwise since', async () => {
    const { shop, calibrationId } = await cutThenSet({}, AT_CUT);
    const typed = Object.fromEntries(
      changedOnly((await analysed(calibrationId)).plan).map((c) => [c.setting.id, c.toType]),
    );
    await acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId, way: 'settings', typed });
    await cut(shop, calibrationId, 2);
    await setMeanwhile(shop, AT_CUT + 0.5);
    const judge = () => confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId });
    expect(await judge()).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/OFFSET_ACROSS was 12\.20 mm .* is 13\.00 mm now/) as string },
    });
    await setMeanwhile(shop, AT_CUT - 0.3);
    expect(await judge()).toEqual({ ok: true, value: 'pass' });
  });
});
