import 'server-only';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { createGunzip } from 'node:zlib';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, ArchiveFoot, ArchiveHead } from '@/contracts/archive';
import { migrationNames } from '@/db/migrations';
import type { RowLine } from '@/db/archive/rows';
import { SHOP_TABLES } from '@/db/archive/shop-tables';
import { WorkRefused } from './progress-response';
import { rowOf, splitLines } from '@/formats/archive/split-lines';

/** Why an archive is not put in: told to the person as it is. Nothing of it has been kept. */
export class ArchiveRefused extends WorkRefused {}

/** More than this is unpacked of no archive: a small file may be made to unpack without end. */
const MOST_BYTES = 16 * 1024 ** 3;

const CUT_SHORT =
  'The archive is cut short: its end is missing. Copy or download it once more, or take another archive.';
const EDITED =
  'The archive is not as it was made: its contents do not give the hash at its end. Take an archive that nobody has changed.';
const NO_ARCHIVE = 'This file is no archive of Red Plumb. Choose a file that "Save the whole shop" gave.';

/** The first version whose rows can be put in: those before made no archives. */
const FIRST_SCHEMA = '0022_archive';

function checkHead(line: string): ArchiveHead {
  let said: unknown;
  try {
    said = JSON.parse(line);
  } catch {
    throw new ArchiveRefused(NO_ARCHIVE);
  }
  if (typeof said !== 'object' || said === null || !('format' in said) || said.format !== ARCHIVE_FORMAT)
    throw new ArchiveRefused(NO_ARCHIVE);
  const newer = (what: string) =>
    new ArchiveRefused(`The archive was made by a newer Red Plumb (${what}). Bring this one up to date first.`);
  if ('version' in said && typeof said.version === 'number' && said.version > ARCHIVE_VERSION)
    throw newer(`archive version ${String(said.version)}; this one reads up to ${String(ARCHIVE_VERSION)}`);
  const head = ArchiveHead.safeParse(said);
  if (!head.success) throw new ArchiveRefused('The first line of the archive is not as Red Plumb writes it.');
  const known = migrationNames();
  if (!known.includes(head.data.schema)) throw newer(`its tables are of ${head.data.schema}`);
  if (known.indexOf(head.data.schema) < known.indexOf(FIRST_SCHEMA))
    throw new ArchiveRefused('The archive says that it is older than the first version that made archives.');
  return head.data;
}

/** What unpacking says, in our words. */
const unpackingRefusal = (error: unknown): unknown => {
  const code = typeof error === 'object' && error !== null && 'code' in error ? error.code : null;
  if (code === 'Z_BUF_ERROR') return new ArchiveRefused(CUT_SHORT);
  if (code === 'Z_DATA_ERROR') return new ArchiveRefused(`${NO_ARCHIVE} If it should be one, it was damaged.`);
  if (error instanceof RangeError)
    return new ArchiveRefused('A line of the archive is longer than any that Red Plumb writes.');
  return error;
};

async function* inflated(path: string, mostBytes: number): AsyncGenerator<Uint8Array> {
  const file = createReadStream(path);
  const gunzip = createGunzip();
  file.on('error', (error) => gunzip.destroy(error));
  let bytes = 0;
  for await (const chunk of file.pipe(gunzip) as AsyncIterable<Uint8Array>) {
    bytes += chunk.length;
    if (bytes > mostBytes) throw new ArchiveRefused('The archive unpacks to more than any shop keeps.');
    yield chunk;
  }
  if (gunzip.bytesWritten !== (await stat(path)).size)
    throw new ArchiveRefused('Something was added behind the end of the archive.');
}

/** Rows must come table after table, in the order in which they are written, each of a table that archives hold. */
function tableOrder() {
  let at = 0;
  return (table: string): void => {
    const found = SHOP_TABLES.findIndex((t, i) => i >= at && t.name === table);
    if (found < 0) throw new ArchiveRefused(`The archive has a row of "${table}" where none belongs.`);
    at = found;
  };
}

function rowLine(line: string, number: number): RowLine {
  const row = rowOf(line);
  if (!row) throw new ArchiveRefused(`Line ${String(number)} of the archive is no row.`);
  return { table: row.table, line };
}

function checkFoot(line: string, rows: number, sha256: string): void {
  let said: unknown;
  try {
    said = JSON.parse(line);
  } catch {
    throw new ArchiveRefused(CUT_SHORT);
  }
  const foot = ArchiveFoot.safeParse(said);
  if (!foot.success) throw new ArchiveRefused(CUT_SHORT);
  if (foot.data.sha256 !== sha256 || foot.data.rows !== rows) throw new ArchiveRefused(EDITED);
}

function checkCounts(head: ArchiveHead, counts: ReadonlyMap<string, number>): void {
  const names = new Set([...Object.keys(head.rows), ...counts.keys()]);
  for (const name of names)
    if ((head.rows[name] ?? 0) !== (counts.get(name) ?? 0))
      throw new ArchiveRefused(
        `The archive says that it holds ${String(head.rows[name] ?? 0)} rows of "${name}" and holds ${String(counts.get(name) ?? 0)}.`,
      );
}

export interface ArchiveReading {
  readonly head: ArchiveHead;
  /** SHA-256 of everything before the foot; known once all rows were read. */
  readonly sha256: () => string;
  readonly rows: AsyncGenerator<RowLine>;
}

/**
 * An archive from a file: its head at once, its rows as they are asked for. Nothing is to be believed until the last row has
 * come: what was cut off, changed or added shows at the end.
 * @throws ArchiveRefused with the reason.
 */
export async function readArchive(path: string, mostBytes = MOST_BYTES): Promise<ArchiveReading> {
  const lines = splitLines(inflated(path, mostBytes));
  const hash = createHash('sha256');
  let sha256 = '';
  const nextLine = async (): Promise<string | null> => {
    try {
      const next = await lines.next();
      return next.done === true ? null : Buffer.from(next.value).toString('utf8');
    } catch (error) {
      throw unpackingRefusal(error);
    }
  };
  const first = await nextLine();
  if (first === null) throw new ArchiveRefused(NO_ARCHIVE);
  const head = checkHead(first);
  hash.update(`${first}\n`);

  async function* rows(): AsyncGenerator<RowLine> {
    const inOrder = tableOrder();
    const counts = new Map<string, number>();
    let count = 0;
    let line = await nextLine();
    for (;;) {
      if (line === null) throw new ArchiveRefused(CUT_SHORT);
      const after: string | null = await nextLine();
      if (after === null) break;
      const row = rowLine(line, count + 2);
      inOrder(row.table);
      counts.set(row.table, (counts.get(row.table) ?? 0) + 1);
      count += 1;
      hash.update(`${line}\n`);
      yield row;
      line = after;
    }
    sha256 = hash.digest('hex');
    checkFoot(line, count, sha256);
    checkCounts(head, counts);
  }
  return { head, sha256: () => sha256, rows: rows() };
}

/** Reads an archive to its end without keeping anything: the cheapest way to find what is wrong with it. */
export async function checkArchive(path: string): Promise<{ readonly head: ArchiveHead; readonly sha256: string }> {
  const reading = await readArchive(path);
  for await (const { table, line } of reading.rows)
    if (table === 'shop' && !line.includes(`"id": "${reading.head.shop.id}"`))
      throw new ArchiveRefused('The archive holds another shop than its first line says.');
  return { head: reading.head, sha256: reading.sha256() };
}
