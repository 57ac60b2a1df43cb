import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findSetup } from '@/db/queries/shop';
import { runCalibration } from '../../../scripts/run-calibration';
import { readBench } from './bench';
import { makeShop, type TestShop } from './shop.testing';
import { saveThing } from './things';

jest.setTimeout(60_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const error = { ...NO_ERROR, offsetAcrossMm: 0.3 };
const containing = (part: string): string => expect.stringContaining(part) as string;

async function inRegister(): Promise<{ shop: TestShop; state: () => Promise<string> }> {
  const shop = await makeShop(test.database, { limitMm: 0.4, error, route: 'A', markSdMm: 0.01 });
  const { setupId, materialId } = shop;
  const order = { setupId, materialId, page: 'A4', kind: 'full', toleranceMm: 0.4, way: 'settings' } as const;
  expect((await runCalibration(test.database, shop.actor, order, seededRng(2))).verdict).toBe('pass');
  const state = async () => (await readBench(test.database, shop.shopId))[0]!.state;
  expect(await state()).toBe('in-register');
  return { shop, state };
}

describe('changing a shared thing marks what it touches', () => {
  it.each(['printer', 'printMode', 'program', 'cutter', 'material', 'setting'] as const)('%s', async (kind) => {
    const { shop, state } = await inRegister();
    const row = (await findSetup(test.database, shop.setupId))!;
    const actor = { ...shop.actor, shopId: shop.shopId };
    const [settingRow] = (await test.query('select * from machine_setting where id = $1', [shop.settingIds[0]])) as [
      Record<string, unknown>,
    ];
    const material = (await test.query('select * from material where id = $1', [shop.materialId]))[0] as {
      id: string;
      name: string;
    };
    const things = {
      printer: [row.printer.id, { ...row.printer, dotPitchMm: 0.05 }],
      printMode: [row.printMode.id, row.printMode],
      program: [row.program!.id, row.program!],
      cutter: [row.cutter.id, { ...row.cutter, name: `${row.cutter.name} two` }],
      material: [
        material.id,
        {
          name: material.name,
          finish: 'gloss',
          form: 'sheet',
          widthMm: null,
          printableWidthMm: null,
          thicknessMm: null,
          colour: 'white',
          transparency: 'opaque',
          carrier: '',
          dryingHours: 0,
          thermalPerK: null,
          thermalSource: '',
          humidityPerPercent: null,
          humiditySource: '',
          cost: '',
        },
      ],
      setting: [
        shop.settingIds[0],
        {
          displayName: settingRow.display_name,
          kind: 'typed',
          actsOn: settingRow.acts_on,
          unit: settingRow.unit,
          unitSize: null,
          step: 0.1,
          minValue: -20,
          maxValue: 40,
          sense: 1,
          entry: 'new_value',
          combine: 'replaces',
          pivot: 'centre',
          scalesOffset: 'no',
          pressThis: '',
          notThat: '',
        },
      ],
    } as const;
    const [id, values] = things[kind];
    expect(await saveThing(test.database, actor, { kind, id: id as string, ownerId: null, values })).toEqual({
      ok: true,
      value: id,
    });
    expect(await state()).toBe('check-first');
  });

  it('saving a printer as it was marks nothing', async () => {
    const { shop, state } = await inRegister();
    const row = (await findSetup(test.database, shop.setupId))!;
    const actor = { ...shop.actor, shopId: shop.shopId };
    const order = { kind: 'printer', id: row.printer.id, ownerId: null, values: row.printer } as const;
    expect((await saveThing(test.database, actor, order)).ok).toBe(true);
    expect(await state()).toBe('in-register');
  });

  it('a person\u2019s own name and units touch nothing', async () => {
    const { shop, state } = await inRegister();
    const values = { name: 'Pell the second', unitSystem: 'in-fraction', timeZone: 'Europe/Oslo' };
    const actor = { ...shop.actor, shopId: shop.shopId };
    expect(
      (await saveThing(test.database, actor, { kind: 'person', id: shop.actor.personId, ownerId: null, values })).ok,
    ).toBe(true);
    expect(await state()).toBe('in-register');
  });
});

describe('what is refused', () => {
  const scheme = {
    name: 'Corners',
    kind: 'four_corners',
    sizeMm: 10,
    insetMm: 15,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: '',
    readingOrder: '',
  };
  it('another shop\u2019s thing, a name taken, a field that is wrong: each with the reason', async () => {
    const mine = await makeShop(test.database, { limitMm: 0.4, error });
    const other = await makeShop(test.database, { limitMm: 0.4, error });
    const actor = { ...mine.actor, shopId: mine.shopId };
    const row = (await findSetup(test.database, other.setupId))!;
    const save = (kind: 'cutter' | 'markScheme' | 'printMode' | 'person', id: string, values: object) =>
      saveThing(test.database, actor, { kind, id, ownerId: row.printer.id, values: values as Record<string, unknown> });
    expect(await save('cutter', row.cutter.id, row.cutter)).toMatchObject({
      ok: false,
      error: { message: containing('not in your shop') },
    });
    expect(await save('printMode', randomUUID(), row.printMode)).toMatchObject({ ok: false });
    const id = randomUUID();
    expect((await save('markScheme', id, scheme)).ok).toBe(true);
    expect(await save('markScheme', randomUUID(), scheme)).toMatchObject({
      ok: false,
      error: { message: containing('of that name') },
    });
    expect(await save('markScheme', id, { ...scheme, insetMm: -1 })).toMatchObject({
      ok: false,
      error: { message: containing('inset mm: expected zero or more') },
    });
    expect(
      await save('person', mine.actor.personId, { name: 'x', unitSystem: 'mm', timeZone: 'Nowhere/At-all' }),
    ).toMatchObject({ ok: false, error: { message: containing('time zone') } });
  });
  it('a program told to trace from now on takes its setups to the picture route', async () => {
    const shop = await makeShop(test.database, { limitMm: 0.4, error, route: 'A' });
    const row = (await findSetup(test.database, shop.setupId))!;
    const values = { ...row.program!, knowsCutBy: 'tracing' };
    const actor = { ...shop.actor, shopId: shop.shopId };
    await saveThing(test.database, actor, { kind: 'program', id: row.program!.id, ownerId: null, values });
    expect((await findSetup(test.database, shop.setupId))!.setup.route).toBe('B');
  });
});
