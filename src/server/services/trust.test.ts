import { randomUUID } from 'node:crypto';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { BORDER_CALIPER_SD_MM } from '@/core/reading/borders';
import { DAY_MS } from '@/core/trust/looks';
import { FIRST_POLICY } from '@/core/trust/policy';
import { seededRng } from '@/core/math/random';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import type { JobDraft } from '@/core/layout/job-draft';
import { findJob } from '@/db/queries/job';
import { findSetup } from '@/db/queries/shop';
import { now, setClock } from '../clock';
import { readBench } from './bench';
import { keepDailyCheck, keepPolicy, takeBackDailyCheck } from './daily-check';
import { readDaily } from './daily-view';
import { logEvent } from './events';
import { keepDraft, startJob } from './jobs';
import { readPolicy } from './policy-view';
import { makeShop, type TestShop } from './shop.testing';
import { readTrust } from './trust';
import { trustRecords } from './trust-facts';
import { benchSentences, reasonsOf } from './trust-words';
import { runCalibration } from '../../../scripts/run-calibration';

jest.setTimeout(180_000);

let test: TestDatabase;
let shop: TestShop;
const db = (): TestDatabase['database'] => test.database;

beforeAll(async () => {
  test = await testDatabase();
  shop = await makeShop(db(), { error: { ...NO_ERROR, offsetAcrossMm: 0.6 }, markSdMm: 0.02 });
  daysAgo(30);
  await runCalibration(
    db(),
    shop.actor,
    {
      ...{ setupId: shop.setupId, materialId: shop.materialId, page: 'A4', kind: 'full' },
      ...{ toleranceMm: 0.3, way: 'settings', id: randomUUID() },
    },
    seededRng(4),
  );
  daysAgo(0);
});
afterAll(async () => {
  setClock(undefined);
  await test.close();
});

const BEGIN = Date.now();
function daysAgo(days: number): void {
  let ticks = 0;
  setClock(() => new Date(BEGIN - days * DAY_MS + 1000 * ticks++));
}

async function trust() {
  const row = await findSetup(db(), shop.setupId);
  const found = row ? (await readTrust(db(), row))[0] : undefined;
  if (!found) throw new Error('one material was confirmed');
  return found;
}

const borders = (acrossMm: number, alongMm: number) => ({
  leftMm: 3 - acrossMm,
  rightMm: 3 + acrossMm,
  bottomMm: 3 - alongMm,
  topMm: 3 + alongMm,
});

async function measured(
  acrossMm: number,
  alongMm: number,
  changes: { readonly materialId?: string } = {},
): Promise<string> {
  const id = randomUUID();
  const done = await keepDailyCheck(db(), shop.actor, {
    ...{ id, setupId: shop.setupId, materialId: shop.materialId, side: 'outside', note: '' },
    ...{ borders: borders(acrossMm, alongMm), borderSdMm: BORDER_CALIPER_SD_MM, ...changes },
  });
  if (!done.ok) throw new Error(done.error.message);
  return id;
}

describe('how far a setup can be trusted', () => {
  it('is what was confirmed straight after the check, and less with every day', async () => {
    daysAgo(29.9);
    const fresh = await trust();
    expect(fresh.next.q95Mm / fresh.atCheck.q95Mm).toBeLessThan(1.02);
    daysAgo(0);
    const later = await trust();
    expect(later.next.q95Mm).toBeGreaterThan(fresh.next.q95Mm);
    expect(later.shift.sdMm).toBeCloseTo(0.01 * Math.sqrt(30), 2);
    expect(later.wander.pairs).toBe(0);
    const [setup] = await readBench(db(), shop.shopId);
    if (!setup) throw new Error('there is a setup');
    expect(benchSentences(setup, () => 'a month ago', 'mm').join(' ')).toMatch(/Next job: within .* in 95 of 100/);
    expect(reasonsOf(later, 'mm').join(' ')).toMatch(/5 jobs to come .* a check takes 5.*one SD/);
  });
  it('an event adds its own doubt, by name, and a dear job makes a check due that a cheap one does not', async () => {
    daysAgo(2);
    await logEvent(db(), shop.actor, { id: randomUUID(), setupId: shop.setupId, kind: 'new_blade', note: '' });
    daysAgo(0);
    const found = await trust();
    expect(found.events).toMatchObject([{ words: 'new blade or holder', sdMm: 0.08 }]);
    expect(found.shift.sdMm).toBeCloseTo(Math.hypot(0.01 * Math.sqrt(30), 0.08), 2);
    const keep = async (version: number, spoilCost: number, id: string) =>
      keepPolicy(db(), {
        ...FIRST_POLICY,
        id,
        setupId: shop.setupId,
        materialId: null,
        version,
        school: 'ewma',
        spoilCost,
      });
    const id = randomUUID();
    expect(await keep(0, 0.01, id)).toMatchObject({ ok: true, value: 1 });
    expect((await trust()).state).toBe('in-register');
    // Some currencies run to hundreds of millions.
    expect(await keep(1, 9e8, id)).toMatchObject({ ok: true, value: 2 });
    expect((await trust()).state).toBe('check-first');
    // Another screen that still shows the first version changes nothing.
    expect(await keep(1, 1, id)).toMatchObject({ ok: false });
    expect(await keep(2, 20, id)).toMatchObject({ ok: true, value: 3 });
  });
  it('a material’s own policy goes before the setup’s; a calendar counts its days', async () => {
    const own = {
      id: randomUUID(),
      setupId: shop.setupId,
      materialId: shop.materialId,
      version: 0,
      school: 'cusum' as const,
    };
    await keepPolicy(db(), { ...FIRST_POLICY, ...own, kind: 'days', everyDays: 31 });
    const view = await readPolicy(db(), shop.setupId, shop.materialId);
    expect(view?.policy).toMatchObject({ kind: 'days', everyDays: 31, isOwn: true, version: 1 });
    // The new blade makes it due at once.
    expect((await trust()).due).toMatchObject({ isDue: true, reason: 'new blade or holder' });
    await keepPolicy(db(), { ...FIRST_POLICY, ...own, version: 1, kind: 'evidence' });
    expect((await trust()).policy.school).toBe('cusum');
  });
});

