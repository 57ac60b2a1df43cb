import { rmSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { seededRng } from '@/core/math/random';
import { dropDatabase, makeDatabase, onConnection, urlOf } from '@/db/archive/databases';
import { DOOR_TABLES, SHOP_TABLES } from '@/db/archive/shop-tables';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { runCalibration } from '../../../scripts/run-calibration';
import { copyOthers, holdWriters } from './archive-others';
import { forgetReady, keptBefore, lookAtArchive, namesBeside, putInPlace } from './archive-restore';
import { folder, linesOf, rowsOf, savedArchive } from './archive.testing';
import { keepDailyCheck } from './daily-check';
import { logEvent } from './events';
import { jobWork } from './jobs.testing';
import { keepOwnTest } from './measure';
import { makeShop, type TestShop } from './shop.testing';

jest.setTimeout(240_000);

let test: TestDatabase;
let empty: TestDatabase;
let shop: TestShop;
let other: TestShop;
let archive: string;

async function calibrated(owner: TestShop): Promise<void> {
  const order = { setupId: owner.setupId, materialId: owner.materialId, page: 'A4', kind: 'full', toleranceMm: 0.3 };
  await runCalibration(
    test.database,
    owner.actor,
    { ...order, kind: 'full', page: 'A4', way: 'settings', id: randomUUID() },
    seededRng(3),
  );
}

/** What stands as JSON in columns that a plain calibration leaves empty: a cutter's own test, a scan. */
async function describedAndScanned(owner: TestShop): Promise<void> {
  const row = { labels: 'letters', firstNumber: 1, lines: 9, middle: 5, takesHalves: false, stepMm: 0.1 } as const;
  const ownTest = { across: row, along: null, sheet: 'own' } as const;
  const kept = await keepOwnTest(test.database, owner.shopId, { setupId: owner.setupId, ownTest });
  if (!kept.ok) throw new Error(kept.error.message);
  await onConnection(test.url, async (client) => {
    // As if it had been scanned before the check was closed.
    await client.query('set session_replication_role = replica');
    await client.query(
      `insert into scan (id, cut_set_id, detector_version, scans, at, by)
       select gen_random_uuid(), cut_set.id, 1, $2::jsonb, now(), $3
       from cut_set join calibration_sheet on calibration_sheet.id = cut_set.calibration_sheet_id
       join calibration on calibration.id = calibration_sheet.calibration_id where calibration.setup_id = $1 limit 1`,
      [owner.setupId, JSON.stringify([{ fileName: 'bed.png', dotsPerInch: 300, goodCount: 5 }]), owner.actor.personId],
    );
    await client.query('reset session_replication_role');
  });
}

const event = (owner: TestShop, note: string) =>
  logEvent(test.database, owner.actor, { id: randomUUID(), setupId: owner.setupId, kind: 'new_blade', note });

beforeAll(async () => {
  [test, empty] = [await testDatabase(), await testDatabase()];
  const error = { ...NO_ERROR, offsetAcrossMm: 0.6 };
  shop = await makeShop(test.database, { error, markSdMm: 0.01 });
  other = await makeShop(test.database, { error, markSdMm: 0.01 });
  await calibrated(shop);
  await calibrated(other);
  const jobs = jobWork(test.database, shop);
  const jobId = await jobs.locked();
  await jobs.printed(jobId);
  await describedAndScanned(shop);
  await event(shop, 'from the "new" box; \\x00 is words, \u{1f53a} too');
  archive = await savedArchive(test.url, shop.shopId);
});

afterAll(async () => {
  for (const { url } of [test, empty])
    for (const name of [namesBeside(url).fresh, namesBeside(url).aside]) await dropDatabase(url, name);
  await test.close();
  await empty.close();
  rmSync(folder, { recursive: true, force: true });
});

it('every table of the database is in an archive, or is who may come in', async () => {
  const tables = await test.query(
    `select table_name from information_schema.tables where table_schema = current_schema() and table_type = 'BASE TABLE'`,
  );
  const named = [...SHOP_TABLES.map((t) => t.name), ...DOOR_TABLES].sort();
  expect((tables as { table_name: string }[]).map((t) => t.table_name).sort()).toEqual(named);
});

it('one shop is in it, and nothing of another', () => {
  const text = linesOf(archive).join('\n');
  expect(text).toContain(shop.setupId);
  expect(text).not.toContain(other.shopId);
  expect(text).not.toContain(other.setupId);
  const head = JSON.parse(linesOf(archive)[0] ?? '') as { rows: Record<string, number> };
  expect(head.rows).toMatchObject({ shop: 1, history_entry: 1, job_print: 1, scan: 1 });
  expect(head.rows.reading).toBeGreaterThan(30);
});

const WORDS = fc.string({ unit: 'grapheme', maxLength: 40 }).filter((s) => !s.includes('\0'));
const BORDER = fc.double({ min: 0, max: 40, noNaN: true });

it('out, wiped, in, out: the same content to the letter, whatever was written (property)', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(WORDS, BORDER, BORDER), { minLength: 1, maxLength: 8 }), async (checks) => {
      for (const [note, leftMm, topMm] of checks) {
        const place = { setupId: shop.setupId, materialId: shop.materialId, side: 'outside' as const };
        const figures = { borders: { leftMm, rightMm: 3, topMm, bottomMm: 3 }, borderSdMm: 0.1 };
        await keepDailyCheck(test.database, shop.actor, { id: randomUUID(), ...place, ...figures, note });
        await event(shop, note);
      }
      const out = await savedArchive(test.url, shop.shopId);
      const look = await lookAtArchive(empty.url, out);
      await putInPlace(empty.url, look.sha256);
      expect(rowsOf(await savedArchive(empty.url, shop.shopId))).toEqual(rowsOf(out));
    }),
    { numRuns: 4 },
  );
});

