/**
 * Writes one thing after another by the application's own services and says "kept <n>" only when it was answered that it is
 * kept; begun again it goes on where it is told to. Everything has an id of its own number, so that what is asked for again
 * after a cut-off is the same thing. For the test that kills it, and the database under it.
 */
import { readFileSync, writeFileSync, writeSync, existsSync } from 'node:fs';
import { computeHere } from '@/compute/compute-here';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import type { JobDraft } from '@/core/layout/job-draft';
import { sheetSize } from '@/core/units/sheet-size';
import { database, type Database } from '@/db/client';
import { findJob } from '@/db/queries/job';
import { keepDailyCheck } from '@/server/services/daily-check';
import { logEvent } from '@/server/services/events';
import { lockJob } from '@/server/services/job-lock';
import { DISC, discItem, taken } from '@/server/services/jobs.testing';
import { keepArt, keepDraft, startJob } from '@/server/services/jobs';
import { makeShop, type TestShop } from '@/server/services/shop.testing';
import { tellShownValue } from '@/server/services/shown-value';
import { startCalibration } from '@/server/services/start';
import { keepTestCut } from '@/server/services/test-cuts';
import { idOf, kindOf, type Kind } from './kills.testing';

type Write = (db: Database, shop: TestShop, n: number) => Promise<unknown>;

const daily: Write = (db, { actor, setupId, materialId }, n) =>
  taken(
    keepDailyCheck(db, actor, {
      ...{ id: idOf(n), setupId, materialId, side: 'outside', borderSdMm: 0.07, note: `check ${String(n)}` },
      borders: { leftMm: 3, rightMm: 3 + n / 1000, topMm: 3, bottomMm: 3 },
    }),
  );
const happened: Write = (db, { actor, setupId }, n) =>
  taken(logEvent(db, actor, { id: idOf(n), setupId, kind: 'power_cut', note: String(n) }));
/** A value and the entry that tells of it: two tables in one transaction. */
const shown: Write = (db, { actor, settingIds }, n) =>
  taken(tellShownValue(db, actor, { id: idOf(n), settingId: settingIds[0] ?? '', value: (n % 400) / 20 - 5 }));
const testCut: Write = (db, { actor, setupId, materialId }, n) =>
  taken(
    keepTestCut(db, actor, {
      ...{ id: idOf(n), setupId, materialId, stack: '', force: n + 1, forceUnit: 'gf', depth: null, speed: null },
      ...{ passes: 1, outcome: 'clean', note: '' },
    }),
  );
/** A calibration with its sheet: two tables, and a definition with its spots and figures the first time. */
const calibration: Write = (db, { actor, setupId, materialId }, n) =>
  taken(
    startCalibration(db, actor, {
      ...{ id: idOf(n), setupId, materialId, kind: n % 2 === 0 ? 'quick' : 'full', toleranceMm: 0.3 },
      page: { name: 'A4', ...sheetSize('A4') },
    }),
  );
/** A job laid out and locked: its state, its layout and each of its files. */
const lockedJob: Write = async (db, { actor, setupId, materialId }, n) => {
  const jobId = idOf(n);
  await taken(startJob(db, actor, { id: jobId, setupId, materialId, name: `Job of ${String(n)}` }));
  const found = await findJob(db, jobId);
  if (found?.job.state === 'locked') return;
  const file = { name: 'disc.svg', content: Buffer.from(DISC) };
  const art = await taken(keepArt(db, { jobId, id: idOf(n, 'art') }, file));
  const draft: JobDraft = { ...(found?.job.draft as JobDraft), items: [discItem(art.id, { quantity: 4 })] };
  const kept = { jobId, version: found?.job.version ?? 0, name: `Job of ${String(n)}`, materialId, draft };
  const version = await taken(keepDraft(db, kept));
  await taken(lockJob(db, actor, { id: idOf(n, 'lock'), jobId, version, ownFile: null }, computeHere));
};

const WRITES: Readonly<Record<Kind, Write>> = { daily, happened, shown, testCut, calibration, lockedJob };

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const RETRY_MS = 50;
const MOST_TRIES = 400;

/** What the database or its connection says, not a refusal of our own. */
const isCutOff = (error: unknown): boolean =>
  error instanceof Error && (error.cause !== undefined || 'code' in error || /[Cc]onnection|ECONN/.test(error.message));

/** Asked again until it is answered, as a screen does that holds what was typed. */
async function untilKept(work: () => Promise<unknown>): Promise<void> {
  for (let tried = 1; ; tried++) {
    try {
      await work();
      return;
    } catch (error) {
      if (tried === MOST_TRIES || !isCutOff(error)) throw error;
      await pause(RETRY_MS);
    }
  }
}

async function theShop(path: string): Promise<TestShop> {
  if (existsSync(path)) return JSON.parse(readFileSync(path, 'utf8')) as TestShop;
  const shop = await makeShop(database(), { error: NO_ERROR });
  writeFileSync(path, JSON.stringify(shop));
  return shop;
}

async function main(path: string, from: number, to: number): Promise<void> {
  const shop = await theShop(path);
  writeSync(1, 'ready\n');
  for (let n = from; n < to; n++) {
    await untilKept(() => WRITES[kindOf(n)](database(), shop, n));
    writeSync(1, `kept ${String(n)}\n`);
  }
  process.exit(0);
}

const [path, from, to] = process.argv.slice(2);
if (path === undefined)
  throw new Error('Say where the shop is kept, and the numbers from which and to which to write.');
void main(path, Number(from), Number(to));
