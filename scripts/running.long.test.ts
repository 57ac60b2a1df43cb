import { randomUUID } from 'node:crypto';
import { appendFileSync, chmodSync, mkdirSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { connectionPool } from '@/db/client';
import { logEvent } from '@/server/services/events';
import { faultKind } from '@/server/services/faults';
import { startJob } from '@/server/services/jobs';
import { makeShop, type TestShop } from '@/server/services/shop.testing';
import { isReady, pause, run, startShop, untilTrue, type RunningShop } from './running.testing';

jest.setTimeout(900_000);

const BACK_WITHIN_MS = 10_000;
const ART = `<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9"><circle cx="4" cy="4" r="3"/></svg>`;

const place = mkdtempSync(join('/var/tmp', 'red-plumb-running-'));
chmodSync(place, 0o755);
const opened: RunningShop[] = [];
const mounted: string[] = [];
afterAll(async () => {
  for (const shop of opened) await shop.stop();
  for (const folder of mounted) run('umount', [folder]);
  rmSync(place, { recursive: true, force: true });
});

/** A shop with some jobs that art can be sent to. */
async function prepared(shop: RunningShop, jobs: number) {
  const pool = connectionPool(shop.databaseUrl, 2);
  const database = drizzle({ client: pool, casing: 'snake_case' });
  const made: TestShop = await makeShop(database, { error: NO_ERROR });
  const ids = Array.from({ length: jobs }, () => randomUUID());
  for (const id of ids)
    await startJob(database, made.actor, { id, setupId: made.setupId, materialId: made.materialId, name: `job ${id}` });
  return { pool, database, made, jobs: ids };
}

/** Sends one piece of art. @returns the status, and the words where it was not taken; status 0: nobody answered. */
async function sendArt(shop: RunningShop, jobId: string, id: string, body: string = ART) {
  try {
    const answer = await fetch(`${shop.address}/jobs/${jobId}/art/${id}?name=a.svg`, { method: 'PUT', body });
    return { status: answer.status, text: await answer.text() };
  } catch {
    return { status: 0, text: '' };
  }
}

it('20 kills of a server process and of the database server over 200 writes: nothing that was answered is lost, and it is back by itself', async () => {
  const shop = await startShop(join(place, 'kills'));
  opened.push(shop);
  const { pool, jobs } = await prepared(shop, 4);
  const random = seededRng(11);
  const answered: string[] = [];
  const kills: number[] = [];
  const writing = (async () => {
    for (let n = 0; n < 200; n++) {
      const id = randomUUID();
      // As a screen does that holds what was entered: again until it is answered.
      for (let tries = 0; ; tries++) {
        const { status } = await sendArt(shop, jobs[n % jobs.length] ?? '', id);
        if (status === 200) break;
        if (tries > 600) throw new Error(`write ${n} was never answered, last ${status}`);
        await pause(50);
      }
      answered.push(id);
    }
  })();
  writing.catch(() => undefined);
  while (kills.length < 20) {
    const wanted = Math.ceil(((kills.length + 0.5) * 200) / 21);
    while (answered.length < wanted) await pause(5);
    await pause(random() * 100);
    const isDatabase = kills.length % 2 === 0;
    const workers = shop.workers();
    const victim = isDatabase ? shop.postmaster() : (workers[Math.floor(random() * workers.length)] ?? 0);
    process.kill(victim, 'SIGKILL');
    kills.push(await untilTrue(() => isReady(shop), 30_000));
  }
  await writing;
  expect(answered).toHaveLength(200);
  const { rows } = await pool.query<{ id: string }>('select id from job_art');
  expect(rows.map((r) => r.id).sort()).toEqual([...answered].sort());
  expect(Math.max(...kills)).toBeLessThan(BACK_WITHIN_MS);
  await pool.end();
  await shop.stop();
});

const freeOf = (folder: string): number => {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
};

/** Writes until the disk takes nothing more. */
function fill(folder: string, leave = 0): void {
  const filler = join(folder, 'filler');
  for (const piece of [4e6, 1e5, 4096])
    while (freeOf(folder) > leave + piece)
      try {
        appendFileSync(filler, Buffer.alloc(piece));
      } catch {
        break;
      }
}

it('a disk of 300 MB, filled to the brim: words, nothing lost, and back by itself when space is freed', async () => {
  const folder = join(place, 'small');
  mkdirSync(folder);
  run('mount', ['-t', 'tmpfs', '-o', 'size=300m,mode=0755', 'tmpfs', folder]);
  mounted.push(folder);
  const shop = await startShop(folder);
  opened.push(shop);
  const { pool, database, made, jobs } = await prepared(shop, 1);
  const [jobId = ''] = jobs;

  // Under 1 GB pages warn; under 200 MB files are not taken in any more.
  const cookie = `shop=${made.shopId}`;
  const bench = await (await fetch(`${shop.address}/`, { headers: { cookie, accept: 'text/html' } })).text();
  expect(bench).toMatch(/The disk has \d+ MB left\. Free some space/);
  fill(folder, 150e6);
  const refused = await sendArt(shop, jobId, randomUUID());
  expect(refused.status).toBe(507);
  expect(refused.text).toMatch(/The disk has 1\d\d MB left, so the file was not taken in/);

  // To the brim: what the database cannot write is said to be that, and what it took is there.
  fill(folder);
  const kept: string[] = [];
  let failure: unknown = null;
  for (let n = 0; n < 20_000 && failure === null; n++) {
    const id = randomUUID();
    try {
      const note = 'n'.repeat(400);
      const done = await logEvent(database, made.actor, { id, setupId: made.setupId, kind: 'power_cut', note });
      if (done.ok) kept.push(id);
    } catch (error) {
      failure = error;
    }
  }
  expect(faultKind(failure)).toMatch(/disk-full|database-stopped/);
  expect(
    await untilTrue(async () => (await shop.get('/readyz')).text.includes('"disk":"full"'), BACK_WITHIN_MS),
  ).toBeDefined();
  try {
    process.kill(shop.postmaster(), 'SIGKILL');
  } catch {
    // It went by itself when it could not write.
  }
  await untilTrue(async () => (await shop.get('/')).text.includes('The disk is full'), 20_000);
  await pause(3000);
  expect((await shop.get('/')).status).toBe(503);

  // Space again: nobody touches the application.
  rmSync(join(folder, 'filler'));
  const backMs = await untilTrue(() => isReady(shop), 40_000);
  const { rows } = await pool.query<{ id: string }>(`select id from event where kind = 'power_cut'`);
  expect(kept.filter((id) => !rows.some((r) => r.id === id))).toEqual([]);
  const again = await logEvent(database, made.actor, {
    id: randomUUID(),
    setupId: made.setupId,
    kind: 'power_cut',
    note: '',
  });
  expect(again.ok).toBe(true);
  expect(backMs).toBeLessThan(BACK_WITHIN_MS);
  await pool.end();
  await shop.stop();
});
