import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { mustLoad } from '../../../scripts/run-calibration';
import { makeFile } from './files';
import { planCut, type CalibrationRecord } from './record';
import { APART_FROM_LAST } from './sheet-marks';
import { makeShop, startOrder, type TestShop } from './shop.testing';
import { startCalibration } from './start';

let test: TestDatabase;
let shop: TestShop;
beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { family: 'F4', error: NO_ERROR, markSdMm: 0 });
});
afterAll(() => test.close());

async function started(kind: 'quick' | 'full' | 'which_way'): Promise<CalibrationRecord> {
  const input = { ...startOrder(shop, 'quick'), kind, id: randomUUID() };
  const done = await startCalibration(test.database, shop.actor, input);
  if (!done.ok) throw new Error(done.error.message);
  return mustLoad(test.database, input.id);
}

const LOAD = { turnDeg: 0, face: 'ink-up' } as const;

it('two checks of one kind, and a test of which way, print sheets of different codes and words', async () => {
  const records = [await started('quick'), await started('quick'), await started('which_way')];
  expect(new Set(records.map((r) => r.code)).size).toBe(3);
  const words = records.map((r) => r.definition.discs.map((d) => d.codeNo).join(' '));
  expect(new Set(words).size).toBe(3);
  const [a, b] = records;
  expect(a!.calibration.sheetDefinitionId).toBe(b!.calibration.sheetDefinitionId);
});

it('a sheet\u2019s code stands in the names of its files and on the print', async () => {
  const record = await started('quick');
  const made = await makeFile(record, 'print-pdf', { plan: planCut(record, true), load: LOAD });
  if (!made.ok) throw new Error(made.error.message);
  expect(made.value.name).toContain(record.code);
  const svg = await makeFile(record, 'print-svg', { plan: planCut(record, true), load: LOAD });
  expect(svg.ok && svg.value.body.toString()).toContain(record.code);
});

it(`of the last ${String(APART_FROM_LAST)} sheets no two carry the same words`, async () => {
  for (let i = 0; i < APART_FROM_LAST; i++) await started('quick');
  const rows = await test.database.execute<{ shift: number }>(
    sql`select s.word_shift as shift from calibration_sheet s join calibration c on c.id = s.calibration_id
        order by c.started_at desc limit ${APART_FROM_LAST}`,
  );
  expect(new Set(rows.rows.map((r) => r.shift)).size).toBe(APART_FROM_LAST);
});

it('a sheet for an inch person is numbered in thou, also in a test beside', async () => {
  await test.database.execute(sql`update person set unit_system = 'in-fraction' where id = ${shop.actor.personId}`);
  for (const kind of ['quick', 'which_way'] as const) {
    const { definition } = await started(kind);
    expect([...definition.wedges, ...definition.roughs].every((f) => f.scale === 'thou')).toBe(true);
  }
});
