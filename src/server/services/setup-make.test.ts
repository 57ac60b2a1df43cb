import { randomUUID } from 'node:crypto';
import type { NewSetupInput } from '@/contracts/shop';
import { NewSetup } from '@/contracts/shop';
import { SETTING_KITS } from '@/core/shop/setting-kits';
import { FAMILIES, MARK_KINDS } from '@/core/shop/words';
import { sheetSize } from '@/core/units/sheet-size';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findPersons, findSetup, findSetups } from '@/db/queries/shop';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { readBench } from './bench';
import { makeSetup } from './setup-make';
import { startOwnShop } from './shop-make';
import { startCalibration } from './start';

let test: TestDatabase;
let actor: { personId: string; shopId: string };
beforeAll(async () => {
  test = await testDatabase();
  const shopId = await startOwnShop(test.database, {
    id: randomUUID(),
    name: 'Kingfisher signs',
    personName: 'Me',
    unitSystem: 'mm',
    timeZone: 'UTC',
  });
  const [me] = await findPersons(test.database, shopId);
  actor = { personId: me!.id, shopId };
});
afterAll(async () => {
  await test.close();
});

const plain = (over: Partial<NewSetupInput> = {}): NewSetupInput => ({
  id: randomUUID(),
  family: 'F1',
  name: `Machine ${randomUUID().slice(0, 6)}`,
  printerName: 'My printer',
  cutterName: 'My cutter',
  printerId: null,
  cutterId: null,
  programId: null,
  program: {
    name: 'My program',
    opens: ['svg'],
    marksPlacedBy: 'program',
    knowsCutBy: 'colour',
    canCutAgain: true,
    importScale: '96',
    spotInkName: null,
  },
  fileFormat: 'none',
  page: { name: 'A4', ...sheetSize('A4') },
  markKind: 'four_corners',
  kitId: 'two-offsets',
  isSimulated: false,
  ...over,
});

it('the first taps make a printer + cutter that a check can be started on', async () => {
  const input = plain();
  expect(await makeSetup(test.database, actor, input)).toEqual({ ok: true, value: input.id });
  // a retry after sleep is harmless
  expect(await makeSetup(test.database, actor, input)).toEqual({ ok: true, value: input.id });
  const row = (await findSetup(test.database, input.id))!;
  expect([row.setup.route, row.setup.family, row.printMode.page]).toEqual(['A', 'F1', 'A4']);
  const settings = await findSettings(test.database, ownersOf(row), { x: 0, y: 0 });
  expect(settings.map((s) => s.sense)).toEqual([null, null]);
  const { rows } = { rows: await test.query('select id from material where shop_id = $1', [actor.shopId]) };
  const started = await startCalibration(test.database, actor, {
    id: randomUUID(),
    setupId: input.id,
    materialId: (rows[0] as { id: string }).id,
    page: input.page,
    kind: 'quick',
    toleranceMm: 0.3,
  });
  expect(started.ok).toBe(true);
});

it('a second one shares what it is told to share, and new machines get names of their own', async () => {
  const first = plain();
  await makeSetup(test.database, actor, first);
  const own = (await findSetup(test.database, first.id))!;
  const second = plain({
    printerId: own.printer.id,
    cutterId: own.cutter.id,
    programId: own.program!.id,
    program: null,
  });
  await makeSetup(test.database, actor, second);
  const row = (await findSetup(test.database, second.id))!;
  expect([row.printer.id, row.cutter.id, row.program!.id]).toEqual([own.printer.id, own.cutter.id, own.program!.id]);
  expect(row.setup.route).toBe('A');
  const names = (await findSetups(test.database, actor.shopId)).map((s) => s.cutter.name);
  expect(new Set(names).size).toBeGreaterThan(1);
});

it('every family, kit and kind of marks makes a setup, and none of it shows in another shop', async () => {
  const shopId = await startOwnShop(test.database, {
    id: randomUUID(),
    name: 'Kingfisher signs',
    personName: 'Me',
    unitSystem: 'in-decimal',
    timeZone: 'UTC',
  });
  const [me] = await findPersons(test.database, shopId);
  const other = { personId: me!.id, shopId };
  for (const family of FAMILIES) expect((await makeSetup(test.database, other, plain({ family }))).ok).toBe(true);
  for (const { id } of SETTING_KITS)
    expect((await makeSetup(test.database, other, plain({ kitId: id }))).ok).toBe(true);
  for (const markKind of MARK_KINDS) expect((await makeSetup(test.database, other, plain({ markKind }))).ok).toBe(true);
  const wanted = FAMILIES.length + SETTING_KITS.length + MARK_KINDS.length;
  expect(await readBench(test.database, shopId)).toHaveLength(wanted);
  const mine = await readBench(test.database, actor.shopId);
  expect(mine.some((s) => s.state !== 'not-confirmed')).toBe(false);
  expect(mine.length).toBeLessThan(wanted);
});

it('says what is wrong: a page too small, settings in a program that is not there, a spot ink without a name', async () => {
  const small = await makeSetup(test.database, actor, plain({ page: { name: 'card', widthMm: 100, lengthMm: 140 } }));
  expect(small).toMatchObject({ ok: false, error: { message: expect.stringContaining('at least') as string } });
  const none = await makeSetup(test.database, actor, plain({ kitId: 'in-program', program: null }));
  expect(none).toMatchObject({ ok: false, error: { message: expect.stringContaining('need a program') as string } });
  const ink = NewSetup.safeParse(plain({ program: { ...plain().program!, knowsCutBy: 'spot_ink' } }));
  expect(ink.success).toBe(false);
});
