import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { csvParse } from 'd3';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { BORDER_CALIPER_SD_MM } from '@/core/reading/borders';
import { DAY_MS } from '@/core/trust/looks';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { setClock } from '../clock';
import { certificateOf } from './certificate';
import { compareEntries } from './compare';
import { keepDailyCheck } from './daily-check';
import { logEvent, undoEvent } from './events';
import { readOverTime } from './over-time';
import { recordFile } from './record-files';
import { makeShop, type TestShop } from './shop.testing';
import { keepNote, readNotes, readOthers, readRecord } from './shop-record';
import { runCalibration } from '../../../scripts/run-calibration';

jest.setTimeout(180_000);

let test: TestDatabase;
let shop: TestShop;
const db = (): TestDatabase['database'] => test.database;
const BEGIN = Date.now();

function daysAgo(days: number): void {
  let ticks = 0;
  setClock(() => new Date(BEGIN - days * DAY_MS + 1000 * ticks++));
}

async function calibrated(days: number, kind: 'full' | 'quick'): Promise<void> {
  daysAgo(days);
  await runCalibration(
    db(),
    shop.actor,
    {
      ...{ setupId: shop.setupId, materialId: shop.materialId, page: 'A4', kind },
      ...{ toleranceMm: 0.3, way: 'settings', id: randomUUID() },
    },
    seededRng(days),
  );
}

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(db(), { error: { ...NO_ERROR, offsetAcrossMm: 0.6, scaleAlong: 0.002 }, markSdMm: 0.01 });
  await calibrated(40, 'full');
  await calibrated(20, 'full');
  daysAgo(10);
  await logEvent(db(), shop.actor, {
    id: randomUUID(),
    setupId: shop.setupId,
    kind: 'new_blade',
    note: 'from 100 % steel',
  });
  const wrong = randomUUID();
  await logEvent(db(), shop.actor, { id: wrong, setupId: shop.setupId, kind: 'firmware', note: '' });
  await undoEvent(db(), shop.actor, { id: randomUUID(), eventId: wrong, setupId: shop.setupId });
  daysAgo(5);
  await keepDailyCheck(db(), shop.actor, {
    ...{ id: randomUUID(), setupId: shop.setupId, materialId: shop.materialId, side: 'outside', note: 'first piece' },
    ...{ borders: { leftMm: 3, rightMm: 3.1, topMm: 3, bottomMm: 3 }, borderSdMm: BORDER_CALIPER_SD_MM },
  });
  daysAgo(0);
});
afterAll(async () => {
  setClock(undefined);
  await test.close();
});

const record = (query: Parameters<typeof readRecord>[2] = {}, most?: number) =>
  readRecord(db(), shop.shopId, query, most);
const kinds = async (query: Parameters<typeof readRecord>[2]) => (await record(query)).lines.map((l) => l.kind);
const day = (days: number): string => new Date(BEGIN - days * DAY_MS).toISOString().slice(0, 10);

describe('the record of a shop', () => {
  it('holds everything, newest first; what was taken back is left out', async () => {
    expect(await kinds({})).toEqual(['daily-check', 'happened', 'confirmed', 'confirmed', 'happened']);
    const { lines } = await record();
    expect(lines.map((l) => l.words)).toEqual([
      ...['first piece', 'new blade or holder: from 100 % steel', '', ''],
      // Written when the first calibration's settings were typed in.
      expect.stringContaining('a machine setting was changed'),
    ]);
    expect(lines[0]?.worstMm).toBeCloseTo(0.05, 12);
  });
  it.each([
    ['kind', { kind: 'confirmed' }, 2],
    ['words of a note', { find: 'FIRST piece' }, 1],
    ['words of an event that only the application knows', { find: 'new blade' }, 1],
    ['a sign that is a pattern elsewhere', { find: '100 %' }, 1],
    ['words that stand nowhere', { find: '100_%' }, 0],
    ['days from', { from: day(15) }, 2],
    ['days to', { to: day(15) }, 3],
    ['one day', { from: day(10), to: day(10) }, 1],
  ] as const)('is narrowed by %s', async (_, query, wanted) => {
    expect(await kinds(query)).toHaveLength(wanted);
  });
  it('of another shop, setup or material shows nothing', async () => {
    expect((await readRecord(db(), randomUUID(), {})).lines).toEqual([]);
    expect(await kinds({ setup: randomUUID() })).toEqual([]);
    expect(await kinds({ material: randomUUID() })).toEqual([]);
  });
  it('is leafed through without a line twice or left out', async () => {
    const all = (await record()).lines.map((l) => l.id);
    const seen: string[] = [];
    let before: string | undefined;
    for (let leaf = 0; leaf < 10; leaf++) {
      const page = await record({ before }, 1);
      seen.push(...page.lines.map((l) => l.id));
      if (!page.next) break;
      before = page.next.toISOString();
    }
    expect(seen).toEqual(all);
  });
  it('lines of one moment stay on one page', async () => {
    daysAgo(3);
    const at = new Date(BEGIN - 3 * DAY_MS);
    setClock(() => at);
    for (let i = 0; i < 3; i++)
      await logEvent(db(), shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'rollers', note: `${i}` });
    setClock(() => new Date(BEGIN - 2 * DAY_MS));
    await logEvent(db(), shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'moved', note: '' });
    daysAgo(0);
    const first = await record({ kind: 'happened' }, 3);
    expect(first.lines.map((l) => l.words)).toEqual(['machine was moved']);
    const second = await record({ kind: 'happened', before: first.next?.toISOString() }, 4);
    expect(second.lines.filter((l) => l.words.startsWith('rollers'))).toHaveLength(3);
  });
  it('as CSV and JSON is the same lines', async () => {
    const csv = csvParse(String((await recordFile(db(), shop.shopId, {}, 'csv')).body));
    const json = JSON.parse(String((await recordFile(db(), shop.shopId, {}, 'json')).body)) as {
      lines: { id: string }[];
    };
    expect(csv.map((row) => row.id)).toEqual(json.lines.map((l) => l.id));
    const check = csv.find((row) => row.kind === 'daily-check');
    expect(Number(check?.['worst mm'])).toBeCloseTo(0.05, 12);
  });
  it('takes notes beside an entry, finds them, and never changes them', async () => {
    const [entry] = (await record({ kind: 'confirmed' })).lines;
    const id = entry?.id ?? '';
    await keepNote(db(), shop.actor, { id: randomUUID(), historyEntryId: id, note: 'roller felt was new' });
    expect((await readNotes(db(), id)).map((n) => n.note)).toEqual(['roller felt was new']);
    expect((await record({ find: 'felt' })).lines.map((l) => [l.id, l.notes])).toEqual([[id, 1]]);
    await expect(test.query('update history_note set note = $1', ['x'])).rejects.toThrow();
    await expect(test.query('delete from history_note')).rejects.toThrow();
  });
});

