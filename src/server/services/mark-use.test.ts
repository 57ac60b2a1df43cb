import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import type { TurnDeg } from '@/core/geometry/load';
import { seededRng } from '@/core/math/random';
import type { TellableUse } from '@/core/shop/mark-use';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findSetup } from '@/db/queries/shop';
import { mustLoad, readDoneSet } from '../../../scripts/run-calibration';
import { makeFile } from './files';
import { printInstructions, cutInstructions } from './instructions';
import { findReference, keepMarkUse, markTestHint, toldUse } from './mark-use';
import { planCut, type CalibrationRecord } from './record';
import { makeShop, startOrder, type ShopOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';
import { checkPrint, recordCut } from './steps';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const error = { ...NO_ERROR, offsetAcrossMm: 0.2, offsetAlongMm: -0.1, rotationRad: 0.0005, scaleAlong: 0.0008 };
const SET_IN = { marksIn: { acrossMm: 0.8, alongMm: 0.8 } };

/** One sheet printed, cut and read on the stand-ins. */
async function readSheet(
  shop: TestShop,
  kind: 'full' | 'mark_use',
  turnDeg: TurnDeg,
  over = {},
): Promise<CalibrationRecord> {
  const order = { ...startOrder(shop, kind), ...over };
  const started = await startCalibration(test.database, shop.actor, order);
  expect(started).toEqual({ ok: true, value: order.id });
  const calibrationId = order.id;
  const { block } = await mustLoad(test.database, calibrationId);
  await checkPrint(test.database, shop.actor, { id: randomUUID(), calibrationId, lineMm: block.checkLineMm });
  const cut = { id: randomUUID(), calibrationId, turnDeg, face: 'ink-up', outcome: 'done', isFreshLoad: true } as const;
  expect((await recordCut(test.database, shop.actor, cut)).ok).toBe(true);
  await readDoneSet(test.database, shop.actor, calibrationId, { cutSetId: cut.id, rng: seededRng(8) });
  return mustLoad(test.database, calibrationId);
}

async function findOut(order: Omit<ShopOrder, 'error'>, turnDeg: TurnDeg = 0) {
  const shop = await makeShop(test.database, { error, markSdMm: 0.01, ...order });
  await readSheet(shop, 'full', 0);
  const record = await readSheet(shop, 'mark_use', turnDeg, order.route === 'A' ? SET_IN : {});
  const told = await toldUse(test.database, record);
  return { shop, record, finding: told?.finding };
}

const useNow = async (shop: TestShop): Promise<string | undefined> => {
  const rows = await test.query('select mark_use from cutter c join setup s on s.cutter_id = c.id where s.id = $1', [
    shop.setupId,
  ]);
  return (rows as { mark_use: string }[])[0]?.mark_use;
};

describe('what a machine uses its marks for, through the real files', () => {
  it.each(['shift', 'shift_rotation', 'similarity', 'two_scales', 'affine'] as const)(
    'our own marks on a print file: %s',
    async (markUse) => {
      const { shop, record, finding } = await findOut({ truth: { markUse } });
      expect(finding).toMatchObject({ kind: 'told', uses: expect.arrayContaining([markUse]) as TellableUse[] });
      expect(await useNow(shop)).toBe('unknown');
      const input = { id: randomUUID(), calibrationId: record.calibration.id };
      expect((await keepMarkUse(test.database, shop.actor, input)).ok).toBe(true);
      expect((await keepMarkUse(test.database, shop.actor, input)).ok).toBe(true);
      expect(
        await test.query('select 1 from mark_use_test where calibration_id = $1', [input.calibrationId]),
      ).toHaveLength(1);
      expect(await useNow(shop)).not.toBe('unknown');
    },
  );

  it.each([
    ['shift_rotation', 0],
    ['similarity', 90],
    ['two_scales', 180],
  ] as const)('a program that sets its marks further in: %s, turned by %s', async (markUse, turnDeg) => {
    const { finding } = await findOut({ route: 'A', truth: { markUse } }, turnDeg);
    expect(finding).toMatchObject({ kind: 'told', uses: expect.arrayContaining([markUse]) as TellableUse[] });
  });

  it('the print file moves the marks alone; the cut file and the figures stay as they are', async () => {
    const { record } = await findOut({ truth: { markUse: 'affine' } });
    const ordinary = { ...record, markMoves: null };
    const order = { plan: planCut(record, true), load: { turnDeg: 0, face: 'ink-up' } } as const;
    const textOf = async (r: CalibrationRecord, kind: 'print-svg' | 'cut-hpgl') => {
      const made = await makeFile(r, kind, order);
      return made.ok ? made.value.body.toString().split('\n') : [];
    };
    expect(await textOf(record, 'cut-hpgl')).toEqual(await textOf(ordinary, 'cut-hpgl'));
    const [moved, plain] = [await textOf(record, 'print-svg'), await textOf(ordinary, 'print-svg')];
    expect(moved.length).toBe(plain.length);
    expect(moved.filter((line, i) => line !== plain[i])).toHaveLength(2);
  });

  it('the steps say which copy is printed and which file is cut', async () => {
    const { record } = await findOut({ route: 'A', truth: { markUse: 'affine' } });
    expect(printInstructions(record).steps.join(' ')).toMatch(
      /second copy.*0.8 mm further in across and 0.8 mm.*From the copy/,
    );
    expect(cutInstructions(record).steps.join(' ')).toMatch(/first file, [\w-]+, .*not the copy/);
  });
});

describe('what it refuses', () => {
  it.each([
    ['nothing to compare with', {}, {}, /quick check first/],
    ['marks hardly moved', { route: 'A' }, { marksIn: { acrossMm: 0.1, alongMm: 0.1 } }, /at least 0.3 mm/],
    ['targets driven to by hand', { family: 'F8' }, {}, /no marks that could be moved/],
    ['a mat', { route: 'E', family: 'F7' }, {}, /no marks that could be moved/],
  ] as const)('%s', async (_, order, over, words) => {
    const shop = await makeShop(test.database, { error, ...order });
    const refused = await startCalibration(test.database, shop.actor, { ...startOrder(shop, 'mark_use'), ...over });
    expect(refused).toMatchObject({ ok: false, error: { message: expect.stringMatching(words) as string } });
  });

  it('a sheet cut with other settings is nothing to compare with', async () => {
    const shop = await makeShop(test.database, { error });
    await readSheet(shop, 'full', 0);
    expect(await findReference(test.database, shop.setupId)).not.toBeNull();
    await test.query(
      `insert into setting_value (id, machine_setting_id, seq, value, source, set_at, set_by) values (gen_random_uuid(), $1, 2, 27, 'typed', now(), $2)`,
      [shop.settingIds[0], shop.actor.personId],
    );
    expect(await findReference(test.database, shop.setupId)).toBeNull();
  });

  it('before anything is asked for: what can be said without reading old sheets', async () => {
    const hint = async ({ setupId }: TestShop) => {
      const row = await findSetup(test.database, setupId);
      return row ? markTestHint(test.database, row) : 'no setup';
    };
    const shop = await makeShop(test.database, { error });
    expect(await hint(shop)).toMatch(/quick check first/);
    await readSheet(shop, 'full', 0);
    expect(await hint(shop)).toBeNull();
    const byHand = await makeShop(test.database, { error, family: 'F8' });
    expect(await hint(byHand)).toMatch(/no marks that could be moved/);
  });
});
