import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { computeRoll } from '@/compute/roll';
import { ComputeRoll } from '@/contracts/compute';
import type { SaveStationInput, StartRollInput } from '@/contracts/rolls';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { stationCuts } from '@/core/target/roll-strip-drawing';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { stationReading } from '@/db/schema/roll';
import { readHpgl } from '@/formats/hpgl/hpgl';
import { driftOf, partRows, stretchWords } from './roll-drift-view';
import { makeRollFile, ROLL_FILE_KINDS } from './roll-files';
import { keyView } from './roll-key-view';
import { adviceOf, loadRoll, readRolls, type RollRecord } from './roll-read';
import { readByStandIn } from './roll-stand-in';
import { sectionsQuestion, usualWork } from './roll-sections-view';
import { adviceWords, headlineOf } from './roll-words';
import { sectionsHeadline, typedWords } from './roll-section-words';
import { closeRoll, keepRuled, keepSectionWork, saveStations, startRoll, stripOf } from './rolls';
import { tellShownValue } from './shown-value';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(120_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(async () => {
  await test.close();
});

const order = (shop: TestShop, over: Partial<StartRollInput> = {}): StartRollInput => ({
  ...{ id: randomUUID(), setupId: shop.setupId, materialId: shop.materialId, kind: 'strip', form: 'strip' },
  ...{ widthMm: 200, spacingMm: 250, stations: 20, everyNth: 1, sides: ['left', 'right'], toleranceMm: 0.3 },
  ...over,
});

async function begun(shop: TestShop, over: Partial<StartRollInput> = {}): Promise<string> {
  const done = await startRoll(test.database, shop.actor, order(shop, over));
  if (!done.ok) throw new Error(done.error.message);
  return done.value;
}

async function mustRead(rollId: string): Promise<RollRecord> {
  const record = await loadRoll(test.database, rollId);
  if (!record) throw new Error('the roll is there');
  return record;
}

const reading = (rollId: string, over: Partial<SaveStationInput> = {}): SaveStationInput => ({
  ...{ id: randomUUID(), rollId, stationNo: 1, side: 'left', axis: 'along', method: 'eye', state: 'read' },
  readingMm: 0.25,
  ...over,
});

describe('a roll strip', () => {
  it('is begun once however often it is sent, listed with its setup, and refused where its figures do not fit', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const input = order(shop);
    expect(await startRoll(test.database, shop.actor, input)).toEqual({ ok: true, value: input.id });
    expect(await startRoll(test.database, shop.actor, input)).toEqual({ ok: true, value: input.id });
    expect((await readRolls(test.database, shop.setupId))?.rolls.map((r) => r.id)).toEqual([input.id]);
    const narrow = await startRoll(test.database, shop.actor, order(shop, { widthMm: 70 }));
    expect(!narrow.ok && narrow.error.message).toContain('70 mm is too narrow');
    expect(await readRolls(test.database, randomUUID())).toBeNull();
  });

  it('keeps every reading: a later look supersedes the first, a retry changes nothing, the ink\u2019s own shift is taken out', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const rollId = await begun(shop);
    const first = reading(rollId);
    expect(await saveStations(test.database, shop.actor, [first])).toEqual({
      ok: true,
      value: [{ id: first.id, earlierMm: null }],
    });
    await saveStations(test.database, shop.actor, [first]);
    const again = await saveStations(test.database, shop.actor, [reading(rollId, { readingMm: 0.3 })]);
    expect(again).toMatchObject({ ok: true, value: [{ earlierMm: 0.25 }] });
    const record = await mustRead(rollId);
    expect(record.values).toHaveLength(1);
    // Station 1 of a numbered strip has its ink displaced by -4/9 of 0.05 mm; 22 mm before its middle.
    expect(record.values[0]?.valueMm).toBeCloseTo(0.3 - (4 / 9) * 0.05, 9);
    expect(record.values[0]?.atMm).toBe(103);
    const rows = await test.database.select().from(stationReading).where(eq(stationReading.rollRunId, rollId));
    expect(rows).toHaveLength(2);
    await expect(
      test.database.update(stationReading).set({ readingMm: 0 }).where(eq(stationReading.id, first.id)),
    ).rejects.toThrow();
  });

  it('refuses by name what cannot be: beyond the figure, the strip or its sides', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const rollId = await begun(shop);
    const refused = async (over: Partial<SaveStationInput>): Promise<string> => {
      const done = await saveStations(test.database, shop.actor, [reading(rollId), reading(rollId, over)]);
      return done.ok ? 'kept' : done.error.message;
    };
    expect(await refused({ readingMm: 1.4 })).toContain('1.40 mm is beyond the figure');
    expect(await refused({ stationNo: 21 })).toContain('there are 20 only');
    expect(await refused({ side: 'centre' })).toContain('nothing was printed there');
    expect(await refused({ rollId: randomUUID() })).toContain('more than one roll');
    // All or nothing.
    expect((await mustRead(rollId)).values).toHaveLength(0);
    // A reading that waited in a browser is not lost because somebody closed the roll meanwhile; the stand-in stops.
    await closeRoll(test.database, rollId, true);
    expect(await refused({ stationNo: 2 })).toBe('kept');
    expect(await readByStandIn(test.database, shop.actor, rollId)).toMatchObject({ ok: false });
    await closeRoll(test.database, rollId, false);
    expect(await readByStandIn(test.database, shop.actor, rollId)).toEqual({ ok: true, value: 78 });
  });

  it('what the stand-in hides is found, keyed in, and gone from the next strip', async () => {
    const shop = await makeShop(test.database, { error: { ...NO_ERROR, scaleAlong: 0.0012, rotationRad: 0.0002 } });
    const rollId = await begun(shop);
    expect(await readByStandIn(test.database, shop.actor, rollId)).toEqual({ ok: true, value: 80 });
    expect(await readByStandIn(test.database, shop.actor, rollId)).toEqual({ ok: true, value: 0 });
    const record = await mustRead(rollId);
    const told = driftOf(record);
    if (!told.ok) throw new Error(told.error.kind);
    // 1.2 mm a metre of the sheet's scale, and 0.25 to 0.45 of the roll's own.
    expect(told.value.along.perMetreMm.value).toBeGreaterThan(1.35);
    expect(told.value.along.perMetreMm.value).toBeLessThan(1.75);
    expect(headlineOf(record, told.value, 'mm')).toMatch(/^May be out by \d.* along at 4\.9 m$/);
    const rows = partRows(told.value, [0.1, 0.12, 0.11, 0.13], 'mm');
    expect(rows.map((r) => r.name)).toContain('Bow across');
    // SD of four shifts by hand: 0.0129; every part has its interval and what it is worth at the far end.
    expect(rows.find((r) => r.name === 'Rewind shift')).toMatchObject({ value: '0.013 mm' });
    expect(rows.filter((r) => r.interval === '' || r.farEnd === '')).toEqual([]);
    expect(partRows(told.value, [], 'mm').find((r) => r.name === 'Rewind shift')).toMatchObject({ value: 'not told' });
    const view = await keyView(test.database, record, told.value, 'mm');
    const [setting] = view.settings;
    if (!setting) throw new Error('there is a setting for the length');
    expect(view.isNone).toBe(false);
    const { id: settingId, afterValue: value } = setting;
    expect((await tellShownValue(test.database, shop.actor, { id: randomUUID(), settingId, value })).ok).toBe(true);

    const next = await begun(shop);
    await readByStandIn(test.database, shop.actor, next);
    const after = driftOf(await mustRead(next));
    if (!after.ok) throw new Error(after.error.kind);
    expect(Math.abs(after.value.along.perMetreMm.value)).toBeLessThan(0.12);
    const seen = await keyView(test.database, record, told.value, 'mm');
    expect(seen.settings[0]?.now).toBe(setting.after);
  });

  it('a ruled length tells the print from the cutter; one that was read elsewhere is refused', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const rollId = await begun(shop);
    await readByStandIn(test.database, shop.actor, rollId);
    const refused = await keepRuled(test.database, { rollId, nominalMm: 1000, measuredMm: 900, laminatedMm: null });
    expect(!refused.ok && refused.error.message).toContain('far from 1000');
    await keepRuled(test.database, { rollId, nominalMm: 1000, measuredMm: 998, laminatedMm: null });
    const record = await mustRead(rollId);
    const told = driftOf(record);
    expect(told.ok && stretchWords(record, told.value)).toMatch(
      /print is 2\.00 mm\/m too short.*cutter by itself is 1\.\d\d/,
    );
    // Laminated before the cut: 0.5 mm of the metre are the film's, and the cutter stands against the laminated print.
    const torn = await keepRuled(test.database, { rollId, nominalMm: 1000, measuredMm: 998, laminatedMm: 1050 });
    expect(!torn.ok && torn.error.message).toContain('1050 mm is far from 1000');
    await keepRuled(test.database, { rollId, nominalMm: 1000, measuredMm: 998, laminatedMm: 998.5 });
    const laminated = await mustRead(rollId);
    const feed = told.ok ? told.value.along.perMetreMm.value : NaN;
    const words = told.ok ? stretchWords(laminated, told.value) : '';
    expect(words).toMatch(/lamination stretched it by 0\.50 mm\/m, 2\.\d\d mm at the far end/);
    expect(words).toContain(`cutter by itself is ${Math.abs(feed - 1.5).toFixed(2)} mm/m`);
  });

  it('its files: a page a station, cut lines where the figures are, a page too long for PDF refused', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const record = await mustRead(await begun(shop));
    for (const kind of ROLL_FILE_KINDS) expect((await makeRollFile(record, kind)).ok).toBe(true);
    const pages = await makeRollFile(record, 'pages-pdf');
    const text = pages.ok ? pages.value.body.toString('latin1') : '';
    expect(text.match(/\/Type \/Page\b/g)).toHaveLength(20);
    // 200 by 250 mm in points.
    expect(text).toContain('/MediaBox [0 0 566.929134 708.661417]');
    const cut = await makeRollFile(record, 'cut-hpgl');
    const paths = readHpgl(cut.ok ? cut.value.body.toString() : '');
    if (!paths.ok) throw new Error('no plotter commands');
    const strip = stripOf(record.roll);
    const drawn = Array.from({ length: 20 }, (_, i) => stationCuts(strip, i + 1)).flat();
    expect(paths.value).toHaveLength(drawn.length);
    drawn.forEach((path, i) => {
      const [x = 0, y = 0] = [path[0]?.x, path[0]?.y];
      expect(paths.value[i]?.[0]?.x).toBeCloseTo(x + 100, 1);
      expect(paths.value[i]?.[0]?.y).toBeCloseTo(y, 1);
    });
    const long = await mustRead(await begun(shop, { spacingMm: 300 }));
    expect(await makeRollFile(long, 'long-pdf')).toMatchObject({ ok: false });
    const run = await mustRead(await begun(shop, { kind: 'run', form: 'piece' }));
    expect(await makeRollFile(run, 'piece-svg')).toMatchObject({ ok: false });
  });
});

