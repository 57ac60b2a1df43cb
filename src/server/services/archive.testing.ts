import { createWriteStream, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createHash, randomUUID } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { gunzipSync, gzipSync } from 'node:zlib';
import { archiveStream } from './archive-out';

export const folder = mkdtempSync(join(tmpdir(), 'red-plumb-test-archive-'));

/** A shop's archive as a file. */
export async function savedArchive(url: string, shopId: string): Promise<string> {
  const path = join(folder, `${randomUUID()}.gz`);
  await pipeline(archiveStream(url, shopId), createWriteStream(path));
  return path;
}

/** Lines of an archive: its head, its rows, its foot. */
export const linesOf = (path: string): readonly string[] =>
  gunzipSync(readFileSync(path)).toString().trimEnd().split('\n');

/** What it holds, without when it was made. */
export const rowsOf = (path: string): readonly string[] => linesOf(path).slice(1, -1);

const written = (text: string): string => {
  const path = join(folder, `${randomUUID()}.gz`);
  writeFileSync(path, gzipSync(text));
  return path;
};

/** An archive with other lines, whose end says whatever it said. */
export const edited = (path: string, change: (lines: readonly string[]) => readonly string[]): string =>
  written(`${change(linesOf(path)).join('\n')}\n`);

/** An archive with other lines and an end that fits them: what somebody makes who knows the format. */
export function forged(path: string, change: (rows: readonly string[]) => readonly string[]): string {
  const [head = '', ...rest] = linesOf(path);
  const rows = change(rest.slice(0, -1));
  const counts: Record<string, number> = {};
  for (const row of rows) {
    const table = /^\["([^"]*)"/.exec(row)?.[1] ?? '';
    counts[table] = (counts[table] ?? 0) + 1;
  }
  const said = { ...(JSON.parse(head) as Record<string, unknown>), rows: counts };
  const text = `${[JSON.stringify(said), ...rows].join('\n')}\n`;
  const sha256 = createHash('sha256').update(text).digest('hex');
  return written(`${text}${JSON.stringify({ rows: rows.length, sha256 })}\n`);
}
