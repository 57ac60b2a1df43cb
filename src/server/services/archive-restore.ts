import 'server-only';
import { z } from 'zod';
import { ArchiveHead, type ArchiveLook, type KeptBefore } from '@/contracts/archive';
import {
  connect,
  dropDatabase,
  HOLDER,
  makeDatabase,
  mayMakeDatabases,
  migrateToNewest,
  nameOfDatabase,
  onConnection,
  onlyOne,
  readMark,
  swapDatabases,
  urlOf,
  writeMark,
} from '@/db/archive/databases';
import { beginLook, shopRows } from '@/db/archive/rows';
import { now } from '../clock';
import { groupChanges, settingChanges } from './archive-diff';
import { fill, firstDifference, summed, sumsOf } from './archive-fill';
import { copyOthers, holdWriters, replacedBy } from './archive-others';
import { ArchiveRefused, checkArchive, readArchive } from './archive-read';
import type { Told } from './progress-response';

/** Databases beside the present one: what an archive is filled into, and what a restore put aside. */
export const namesBeside = (url: string) => {
  const present = nameOfDatabase(url);
  return { present, fresh: `${present}_restore`, aside: `${present}_before` };
};

const Mark = z.object({ sha256: z.string(), head: ArchiveHead });
const Before = z.object({ shopId: z.uuid(), shopName: z.string(), at: z.iso.datetime() });

const total = (head: ArchiveHead): number => Object.values(head.rows).reduce((sum, n) => sum + n, 0);

/** One archive at a time: a second would take the database away that the first one fills. */
async function alone<T>(url: string, work: () => Promise<T>): Promise<T> {
  const done = await onlyOne(url, work);
  if (!done) throw new ArchiveRefused('Somebody else works on an archive just now. Wait until that has ended.');
  return done.done;
}

/** Fills a database of its own with an archive and makes sure that what it gives out again is the archive. */
async function fillFresh(url: string, path: string, told: Told): Promise<void> {
  const { fresh } = namesBeside(url);
  const { head, rows } = await readArchive(path);
  await makeDatabase(url, fresh, head.schema);
  const sums = new Map<string, { rows: number; sum: bigint }>();
  let done = 0;
  await onConnection(urlOf(url, fresh), async (client) => {
    await fill(client, summed(rows, sums), {
      isChecked: true,
      onRows: (count) => {
        done += count;
        told.onProgress?.('Filling a database of its own', done, total(head));
      },
      ...(told.signal && { signal: told.signal }),
    });
    told.onProgress?.('Comparing it with the archive', total(head), total(head));
    await beginLook(client);
    const difference = firstDifference(sums, await sumsOf(shopRows(client, head.shop.id)));
    await client.query('rollback');
    if (difference !== null)
      throw new ArchiveRefused(
        `Rows of "${difference}" in the archive do not belong to its shop, or are not as Red Plumb writes them.`,
      );
  });
  await migrateToNewest(urlOf(url, fresh));
}

/** What would change if the archive that was made ready took its place. */
async function lookAt(url: string, sha256: string, head: ArchiveHead): Promise<ArchiveLook> {
  const { fresh } = namesBeside(url);
  return onConnection(url, (present) =>
    onConnection(urlOf(url, fresh), async (other) => {
      const replaced = await replacedBy(present, head);
      const here = { client: present, shopId: replaced?.id ?? null };
      const there = { client: other, shopId: head.shop.id };
      return {
        ...{ sha256, shopName: head.shop.name, madeAt: head.madeAt, replaces: replaced?.name ?? null },
        groups: await groupChanges(here, there),
        settings: replaced ? await settingChanges(here, there) : [],
      };
    }),
  );
}

/**
 * Dry run: an archive is checked, filled into a database of its own, compared, and held against what stands here. Nothing
 * here changes. What was made ready before is dropped.
 * @throws ArchiveRefused with the reason; nothing of the archive is kept then.
 */
export async function lookAtArchive(url: string, path: string, told: Told = {}): Promise<ArchiveLook> {
  if (!(await mayMakeDatabases(url)))
    throw new ArchiveRefused(
      'The database user of this installation may not make databases: a restore fills one of its own. Ask whoever set it up.',
    );
  return alone(url, () => makeReady(url, path, told));
}

async function makeReady(url: string, path: string, told: Told): Promise<ArchiveLook> {
  told.onProgress?.('Checking the archive', 0, 1);
  const { head, sha256 } = await checkArchive(path);
  const { fresh } = namesBeside(url);
  try {
    await fillFresh(url, path, told);
    told.signal?.throwIfAborted();
    told.onProgress?.('Looking for what would change', 1, 1);
    const look = await lookAt(url, sha256, head);
    await writeMark(url, fresh, JSON.stringify({ sha256, head }));
    return look;
  } catch (error) {
    await dropDatabase(url, fresh);
    throw error;
  }
}

async function madeReady(url: string, sha256: string): Promise<ArchiveHead> {
  const mark = await readMark(url, namesBeside(url).fresh);
  const parsed = mark === null ? null : Mark.safeParse(JSON.parse(mark));
  if (parsed?.success !== true || parsed.data.sha256 !== sha256)
    throw new ArchiveRefused(
      'This archive is not made ready any more: somebody chose another one since. Choose it again.',
    );
  return parsed.data.head;
}

/**
 * Puts the archive that was looked at in its place: all other shops are copied beside it and compared, writers are kept out
 * for that moment, and the two databases change names in one transaction. What was here is kept until the next restore.
 * @throws ArchiveRefused where something was written meanwhile; nothing has changed then.
 */
export const putInPlace = (url: string, sha256: string, told: Told = {}): Promise<string> =>
  alone(url, () => swapIn(url, sha256, told));

async function swapIn(url: string, sha256: string, told: Told): Promise<string> {
  const head = await madeReady(url, sha256);
  const names = namesBeside(url);
  const holder = await connect(url, HOLDER);
  try {
    const replaced = await replacedBy(holder, head);
    told.onProgress?.('Copying the other shops', 0, 1);
    const copied = await copyOthers(holder, urlOf(url, names.fresh), replaced?.id ?? head.shop.id);
    told.onProgress?.('Comparing everything', 0, 1);
    const unchanged = await holdWriters(holder, replaced?.id ?? head.shop.id, copied);
    if (!unchanged)
      throw new ArchiveRefused(
        'Somebody wrote something in another shop meanwhile. Nothing has changed: choose the archive again.',
      );
    told.onProgress?.('Taking its place', 1, 1);
    // Marks go with their database: whatever happens, what was put aside is known.
    const before = replaced && { shopId: replaced.id, shopName: replaced.name, at: now().toISOString() };
    await writeMark(url, names.present, JSON.stringify(before));
    await writeMark(url, names.fresh, '');
    await swapDatabases(url, names, () => holder.end());
    return head.shop.id;
  } catch (error) {
    await dropDatabase(url, names.fresh).catch(() => undefined);
    throw error;
  } finally {
    await holder.end().catch(() => undefined);
  }
}

/** Drops the archive that was made ready and is not wanted; another one that somebody chose since is left alone. */
export const forgetReady = (url: string, sha256: string): Promise<void> =>
  alone(url, async () => {
    await madeReady(url, sha256);
    await dropDatabase(url, namesBeside(url).fresh);
  });

/** The shop that the newest restore put aside; null where there is none. */
export async function keptBefore(url: string): Promise<KeptBefore | null> {
  const mark = await readMark(url, namesBeside(url).aside);
  if (mark === null) return null;
  const parsed = Before.safeParse(JSON.parse(mark));
  return parsed.success ? parsed.data : null;
}
