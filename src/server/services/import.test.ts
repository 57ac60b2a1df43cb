import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { findSetup } from '@/db/queries/shop';
import type { ImportKind } from '@/contracts/import';
import { keepDailyCheck } from './daily-check';
import { importTable, takeBackImport } from './import';
import { listFile } from './list-files';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
let shop: TestShop;
let names: { readonly setup: string; readonly cutter: string; readonly material: string };

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(test.database, { error: NO_ERROR });
  const row = await findSetup(test.database, shop.setupId);
  const tag = shop.setupId.slice(0, 8);
  names = { setup: row?.setup.name ?? '', cutter: row?.cutter.name ?? '', material: `film ${tag}` };
});
afterAll(async () => {
  await test.close();
});

const take = (what: ImportKind, text: string, isKept = true, of = shop) =>
  importTable(
    test.database,
    { personId: of.actor.personId, shopId: of.shopId, system: 'mm' },
    { what, text, isDayFirst: true, isKept },
  );
const count = async (table: string): Promise<number> => (await test.query(`select 1 from ${table}`)).length;

it('borders from another tool: looked at first, kept whole, told when they come twice, taken back', async () => {
  const text = `Date;Machine;Stock;left border (cm);right border (cm);top border (cm);bottom border (cm);colour of the sky
02.03.2026;${names.setup.toUpperCase()};${names.material};0,31;0,29;0,3;0,3;grey
03.03.2026;${names.setup};${names.material};0,32;0,28;0,3;0,3;blue`;
  const look = await take('daily-checks', text, false);
  expect(look).toMatchObject({ problems: [], lines: 2, kept: [] });
  expect(look.heads.at(-1)).toEqual({ title: 'colour of the sky', key: null });
  expect(await count('daily_check')).toBe(0);
  const kept = await take('daily-checks', text);
  expect(kept.kept).toHaveLength(2);
  const rows = await test.query('select across_mm, along_mm, at from daily_check order by at');
  expect(rows).toMatchObject([{ along_mm: 0 }, { along_mm: 0 }]);
  expect((rows as { across_mm: number }[]).map((r) => Math.abs(r.across_mm))).toEqual([
    expect.closeTo(0.1, 9),
    expect.closeTo(0.2, 9),
  ]);
  const again = await take('daily-checks', text);
  expect(again.kept).toEqual([]);
  expect(again.problems.map((p) => p.words)).toEqual([
    'This line was taken in before.',
    'This line was taken in before.',
  ]);
  expect(await takeBackImport(test.database, shop.actor, kept.kept)).toBe(2);
  expect(await count('daily_check_taken_back')).toBe(2);
  // What was taken back may come in once more, and only once; and so again.
  const afresh = await take('daily-checks', text);
  expect(afresh).toMatchObject({ problems: [], lines: 2 });
  expect(afresh.kept.filter((id) => kept.kept.includes(id))).toEqual([]);
  expect((await take('daily-checks', text)).problems).toHaveLength(2);
  expect(await takeBackImport(test.database, shop.actor, afresh.kept)).toBe(2);
  expect((await take('daily-checks', text)).kept).toHaveLength(2);
});

it('how it was measured comes in as well; a check by two discs has no borders to come in', async () => {
  const head = `at;printer + cutter;material;method;left mm;right mm;top mm;bottom mm`;
  const line = (day: number, rest: string): string =>
    `0${String(day)}.01.2026;${names.setup};${names.material};${rest}`;
  const photo = await take('daily-checks', [head, line(4, 'photo;3,1;2,9;3;3')].join('\n'));
  expect(photo).toMatchObject({ problems: [], lines: 1 });
  expect(await test.query('select method from daily_check where id = $1', [photo.kept[0]])).toEqual([
    { method: 'photo' },
  ]);
  const discs = await take('daily-checks', [head, line(5, 'discs;;;;')].join('\n'));
  expect(discs.kept).toEqual([]);
  expect(discs.problems.map((p) => p.field)).toContain('method');
});

