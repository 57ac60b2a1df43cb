import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { TURNS, type Load } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad, readDoneSet, runCalibration } from '../../../scripts/run-calibration';
import { cutInstructions } from './instructions';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { checkPrint, recordCut } from './steps';
import { tellShownValue } from './shown-value';
import { keepLearned, learnedFrom, recordTrial, trialChanges, trialLoading, trialsOf } from './which-way';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const error = { ...NO_ERROR, offsetAcrossMm: 0.3, offsetAlongMm: -0.2, rotationRad: 0.0006 };
const senseOf = (rows: unknown[]) => (rows as { sense: number | null }[]).map((r) => r.sense);
const sensesNow = async (shop: TestShop) =>
  senseOf(
    await test.query('select sense from machine_setting where id = any($1) order by position', [shop.settingIds]),
  );

/** One which-way test from sheet to what is kept. */
async function learn(shop: TestShop, load: Load, typedOver: Record<string, number> = {}) {
  const { actor } = shop;
  const input = startOrder(shop, 'which_way');
  const calibrationId = input.id;
  expect((await startCalibration(test.database, actor, input)).ok).toBe(true);
  await checkPrint(test.database, actor, { id: randomUUID(), calibrationId, lineMm: 230 });
  const cut = { id: randomUUID(), calibrationId, ...load, outcome: 'done', isFreshLoad: true } as const;
  expect((await recordCut(test.database, actor, cut)).ok).toBe(true);
  expect((await mustLoad(test.database, calibrationId)).calibration.step).toBe('cut');
  const changes = trialChanges(await mustLoad(test.database, calibrationId));
  const steps = cutInstructions(await mustLoad(test.database, calibrationId)).steps.join(' ');
  expect(steps).toMatch(/Leave the sheet where it lies.*decline/);
  expect(steps).not.toMatch(/Unload/);
  const typed = { ...Object.fromEntries(changes.map((c) => [c.setting.id, c.toType])), ...typedOver };
  const trial = await recordTrial(test.database, actor, { id: randomUUID(), calibrationId, typed });
  if (!trial.ok) return { trial, told: [], changes };
  const rng = seededRng(8);
  for (const set of (await mustLoad(test.database, calibrationId)).cutSets)
    await readDoneSet(test.database, actor, calibrationId, { cutSetId: set.id, rng });
  const record = await mustLoad(test.database, calibrationId);
  expect(record.cutSets.map((c) => [c.purpose, c.loadNo])).toEqual([
    ['before', 1],
    ['which_way', 1],
  ]);
  const told = learnedFrom(record) ?? [];
  const kept = await keepLearned(test.database, actor, { id: randomUUID(), calibrationId });
  expect(kept.ok).toBe(true);
  return { trial, told, changes };
}

const unknownOffsets = { senses: [null, null, 1, 1], markSdMm: 0.08 } satisfies Partial<ShopOrder>;

describe('which way, through the real files', () => {
  it.each(TURNS.flatMap((turnDeg) => (['away', 'towards'] as const).map((feeds) => [turnDeg, feeds] as const)))(
    'turned %s, fed %s: both offsets of one test, however noisy the load',
    async (turnDeg, feeds) => {
      const axes = feeds === 'away' ? (['+x', '+y'] as const) : (['+y', '-x'] as const);
      const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets, feeds, axes });
      const { told, changes } = await learn(shop, { turnDeg, face: 'ink-up' });
      expect(changes).toHaveLength(2);
      // The stand-in's unknown settings truly go the other way.
      expect(told.map((t) => t.learned.sense)).toEqual([-1, -1]);
      for (const t of told) expect(Math.abs((t.learned.gain ?? 1) - 1)).toBeLessThan(0.2);
      expect(await sensesNow(shop)).toEqual([-1, -1, 1, 1]);
    },
  );

  it('what was learned is then used: the next check passes by settings', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets, markSdMm: 0.02 });
    await learn(shop, { turnDeg: 0, face: 'ink-up' });
    const { verdict } = await runCalibration(
      test.database,
      shop.actor,
      {
        setupId: shop.setupId,
        materialId: shop.materialId,
        page: 'A4',
        kind: 'full',
        toleranceMm: 0.4,
        way: 'settings',
      },
      seededRng(3),
    );
    expect(verdict).toBe('pass');
  });

  it('a wizard tells its direction only when two runs agree', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets });
    await test.query(
      `update machine_setting set kind = 'wizard', unit = 'step', unit_size = 0.1, step = 1, combine = 'adds', entry = 'change' where id = $1`,
      [shop.settingIds[0]],
    );
    await learn(shop, { turnDeg: 0, face: 'ink-up' });
    expect((await sensesNow(shop))[0]).toBeNull();
    await learn(shop, { turnDeg: 0, face: 'ink-up' });
    expect((await sensesNow(shop))[0]).toBe(-1);
    expect(
      await test.query('select 1 from which_way_test where machine_setting_id = $1', [shop.settingIds[0]]),
    ).toHaveLength(2);
  });
});

describe('what a test refuses', () => {
  it('a value not typed back', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets });
    const { trial } = await learn(shop, { turnDeg: 0, face: 'ink-up' }, { [shop.settingIds[0]!]: 999 });
    expect(trial).toMatchObject({ ok: false, error: { message: expect.stringContaining('outside') as string } });
  });
});

