/**
 * The shop of ten years (bench/large-shop.ts) as an archive: out to a file; in again as far as the dry run goes, which checks it,
 * fills a database of its own and compares every row. Held against `pg_dump` of the whole database and the reading of its dump
 * into a new one. Part of `npm run bench`; DATABASE_URL names the database.
 */
import { spawnSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { database } from '@/db/client';
import { findShops } from '@/db/queries/shop';
import { environment } from '@/env/environment';
import { archiveStream } from '@/server/services/archive-out';
import { forgetReady, lookAtArchive } from '@/server/services/archive-restore';
import { line, print } from './timing';

const url = environment().DATABASE_URL;
const shop = (await findShops(database())).find((s) => s.name === 'Ten years by the river');
if (!shop) throw new Error('the large shop is not in this database');
const folder = mkdtempSync(join(tmpdir(), 'red-plumb-archive-'));
const [archive, dump] = [join(folder, 'shop.jsonl.gz'), join(folder, 'dump.sql.gz')];

async function timed<T>(work: () => Promise<T>): Promise<{ readonly ms: number; readonly value: T }> {
  const from = performance.now();
  const value = await work();
  return { ms: performance.now() - from, value };
}

function shell(command: string): number {
  const from = performance.now();
  const done = spawnSync('bash', ['-o', 'pipefail', '-c', command], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
  return performance.now() - from;
}

const other = new URL(url);
other.pathname = '/red_plumb_dumped';
try {
  const out = await timed(() => pipeline(archiveStream(url, shop.id), createWriteStream(archive)));
  line('ten years out', out.ms, 'pg_dump', shell(`pg_dump '${url}' | gzip -6 > '${dump}'`));
  const look = await timed(() => lookAtArchive(url, archive));
  const made = `psql -q '${url}' -c 'drop database if exists red_plumb_dumped' -c 'create database red_plumb_dumped'`;
  line('in again: dry run', look.ms, 'psql of the dump', shell(`${made} && zcat '${dump}' | psql -q '${other.href}'`));
  await forgetReady(url, look.value.sha256);
  const megabytes = (path: string): string => (statSync(path).size / 1e6).toFixed(0);
  print(
    `archive ${megabytes(archive)} MB, dump ${megabytes(dump)} MB; most memory here ${(process.resourceUsage().maxRSS / 1000).toFixed(0)} MB`,
  );
} finally {
  shell(`psql -q '${url}' -c 'drop database if exists red_plumb_dumped'`);
  rmSync(folder, { recursive: true });
}
process.exit(0);
