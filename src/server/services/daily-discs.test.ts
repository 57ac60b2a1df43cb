import { randomUUID } from 'node:crypto';
import sharp, { type Sharp } from 'sharp';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { measurePiece } from '@/core/piece/measure-piece';
import { readBorders } from '@/core/reading/borders';
import { meanDisc, readDiscs, type DiscShift } from '@/core/reading/disc-check';
import type { GrayImage } from '@/core/scan/gray';
import { discShifts, measureTemplateDiscs, templateFigures } from '@/core/scan/measure-template-discs';
import { TEMPLATE_DISC_NOS } from '@/core/target/template-discs';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { keepDailyCheck, keepDiscCheck } from './daily-check';
import { dailyPicture, STAND_IN_PIECE } from './daily-stand-in';
import { readDaily } from './daily-view';
import { makeShop, type TestShop } from './shop.testing';
import { templateDiscFile } from './template-discs';

jest.setTimeout(60_000);

let test: TestDatabase;
let shop: TestShop;
const TRUE_MM = { x: 0.42, y: -0.27 };

beforeAll(async () => {
  test = await testDatabase();
  const error = { ...NO_ERROR, offsetAcrossMm: TRUE_MM.x, offsetAlongMm: TRUE_MM.y };
  shop = await makeShop(test.database, { error, markSdMm: 0 });
});
afterAll(() => test.close());