it('nothing is kept of a table with one line that cannot stand', async () => {
  const before = [await count('daily_check'), await count('material'), await count('test_cut')];
  const head = 'at,printer + cutter,material,left mm,right mm,top mm,bottom mm';
  const good = `2026-03-04,${names.setup},${names.material},3,3,3,3`;
  const told = async (line: string): Promise<string> => {
    const done = await take('daily-checks', `${head}\n${good}\n${line}`);
    expect(done.kept).toEqual([]);
    return done.problems.map((p) => `${String(p.line)} ${p.field}: ${p.words}`).join(' ');
  };
  expect(await told(good)).toBe('3 line: The same stands in line 2.');
  expect(await told(`2026-03-05,nobody,${names.material},3,3,3,3`)).toMatch(/^3 printer \+ cutter: No printer/);
  expect(await told(`2026-03-05,${names.setup},glass,3,3,3,3`)).toMatch(
    /^3 material: No material here is called "glass"/,
  );
  expect(await told(`2999-03-05,${names.setup},${names.material},3,3,3,3`)).toMatch(/^3 at: That day has not come/);
  expect(await told(`2026-03-05,${names.setup},${names.material},3,-3,3,3`)).toMatch(
    /^3 rightMm: Expected zero or more/,
  );
  expect(await told(`2026-03-05,${names.setup},${names.material},3,,3,3`)).toMatch(/^3 right mm: Nothing stands there/);
  const materials = await take('materials', 'name,finish,width mm,printable width mm\nA,matt,100,90\nB,matt,100,900');
  expect(materials.problems).toMatchObject([{ line: 3, field: 'printableWidthMm' }]);
  expect((await take('materials', `name,finish\n${names.material},matt`)).problems[0]?.words).toMatch(/here already/);
  const cuts = await take('test-cuts', `at,cutter,material,outcome\n2026-03-04,${names.cutter},${names.material},fine`);
  expect(cuts.problems).toMatchObject([{ line: 2, field: 'outcome' }]);
  expect([await count('daily_check'), await count('material'), await count('test_cut')]).toEqual(before);
});

it('what is given out here is taken in by another shop (property)', async () => {
  const border = fc.integer({ min: 0, max: 50_000 }).map((um) => um / 1000);
  const note = fc.string({ maxLength: 30 }).map((s) => `n${s.replaceAll('\0', '').trim()}`);
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(border, border, note), { minLength: 1, maxLength: 6 }), async (checks) => {
      const [from, to] = [
        await makeShop(test.database, { error: NO_ERROR }),
        await makeShop(test.database, { error: NO_ERROR }),
      ];
      for (const [leftMm, topMm, words] of checks)
        await keepDailyCheck(test.database, from.actor, {
          ...{ id: randomUUID(), setupId: from.setupId, materialId: from.materialId, side: 'outside', note: words },
          ...{ borders: { leftMm, rightMm: 3, topMm, bottomMm: 3 }, borderSdMm: 0.07 },
        });
      const { body } = await listFile(test.database, from.shopId, { what: 'daily-checks', format: 'csv' });
      const [fromTag, toTag] = [from.setupId.slice(0, 8), to.setupId.slice(0, 8)];
      // The same names in the other shop; one line for each second, as the file tells whole seconds.
      const done = await take('daily-checks', String(body).replaceAll(fromTag, toTag), true, to);
      const same = done.problems.filter((p) => !p.words.startsWith('The same stands'));
      expect(same).toEqual([]);
      if (done.problems.length > 0) return;
      const told = (of: TestShop) =>
        test.query(
          'select left_mm, top_mm, across_mm, along_mm, note from daily_check where setup_id = $1 order by note, left_mm, top_mm',
          [of.setupId],
        );
      expect(await told(to)).toEqual(await told(from));
    }),
    { numRuns: 12 },
  );
});