describe('work that cuts a print only once', () => {
  /** One test over two sheets, each a load of its own. */
  async function learnOverTwo(shop: TestShop) {
    const input = startOrder(shop, 'which_way');
    const calibrationId = input.id;
    expect(await startCalibration(test.database, shop.actor, input)).toEqual({ ok: true, value: calibrationId });
    await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId, lineMm: 230 });
    const cut = {
      id: randomUUID(),
      calibrationId,
      turnDeg: 0,
      face: 'ink-up',
      outcome: 'done',
      isFreshLoad: true,
    } as const;
    await recordCut(test.database, shop.actor, cut);
    const before = await mustLoad(test.database, calibrationId);
    expect(cutInstructions(before).steps[0]).toMatch(/Print this sheet exactly as the one before/);
    const typed = Object.fromEntries(trialChanges(before).map((c) => [c.setting.id, c.toType]));
    const trial = await recordTrial(test.database, shop.actor, { id: randomUUID(), calibrationId, typed });
    expect(trial.ok).toBe(true);
    const rng = seededRng(9);
    for (const set of (await mustLoad(test.database, calibrationId)).cutSets)
      await readDoneSet(test.database, shop.actor, calibrationId, { cutSetId: set.id, rng });
    const record = await mustLoad(test.database, calibrationId);
    expect(record.cutSets.map((c) => [c.sheetNo, c.setNo, c.purpose, c.loadNo])).toEqual([
      [1, 1, 'before', 1],
      [2, 1, 'which_way', 2],
    ]);
    const told = learnedFrom(record) ?? [];
    expect((await keepLearned(test.database, shop.actor, { id: randomUUID(), calibrationId })).ok).toBe(true);
    return told;
  }

  it('a wizard under a program that only traces: two sheets a run, its direction known after two runs', async () => {
    const trace = { knowsCutBy: 'tracing', opens: ['png'], canCutAgain: false } as const;
    const shop = await makeShop(test.database, {
      error,
      senses: [null, null, 1, 1],
      markSdMm: 0.05,
      route: 'B',
      program: { ...trace, opens: [...trace.opens] },
      truth: { traceGrowthMm: 0.3 },
    });
    await test.query(
      `update machine_setting set kind = 'wizard', unit = 'step', unit_size = 0.1, step = 1, min_value = -10, max_value = 60, combine = 'adds', entry = 'change' where id = any($1)`,
      [shop.settingIds.slice(0, 2)],
    );
    const told = await learnOverTwo(shop);
    expect(told.map((t) => t.learned.sense)).toEqual([-1, -1]);
    // The noise of a load is in the doubt, and the change was a whole mm.
    for (const t of told) expect(t.uncertainty).toBeGreaterThan(0.03);
    expect(Math.abs(told[0]?.learned.moved ?? 0)).toBeGreaterThan(0.7);
    expect((await sensesNow(shop)).slice(0, 2)).toEqual([null, null]);
    await learnOverTwo(shop);
    expect((await sensesNow(shop)).slice(0, 2)).toEqual([-1, -1]);
  });
});

describe('which way, within a check', () => {
  async function checked(shop: TestShop): Promise<string> {
    const input = startOrder(shop, 'quick');
    expect((await startCalibration(test.database, shop.actor, input)).ok).toBe(true);
    await cutAndRead(test.database, shop.actor, input.id, { load: { turnDeg: 0, face: 'ink-up' }, rng: seededRng(4) });
    return input.id;
  }
  const trial = async (shop: TestShop, calibrationId: string) => {
    const changes = trialChanges(await mustLoad(test.database, calibrationId));
    const typed = Object.fromEntries(changes.map((c) => [c.setting.id, c.toType]));
    const done = await recordTrial(test.database, shop.actor, { id: randomUUID(), calibrationId, typed });
    if (!done.ok) throw new Error(done.error.message);
    await readDoneSet(test.database, shop.actor, calibrationId, { cutSetId: done.value, rng: seededRng(5) });
    return mustLoad(test.database, calibrationId);
  };

  it('the sheet was taken out to be read: it is loaded again for the second set, whose load is another', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets, markSdMm: 0.02 });
    const calibrationId = await checked(shop);
    const before = await mustLoad(test.database, calibrationId);
    expect(trialLoading(before)).toBe('reload');
    expect(cutInstructions(before, true).steps.join(' ')).toMatch(/Load the same sheet again, exactly as before/);
    const after = await trial(shop, calibrationId);
    expect(after.cutSets.map((c) => [c.sheetNo, c.setNo, c.loadNo])).toEqual([
      [1, 1, 1],
      [1, 2, 2],
    ]);
    expect(learnedFrom(after)?.map((t) => t.learned.sense)).toEqual([-1, -1]);
    const keep = { id: randomUUID(), calibrationId };
    expect((await keepLearned(test.database, shop.actor, keep)).ok).toBe(true);
    expect(await keepLearned(test.database, shop.actor, keep)).toEqual({ ok: true, value: calibrationId });
    expect(await sensesNow(shop)).toEqual([-1, -1, 1, 1]);
    expect((await mustLoad(test.database, calibrationId)).calibration.state).toBe('open');
  });

  it('a cut that differs in a setting of known direction too is not taken for a trial', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, ...unknownOffsets, markSdMm: 0.02 });
    const calibrationId = await checked(shop);
    const scale = { id: randomUUID(), settingId: shop.settingIds[2] ?? '', value: 0.2 };
    expect((await tellShownValue(test.database, shop.actor, scale)).ok).toBe(true);
    const after = await trial(shop, calibrationId);
    expect(trialsOf(after)?.trials).toEqual([]);
    expect(learnedFrom(after)).toBeNull();
  });
});