it('an archive of an older version is filled into its own tables and brought up to date', async () => {
  const older = `${namesBeside(empty.url).present}_older`;
  await makeDatabase(empty.url, older, '0022_archive');
  const [shopId, personId] = [randomUUID(), randomUUID()];
  await onConnection(urlOf(empty.url, older), async (client) => {
    await client.query(`insert into shop values ($1, 'Older', false, 0.3, now())`, [shopId]);
    await client.query(`insert into person (id, shop_id, name, unit_system) values ($1, $2, 'Pell', 'mm')`, [
      personId,
      shopId,
    ]);
  });
  const path = await savedArchive(urlOf(empty.url, older), shopId);
  await dropDatabase(empty.url, older);
  expect(linesOf(path)[0]).toContain('"schema":"0022_archive"');
  const look = await lookAtArchive(empty.url, path);
  expect(look).toMatchObject({ replaces: null, shopName: 'Older' });
  await putInPlace(empty.url, look.sha256);
  const now = await savedArchive(empty.url, shopId);
  // A later version has told shops to say their currency.
  const asBefore = rowsOf(now).map((line) => line.replace('"currency": null, ', ''));
  expect(asBefore).toEqual(rowsOf(path));
  expect(linesOf(now)[0]).not.toContain('"schema":"0022_archive"');
});

