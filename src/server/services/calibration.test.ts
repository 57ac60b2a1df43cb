import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { LETTER, sheetSize } from '@/core/units/sheet-size';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { cutAndRead, mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { readBench } from './bench';
import { confirmCorrection } from './confirm';
import { acceptCorrection } from './corrections';
import { logEvent, undoEvent } from './events';
import { readHistoryEntry } from './history';
import { putBack, putBackPlan } from './put-back';
import { saveReading } from './readings';
import { makeShop, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { checkPrint, goToStep, recordCut } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

/** Typed as text, so that nothing untyped slips into an expectation. */
const containing = (part: string): string => expect.stringContaining(part) as string;
const PLAIN = { turnDeg: 0, face: 'ink-up' } as const;
const error = { ...NO_ERROR, offsetAcrossMm: 0.42, offsetAlongMm: -0.3 };
const order = (shop: TestShop) =>
  ({
    setupId: shop.setupId,
    materialId: shop.materialId,
    page: 'A4',
    kind: 'full',
    toleranceMm: 0.3,
    way: 'settings',
  }) as const;

const valuesOf = (shop: TestShop) =>
  test.query(
    `select distinct on (machine_setting_id) machine_setting_id, value from setting_value
     where machine_setting_id = any($1) order by machine_setting_id, seq desc`,
    [shop.settingIds],
  );

async function started(shop: TestShop): Promise<string> {
  const id = randomUUID();
  const done = await startCalibration(test.database, shop.actor, {
    id,
    setupId: shop.setupId,
    materialId: shop.materialId,
    page: { name: 'A4', ...sheetSize('A4') },
    kind: 'quick',
    toleranceMm: 0.3,
  });
  expect(done.ok).toBe(true);
  return id;
}

describe('a calibration', () => {
  it('passes, is kept, brings the setup into register; an event and its undo are told', async () => {
    const shop = await makeShop(test.database, { error, markSdMm: 0.02 });
    const { verdict } = await runCalibration(test.database, shop.actor, order(shop), seededRng(1));
    expect(verdict).toBe('pass');
    const own = async () => (await readBench(test.database, shop.shopId)).find((s) => s.id === shop.setupId)!;
    expect((await own()).state).toBe('in-register');
    const id = randomUUID();
    await logEvent(test.database, shop.actor, { id, setupId: shop.setupId, kind: 'new_blade', note: '' });
    expect(await own()).toMatchObject({ state: 'check-first', events: [{ words: 'new blade or holder' }] });
    await undoEvent(test.database, shop.actor, { id: randomUUID(), eventId: id, setupId: shop.setupId });
    expect((await own()).state).toBe('in-register');
  });

  it('far out: the rough position, set 2 with the shift in its file, and a confirm on a second sheet', async () => {
    const shop = await makeShop(test.database, { error: { ...error, offsetAcrossMm: 6.3, offsetAlongMm: -3.4 } });
    const { calibrationId, verdict } = await runCalibration(test.database, shop.actor, order(shop), seededRng(2));
    const record = await mustLoad(test.database, calibrationId);
    expect(record.corrections.map((c) => c.objective)).toEqual(['rough', 'fine']);
    const second = record.cutSets.find((c) => c.setNo === 2)!;
    expect(second.fileShift.x).toBeCloseTo(-6.25, 1);
    expect(second.leftOut.length).toBeGreaterThan(0);
    expect(record.sheets).toHaveLength(2);
    expect(verdict).toBe('pass');
  });

  it('nothing to set: the cut is moved in the file, and that is confirmed', async () => {
    const shop = await makeShop(test.database, { error: { ...error, rotationRad: 0.002 }, withoutSettings: true });
    const { verdict } = await runCalibration(test.database, shop.actor, { ...order(shop), way: 'file' }, seededRng(3));
    expect(verdict).toBe('pass');
  });

  it('left as it is: the confirming cut fails and the setup is to stop', async () => {
    const shop = await makeShop(test.database, { error: { ...error, offsetAcrossMm: 0.7 } });
    const { verdict } = await runCalibration(test.database, shop.actor, { ...order(shop), way: 'none' }, seededRng(4));
    expect(verdict).toBe('fail');
    expect((await readBench(test.database, shop.shopId)).find((s) => s.id === shop.setupId)!.state).toBe('stop');
  });

  it('a cut of the same load is a settings check and confirms nothing', async () => {
    const shop = await makeShop(test.database, { error });
    const id = await started(shop);
    await cutAndRead(test.database, shop.actor, id, { load: PLAIN, rng: seededRng(1) });
    await acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId: id, way: 'none', typed: {} });
    await recordCut(test.database, shop.actor, {
      id: randomUUID(),
      calibrationId: id,
      ...PLAIN,
      outcome: 'done',
      isFreshLoad: false,
    });
    const done = await confirmCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId: id });
    expect(done).toMatchObject({ ok: false, error: { message: containing('settings check') } });
  });

  it('a print to fit the page is named and stops it', async () => {
    const shop = await makeShop(test.database, { error });
    const id = await started(shop);
    expect(await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: id, lineMm: 223 })).toEqual({
      ok: true,
      value: 'scaled',
    });
    expect((await mustLoad(test.database, id)).calibration.step).toBe('print');
    expect(await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId: id, lineMm: 230 })).toEqual({
      ok: true,
      value: 'right',
    });
    expect((await mustLoad(test.database, id)).calibration.step).toBe('cut');
  });

  it('a setting must be typed back, on its step and in its range', async () => {
    const shop = await makeShop(test.database, { error });
    const id = await started(shop);
    await cutAndRead(test.database, shop.actor, id, { load: PLAIN, rng: seededRng(1) });
    const accept = (typed: Record<string, number>) =>
      acceptCorrection(test.database, shop.actor, { id: randomUUID(), calibrationId: id, way: 'settings', typed });
    expect(await accept({})).toMatchObject({ ok: false, error: { message: containing('Type back') } });
    expect(await accept({ [shop.settingIds[0]!]: 400, [shop.settingIds[1]!]: 1 })).toMatchObject({
      ok: false,
      error: { message: containing('outside') },
    });
    expect((await mustLoad(test.database, id)).corrections).toHaveLength(0);
  });

  it('the machine is put back to how it stood at an earlier entry: all its settings, also one changed only later', async () => {
    const shop = await makeShop(test.database, { error });
    await runCalibration(test.database, shop.actor, order(shop), seededRng(1));
    const [entry] = (await test.query('select id from history_entry where setup_id = $1 order by seq desc', [
      shop.setupId,
    ])) as { id: string }[];
    const nothing = await putBackPlan(test.database, entry!.id);
    expect(nothing!.changes).toEqual([]);
    const valuesThen = await valuesOf(shop);
    for (const settingId of shop.settingIds) {
      await test.query(
        `insert into setting_value select gen_random_uuid(), machine_setting_id, seq + 1, value + 1, 'typed', null, now(), set_by
         from setting_value where machine_setting_id = $1 order by seq desc limit 1`,
        [settingId],
      );
    }
    const plan = await putBackPlan(test.database, entry!.id);
    expect(plan!.changes).toHaveLength(shop.settingIds.length);
    const put = (typed: Record<string, number>) =>
      putBack(test.database, shop.actor, { id, historyEntryId: entry!.id, typed });
    const id = randomUUID();
    expect(await put({})).toMatchObject({ ok: false, error: { message: containing('Type back') } });
    expect(await put(Object.fromEntries(plan!.changes.map((c) => [c.setting.id, c.toType])))).toEqual({
      ok: true,
      value: id,
    });
    expect(await valuesOf(shop)).toEqual(valuesThen);
    const detail = await readHistoryEntry(test.database, id);
    expect(detail!.line.kind).toBe('put_back');
    expect(detail!.changes).toHaveLength(shop.settingIds.length);
    expect((await readBench(test.database, shop.shopId)).find((s) => s.id === shop.setupId)!.state).toBe(
      'not-confirmed',
    );
  });
});