describe('any two entries held against each other', () => {
  it('tell what differs beyond its uncertainty, and what the display showed at each', async () => {
    const [later = '', earlier = ''] = (await record({ kind: 'confirmed' })).lines.map((l) => l.id);
    const found = await compareEntries(db(), earlier, later);
    if (!found) throw new Error('both entries are there');
    expect(found.parts).toHaveLength(6);
    for (const { one, other, difference } of found.parts) {
      expect(difference?.value).toBeCloseTo(Number(other) - Number(one), 12);
      expect(difference?.standardUncertainty).toBeGreaterThan(0);
    }
    expect(found.settings.length).toBeGreaterThan(0);
    const others = await readOthers(db(), shop.shopId, { line: { id: later, setupName: '' } });
    expect(others.map((l) => l.id)).toEqual([earlier]);
    expect(await compareEntries(db(), randomUUID(), later)).toBeNull();
  });
});

describe('over time', () => {
  it('each calibration as it was found and as it was left; events between', async () => {
    const view = await readOverTime(db(), shop.setupId, undefined);
    expect(view?.points).toHaveLength(2);
    const points = (view?.points ?? []).flatMap((p) => [p.found, p.left]);
    const sizes = points.map((p) => Math.abs(p?.offsetAcrossMm.value ?? NaN));
    // Found out by 0.6 mm, and left where it should be ever since.
    expect(sizes[0]).toBeGreaterThan(0.4);
    for (const size of sizes.slice(1)) expect(size).toBeLessThan(0.15);
    expect(view?.events.map((e) => e.words)).toContain('new blade or holder');
    expect((await readOverTime(db(), shop.setupId, randomUUID()))?.points).toEqual([]);
  });
});

describe('a certificate', () => {
  it('says verdict, parts with their uncertainty, settings and conditions; the same bytes each time (read by poppler)', async () => {
    const [entry] = (await record({ kind: 'confirmed' })).lines;
    const wording = { system: 'mm', stamp: (at: Date) => at.toISOString() } as const;
    const one = await certificateOf(db(), entry?.id ?? '', wording);
    const two = await certificateOf(db(), entry?.id ?? '', wording);
    expect(one?.body.equals(two?.body ?? Buffer.alloc(0))).toBe(true);
    const folder = mkdtempSync(join(tmpdir(), 'red-plumb-'));
    const path = join(folder, 'c.pdf');
    writeFileSync(path, one?.body ?? '');
    const text = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
    rmSync(folder, { recursive: true });
    expect(text).toMatch(/Out by 0\.\d\d mm at the worst corner, below 0\.\d\d mm with 95 % confidence/);
    expect(text).toMatch(/scale along\s+[+\u2212]?0\.\d{3} %\s+0\.\d{3} %/);
    expect(text).toMatch(/OFFSET_ACROSS/);
    expect(text).toMatch(/not traceable/);
    expect(text).toMatch(/SHA-256 of what stands above: [0-9a-f]{64}/);
    expect(await certificateOf(db(), randomUUID(), wording)).toBeNull();
  });
});