describe('a restore', () => {
  it('says what would change, changes nothing until it is told to, then puts it in its place; put back gives all of it again', async () => {
    const older = await savedArchive(test.url, shop.shopId);
    await event(shop, 'after the archive');
    await test.query(
      `insert into setting_value (id, machine_setting_id, seq, value, source, set_at, set_by)
       select gen_random_uuid(), machine_setting_id, max(seq) + 1, 12.25, 'typed', now(), $2 from setting_value where machine_setting_id = $1 group by machine_setting_id`,
      [shop.settingIds[0], shop.actor.personId],
    );
    const [mine, theirs] = [await savedArchive(test.url, shop.shopId), await savedArchive(test.url, other.shopId)];
    const look = await lookAtArchive(test.url, older);
    expect(look.replaces).toMatch(/^shop /);
    expect(look.groups.find((g) => g.group === 'History and events')).toMatchObject({
      onlyHere: 1,
      onlyInArchive: 0,
      different: 0,
    });
    expect(look.settings).toEqual([expect.objectContaining({ setting: 'OFFSET_ACROSS', here: 12.25 })]);
    expect(rowsOf(await savedArchive(test.url, shop.shopId))).toEqual(rowsOf(mine));

    expect(await putInPlace(test.url, look.sha256)).toBe(shop.shopId);
    expect(rowsOf(await savedArchive(test.url, shop.shopId))).toEqual(rowsOf(older));
    expect([...rowsOf(await savedArchive(test.url, other.shopId))].sort()).toEqual([...rowsOf(theirs)].sort());
    expect(await keptBefore(test.url)).toMatchObject({ shopId: shop.shopId });

    const aside = await savedArchive(urlOf(test.url, namesBeside(test.url).aside), shop.shopId);
    const back = await lookAtArchive(test.url, aside);
    await putInPlace(test.url, back.sha256);
    expect(rowsOf(await savedArchive(test.url, shop.shopId))).toEqual(rowsOf(mine));
  });

  it('what is written in another shop after it was copied shows: nothing is put in', async () => {
    const { sha256 } = await lookAtArchive(test.url, archive);
    const fresh = urlOf(test.url, namesBeside(test.url).fresh);
    await onConnection(test.url, async (client) => {
      const copied = await copyOthers(client, fresh, shop.shopId);
      expect(await holdWriters(client, shop.shopId, copied)).toBe(true);
      await client.query('rollback');
      await event(other, 'in between');
      expect(await holdWriters(client, shop.shopId, copied)).toBe(false);
    });
    await expect(putInPlace(test.url, sha256)).rejects.toThrow();
  });

  it('what was acknowledged in another shop meanwhile is there afterwards', async () => {
    const { sha256 } = await lookAtArchive(test.url, archive);
    const written: Promise<boolean>[] = [];
    let count = 0;
    const note = () => `meanwhile ${String(count++)}`;
    const write = () =>
      written.push(
        event(other, note()).then(
          () => true,
          () => false,
        ),
      );
    const timer = setInterval(write, 5);
    await putInPlace(test.url, sha256).catch((error: unknown) => {
      expect((error as Error).message).toMatch(/Somebody wrote something/);
    });
    clearInterval(timer);
    const acknowledged = (await Promise.all(written)).filter(Boolean).length;
    expect(await test.query(`select 1 from event where note like 'meanwhile %'`)).toHaveLength(acknowledged);
  });

  it('one archive at a time: who comes second is told so, and the first goes on', async () => {
    const first = lookAtArchive(test.url, archive);
    await new Promise((resolve) => setTimeout(resolve, 100));
    await expect(lookAtArchive(test.url, archive)).rejects.toThrow('Somebody else works on an archive');
    expect((await first).shopName).toMatch(/^shop /);
  });

  it('given up while it is filled: nothing of it is left', async () => {
    const own = new AbortController();
    const onProgress = (words: string): void => {
      if (words === 'Filling a database of its own') own.abort();
    };
    await expect(lookAtArchive(test.url, archive, { onProgress, signal: own.signal })).rejects.toThrow();
    const left = await test.query('select 1 from pg_database where datname = $1', [namesBeside(test.url).fresh]);
    expect(left).toHaveLength(0);
  });

  it('what somebody leaves takes nothing of another away', async () => {
    const { sha256 } = await lookAtArchive(test.url, archive);
    await expect(forgetReady(test.url, '0'.repeat(64))).rejects.toThrow('not made ready any more');
    const standing = () => test.query('select 1 from pg_database where datname = $1', [namesBeside(test.url).fresh]);
    expect(await standing()).toHaveLength(1);
    await forgetReady(test.url, sha256);
    expect(await standing()).toHaveLength(0);
  });

  it('only what was looked at last is put in', async () => {
    await lookAtArchive(test.url, archive);
    await expect(putInPlace(test.url, '0'.repeat(64))).rejects.toThrow('not made ready any more');
  });

  it('readers and writers who go on meanwhile find the new one, and nobody waits for ever', async () => {
    const { sha256 } = await lookAtArchive(test.url, archive);
    const going = { isOver: false };
    const reading = (async () => {
      let answers = 0;
      while (!going.isOver) {
        try {
          answers += (await test.query('select 1 from shop')).length;
        } catch {
          // Cut off while the names change: the next question finds the new database.
        }
      }
      return answers;
    })();
    await putInPlace(test.url, sha256);
    going.isOver = true;
    expect(await reading).toBeGreaterThan(0);
    expect(rowsOf(await savedArchive(test.url, shop.shopId))).toEqual(rowsOf(archive));
  });
});