describe('nothing is lost', () => {
  it('two browsers read one figure: both readings stand in the record, the later counts and tells of the other', async () => {
    const shop = await makeShop(test.database, { error });
    const id = await started(shop);
    const cutSetId = randomUUID();
    await recordCut(test.database, shop.actor, {
      id: cutSetId,
      calibrationId: id,
      ...PLAIN,
      outcome: 'done',
      isFreshLoad: true,
    });
    const read = (readingMm: number) =>
      ({
        id: randomUUID(),
        cutSetId,
        spotNo: 1,
        axis: 'across',
        method: 'wedge',
        state: 'read',
        readingMm,
        startedAtMm: 0,
      }) as const;
    const inputs = [0.1, 0.2, 0.3, 0.4, 0.5].map(read);
    const done = await Promise.all(inputs.map((i) => saveReading(test.database, shop.actor, i)));
    expect(done.filter((d) => d.ok && d.value.earlierMm === null)).toHaveLength(1);
    // a retry after sleep is harmless
    await saveReading(test.database, shop.actor, inputs[2]!);
    const rows = await test.query('select seq from reading where cut_set_id = $1 order by seq', [cutSetId]);
    expect(rows).toEqual([1, 2, 3, 4, 5].map((seq) => ({ seq })));
    expect((await mustLoad(test.database, id)).readings).toHaveLength(1);
  });

  it('a step moved by another browser is not moved again with an old version', async () => {
    const shop = await makeShop(test.database, { error });
    const id = await started(shop);
    const { version } = (await mustLoad(test.database, id)).calibration;
    expect(await goToStep(test.database, id, 'cut', version)).toBe(true);
    expect(await goToStep(test.database, id, 'read', version)).toBe(false);
  });

  it('starting twice with one id makes one calibration', async () => {
    const shop = await makeShop(test.database, { error });
    const input = {
      id: randomUUID(),
      setupId: shop.setupId,
      materialId: shop.materialId,
      page: { name: 'Letter', ...LETTER },
      kind: 'quick',
      toleranceMm: 0.3,
    } as const;
    await startCalibration(test.database, shop.actor, input);
    await startCalibration(test.database, shop.actor, input);
    expect((await mustLoad(test.database, input.id)).sheets).toHaveLength(1);
  });
});