describe('before each costly job', () => {
  it('a job that is worth as much and waits makes a check due, by its name', async () => {
    const { policy } = await trust();
    const costly = { ...FIRST_POLICY, kind: 'costly' as const, costlyFrom: 100, school: 'cusum' as const };
    const own = { id: policy.id ?? '', setupId: shop.setupId, materialId: shop.materialId, version: policy.version };
    expect(await keepPolicy(db(), { ...costly, ...own })).toMatchObject({ ok: true });
    const jobId = randomUUID();
    const { setupId, materialId } = shop;
    await startJob(db(), shop.actor, { id: jobId, setupId, materialId, name: 'Weir gate' });
    const worthy = async () => {
      const row = await findSetup(db(), setupId);
      return row ? (await trustRecords(db(), [row]))[0]?.worthy : undefined;
    };
    expect(await worthy()).toEqual([]);
    const kept = await findJob(db(), jobId);
    const draft = { ...(kept?.job.draft as JobDraft), worth: 120 };
    await keepDraft(db(), { jobId, version: kept?.job.version ?? 0, name: 'Weir gate', materialId, draft });
    expect(await worthy()).toMatchObject([{ name: 'Weir gate', worth: 120 }]);
    // What happened since goes first; without it the job's own name is told.
    expect((await trust()).due).toMatchObject({ isDue: true, reason: 'new blade or holder' });
    await keepPolicy(db(), { ...costly, ...own, version: own.version + 1, kind: 'evidence' });
  });
});

describe('daily checks', () => {
  it('pull the doubt in again; one that was mistyped counts no more and stays in the record', async () => {
    const before = (await trust()).shift.sdMm;
    const { acrossMm, alongMm } = (await trust()).shift;
    const wrong = await measured(2.5, 0);
    expect((await trust()).state).toBe('stop');
    expect(await takeBackDailyCheck(db(), shop.actor, wrong)).toMatchObject({ ok: true });
    expect((await trust()).shift).toMatchObject({ acrossMm, alongMm });
    expect(await db().execute('select count(*)::int as n from daily_check')).toMatchObject({ rows: [{ n: 1 }] });
    await measured(0.02, 0);
    expect((await trust()).shift.sdMm).toBeLessThan(before);
  });
  it('sent twice they are kept once; they are never changed nor deleted', async () => {
    const count = async () => (await test.query('select 1 from daily_check')).length;
    const before = await count();
    const id = randomUUID();
    const input = {
      ...{ id, setupId: shop.setupId, materialId: shop.materialId, side: 'outside' as const, note: '' },
      ...{ borders: borders(0, 0.03), borderSdMm: 0.07 },
    };
    await keepDailyCheck(db(), shop.actor, input);
    await keepDailyCheck(db(), shop.actor, input);
    expect(await count()).toBe(before + 1);
    for (const change of [
      'update daily_check set across_mm = 0',
      'delete from daily_check',
      'truncate daily_check cascade',
    ])
      await expect(test.query(change)).rejects.toThrow(/append|never|not/i);
  });
  it('half the difference of opposite borders, a bleed-side hole the other way round', async () => {
    const [row] = (await test.query(
      'select across_mm as x, along_mm as y, standard_uncertainty_mm as u from daily_check where bottom_mm = 3 - 0.03',
    )) as { x: number; y: number; u: number }[];
    expect(row?.x).toBeCloseTo(0, 12);
    expect(row?.y).toBeCloseTo(0.03, 12);
    expect(row?.u).toBeCloseTo(0.07 / Math.SQRT2, 12);
  });
  it('a shift that comes is signalled; the first time nothing is to be changed, then it stands', async () => {
    const view = () => readDaily(db(), shop.setupId, shop.materialId);
    for (const [i, y] of [0.01, -0.02, 0.03, 0, -0.01, 0.02, -0.03, 0.01].entries()) await measured((i % 3) / 100, y);
    expect((await view())?.chart.signal).toBeNull();
    const signals: (boolean | undefined)[] = [];
    for (let i = 0; i < 8; i++) {
      await measured(0.01, 0.14 + i / 200);
      signals.push((await view())?.chart.signal?.isFirst);
    }
    const told = signals.filter((s) => s !== undefined);
    expect(told[0]).toBe(true);
    expect(told.slice(1).every((s) => !s)).toBe(true);
    const signal = (await view())?.chart.signal;
    expect(signal).toMatchObject({ axis: 'along', isOfMaterial: false });
    expect(signal?.change.size).toBeGreaterThan(0.08);
    expect((await trust()).state).not.toBe('in-register');
    expect(now().getTime() - (signal?.since.getTime() ?? 0)).toBeLessThan(DAY_MS);
  });
});