async function grayOf(picture: Sharp): Promise<GrayImage> {
  const { data, info } = await picture
    .flatten({ background: '#ebebeb' })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

function discsOn(image: GrayImage): readonly DiscShift[] {
  const work = measureTemplateDiscs(image, templateFigures);
  for (;;) {
    const step = work.next();
    if (!step.done) continue;
    if (!step.value.ok) throw new Error(step.value.error.kind);
    return discShifts(step.value.value);
  }
}

async function picture(what: 'piece' | 'discs'): Promise<GrayImage> {
  const made = await dailyPicture(test.database, shop.setupId, what);
  if (!made.ok) throw new Error(made.error.message);
  return grayOf(sharp(made.value.body as Buffer));
}

const rows = () => test.query('select * from daily_check order by at') as Promise<Record<string, unknown>[]>;

it('one photo of a piece: what the machine makes is what is kept', async () => {
  const told = measurePiece(await picture('piece'), { shape: 'rectangle', ...STAND_IN_PIECE });
  if (!told.ok) throw new Error(told.error.kind);
  const { borders, borderSdMm } = told.value;
  const read = readBorders(borders, { side: 'outside', nominalMm: null, borderSdMm, toleranceMm: 0.3 });
  expect(read.ok && read.value.shift.x).toBeCloseTo(TRUE_MM.x, 1);
  expect(read.ok && read.value.shift.y).toBeCloseTo(TRUE_MM.y, 1);
  const { setupId, materialId, actor } = shop;
  const input = { id: randomUUID(), setupId, materialId, side: 'outside' as const, borders, borderSdMm, note: '' };
  const kept = await keepDailyCheck(test.database, actor, { ...input, method: 'photo' });
  expect(kept.ok).toBe(true);
  expect((await rows()).at(-1)).toMatchObject({ method: 'photo', side: 'outside', left_mm: borders.leftMm });
});

it('two small discs: measured, kept with both of them, once however often it is sent', async () => {
  const found = discsOn(await picture('discs'));
  const [one, other] = TEMPLATE_DISC_NOS.map((no) =>
    meanDisc(
      no,
      found.filter((s) => s.discNo === no),
    ),
  );
  if (!one || !other) throw new Error('both are seen');
  const { shift, apartMm } = readDiscs(one, other);
  expect(Math.hypot(shift.x - TRUE_MM.x, shift.y - TRUE_MM.y)).toBeLessThan(0.01);
  expect(apartMm).toBeLessThan(0.01);
  const { setupId, materialId, actor } = shop;
  const asked = { id: randomUUID(), setupId, materialId, note: '' };
  const input = { ...asked, one: { ...one, discNo: 1 as const }, other: { ...other, discNo: 2 as const } };
  for (let sent = 0; sent < 2; sent++)
    expect(await keepDiscCheck(test.database, actor, input)).toMatchObject({ ok: true });
  const own = (await rows()).filter((r) => r.method === 'discs');
  expect(own).toHaveLength(1);
  expect(own[0]).toMatchObject({ id: input.id, side: null, left_mm: null, border_sd_mm: null, across_mm: shift.x });
  const discs = await test.query('select disc_no, across_mm from daily_disc order by disc_no');
  expect(discs).toEqual([
    { disc_no: 1, across_mm: one.acrossMm },
    { disc_no: 2, across_mm: other.acrossMm },
  ]);
  const view = await readDaily(test.database, setupId, materialId);
  expect(view?.checks.map((p) => p.method)).toEqual(['photo', 'discs']);
});

it('borders without a photo\u2019s four, or discs with borders, are refused by the database itself', async () => {
  const insert = (method: string, side: string) =>
    test.query(
      `insert into daily_check (id, setup_id, material_id, method, side, across_mm, along_mm, standard_uncertainty_mm, note, at, by)
       values (gen_random_uuid(), '${shop.setupId}', '${shop.materialId}', '${method}', ${side}, 0, 0, 0.05, '', now(), '${shop.actor.personId}')`,
    );
  await expect(insert('photo', `'outside'`)).rejects.toThrow(/daily_check_method/);
  await expect(insert('discs', `'outside'`)).rejects.toThrow(/daily_check_method/);
  await expect(test.query('delete from daily_disc')).rejects.toThrow();
});

it('a material that is not there is refused, and so is a picture of a setup that is not', async () => {
  const one = { discNo: 1 as const, acrossMm: 0, alongMm: 0, standardUncertaintyMm: 0.01 };
  const input = { id: randomUUID(), setupId: shop.setupId, materialId: randomUUID(), note: '' };
  expect(await keepDiscCheck(test.database, shop.actor, { ...input, one, other: { ...one, discNo: 2 } })).toMatchObject(
    {
      ok: false,
    },
  );
  expect(await dailyPicture(test.database, randomUUID(), 'piece')).toMatchObject({ ok: false });
});

it.each([
  ['svg', 1],
  ['svg', 2],
  ['mm', 1],
] as const)('the file of a disc (%s, %i), drawn by another program, is read as that disc', async (type, discNo) => {
  const file = await templateDiscFile(test.database, shop.setupId, discNo, type);
  if (!file.ok) throw new Error(file.error.message);
  // At 600 dots to the inch of its own mm; its hole is cut 0.5 mm to the right and 0.3 mm down.
  const svg = String(file.value.body);
  expect(svg).toContain('width="14mm" height="14mm"');
  const px = Math.round((14 / 25.4) * 600);
  const perMm = px / 14;
  const hole = `<svg xmlns="http://www.w3.org/2000/svg" width="${px}" height="${px}"><circle cx="${px / 2 + 0.5 * perMm}" cy="${px / 2 + 0.3 * perMm}" r="${2 * perMm}" fill="#d8d8d8"/></svg>`;
  const drawn = await sharp(Buffer.from(svg.replace(/<g id="cut-1">[\s\S]*<\/g>/, '')), { density: 600 })
    .resize(px, px)
    .flatten({ background: '#ebebeb' })
    .composite([{ input: Buffer.from(hole) }])
    .png()
    .toBuffer();
  const page = sharp(drawn).extend({ top: 200, bottom: 200, left: 200, right: 200, background: '#ebebeb' });
  const [found, ...more] = discsOn(await grayOf(sharp(await page.png().toBuffer())));
  expect(more).toEqual([]);
  expect(found?.discNo).toBe(discNo);
  expect(found?.acrossMm).toBeCloseTo(0.5, 1);
  expect(Math.abs((found?.acrossMm ?? 0) - 0.5)).toBeLessThan(0.02);
  expect(Math.abs((found?.alongMm ?? 0) + 0.3)).toBeLessThan(0.02);
});

it('as a PDF the cut stands in the spot ink that the print queue knows', async () => {
  const file = await templateDiscFile(test.database, shop.setupId, 1, 'pdf');
  expect(file.ok && String(file.value.body)).toContain('/Separation /Cut');
});
