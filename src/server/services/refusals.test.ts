import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { mustLoad, runCalibration } from '../../../scripts/run-calibration';
import { analyse } from './analysis';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

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

describe('the database itself refuses', () => {
  const refusal = (text: string, values: unknown[] = []) =>
    test.query(text, values).then(
      () => 'taken',
      (e: unknown) => (e as { code?: string }).code,
    );
  let shop: TestShop;
  let calibrationId: string;
  beforeAll(async () => {
    shop = await makeShop(test.database, { error });
    ({ calibrationId } = await runCalibration(test.database, shop.actor, order(shop), seededRng(1)));
  });
  it.each([
    'reading',
    'fit',
    'correction',
    'confirmation',
    'history_entry',
    'cut_set',
    'setting_value',
    'sheet_definition',
  ])('a change of %s', async (table) => {
    expect(await refusal(`update ${table} set id = id`)).toBe('RP001');
    expect(await refusal(`delete from ${table}`)).toBe('RP001');
    expect(await refusal(`truncate ${table} cascade`)).toBe('RP001');
  });
  it('a number that is none', async () => {
    expect(await refusal(`update setup set tolerance_mm = 'NaN'`)).toBe('23514');
    expect(await refusal(`update setup set tolerance_mm = 'Infinity'`)).toBe('23514');
  });
  it('a reading without a value, or one that supersedes another figure', async () => {
    const [row] = (await test.query(
      'select r.* from reading r join cut_set c on c.id = r.cut_set_id join calibration_sheet s on s.id = c.calibration_sheet_id where s.calibration_id = $1 limit 1',
      [calibrationId],
    )) as [Record<string, unknown>];
    const insert = (spot: number, state: string, mm: number | null, supersedes: unknown) =>
      refusal(
        `insert into reading (id, cut_set_id, spot_no, axis, method, repeat_no, seq, supersedes_id, state, reading_mm, displacement_mm, standard_uncertainty_mm, raw, read_at, read_by)
         values ($1,$2,$3,$4,'wedge',1,9,$5,$6,$7,$7,0.05,'{}',now(),$8)`,
        [randomUUID(), row.cut_set_id, spot, row.axis, supersedes, state, mm, shop.actor.personId],
      );
    // Its check is saved and takes nothing more; what the table itself refuses is seen without that guard.
    expect(await insert(Number(row.spot_no), 'read', null, null)).toBe('23001');
    await test.query('alter table reading disable trigger of_open_check');
    expect(await insert(Number(row.spot_no), 'read', null, null)).toBe('23514');
    expect(await insert(Number(row.spot_no) + 1, 'read', 0.1, row.id)).toBe('23503');
    await test.query('alter table reading enable trigger of_open_check');
  });
  it('a saved entry whose confirmation did not pass', async () => {
    const analysed = analyse(await mustLoad(test.database, calibrationId));
    expect(analysed.ok).toBe(true);
    const failing = await makeShop(test.database, { error: { ...error, offsetAcrossMm: 0.8 } });
    const run = await runCalibration(test.database, failing.actor, { ...order(failing), way: 'none' }, seededRng(1));
    const record = await mustLoad(test.database, run.calibrationId);
    expect(
      await refusal(
        `insert into history_entry (id, setup_id, material_id, kind, confirmation_id, note, at, by) values ($1,$2,$3,'saved',$4,'',now(),$5)`,
        [randomUUID(), failing.setupId, failing.materialId, record.confirmations[0]!.id, failing.actor.personId],
      ),
    ).toBe('RP002');
  });
  it('a pass whose bound is beyond the tolerance', async () => {
    expect(
      await refusal(
        `insert into confirmation select gen_random_uuid(), correction_id, (select id from fit where id not in (select fit_id from confirmation) limit 1), lower_mm, 0.9, worst_mm, next_job_mm, 0.3, confidence, 'pass', at, by from confirmation limit 1`,
      ),
    ).toBe('23514');
  });
});