describe('a run as it goes', () => {
  it('every nth piece is due; advice follows what was measured; a roll that is not there is told', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const rollId = await begun(shop, { kind: 'run', form: 'piece', stations: 40, everyNth: 5 });
    const record = await mustRead(rollId);
    expect(new Set(record.figures.map((f) => f.stationNo))).toEqual(new Set([1, 6, 11, 16, 21, 26, 31, 36]));
    expect(adviceWords(adviceOf(record), 'mm').title).toBe('Measure the first piece');
    expect(await readByStandIn(test.database, shop.actor, rollId)).toEqual({ ok: true, value: 4 });
    expect((await mustRead(rollId)).values).toHaveLength(4);
    const far = { method: 'list', readingMm: 0.5, stationNo: 6 } as const;
    await saveStations(test.database, shop.actor, [reading(rollId, far)]);
    const advice = adviceWords(adviceOf(await mustRead(rollId)), 'mm');
    expect(advice.kind).toBe('stop');
    expect(advice.words).toContain('0.50 mm');
    expect(await readByStandIn(test.database, shop.actor, randomUUID())).toMatchObject({ ok: false });
  });
});

describe('sections of a run', () => {
  it('a width typed once survives; rows, what a typed length does, and what each way costs', async () => {
    const shop = await makeShop(test.database, { error: NO_ERROR });
    const rollId = await begun(shop);
    await readByStandIn(test.database, shop.actor, rollId);
    const work = { ...usualWork(await mustRead(rollId)), itemWidthMm: 66, itemLengthMm: 271.27, copies: 50 };
    await keepSectionWork(test.database, rollId, { ...work, typedLengthMm: 100 });
    const record = await mustRead(rollId);
    expect(record.work).toMatchObject({ itemWidthMm: 66, typedLengthMm: 100 });
    if (!record.work) throw new Error('the work is kept');
    const answered = computeRoll(ComputeRoll.parse(sectionsQuestion(record, record.work)));
    if (!answered.ok) throw new Error(answered.error.kind);
    const { rows, plan, section, whatIf } = answered.value;
    if (!rows || !plan) throw new Error('rows and plan were asked for');
    expect(rows).toMatchObject({ copiesAcross: 2, rows: 25 });
    expect(typedWords(rows, 100, 'mm')).toContain('breaks a row');
    expect(typedWords(rows, rows.typedMm, 'mm')).toContain('is right');
    expect(plan.best.cost.total).toBeLessThanOrEqual(plan.even.cost.total + 1e-9);
    expect(plan.best.sections.reduce((sum, k) => sum + k, 0)).toBe(25);
    expect(whatIf?.halfTolerance.section.longestMm).toBeLessThan(section.longestMm);
    expect(sectionsHeadline(answered.value, record.work, 'mm')).toMatch(/^Marks every .* hold$|^No limit shown/);
    const wide = computeRoll(ComputeRoll.parse(sectionsQuestion(record, { ...work, itemWidthMm: 900 })));
    expect(wide).toMatchObject({ ok: false, error: { kind: 'too-wide' } });
  });
});
