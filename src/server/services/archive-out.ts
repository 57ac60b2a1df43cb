import 'server-only';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { createGzip } from 'node:zlib';
import type { Client } from 'pg';
import { ARCHIVE_FORMAT, ARCHIVE_VERSION, type ArchiveHead } from '@/contracts/archive';
import { connect } from '@/db/archive/databases';
import { newestMigration } from '@/db/migrations';
import { beginLook, countRows, shopRows } from '@/db/archive/rows';
import { now } from '../clock';

/** The newest migration that a database has had. */
export async function schemaOf(client: Client): Promise<string> {
  const schema = await newestMigration(client);
  if (schema === null) throw new Error('the database has migrations that this version does not know');
  return schema;
}

/** What an archive says of itself. To be called within `beginLook`. Null where there is no such shop. */
async function headOf(client: Client, shopId: string): Promise<ArchiveHead | null> {
  const { rows } = await client.query<ArchiveHead['shop']>(
    'select id, name, is_demo as "isDemo" from shop where id = $1',
    [shopId],
  );
  const [shop] = rows;
  if (!shop) return null;
  return {
    ...{ format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, schema: await schemaOf(client) },
    ...{ madeAt: now().toISOString(), shop, rows: await countRows(client, shopId) },
  };
}

/** The lines of a whole shop, of one moment: what it is, every row, and what shows that nothing is missing or changed. */
async function* archiveText(client: Client, shopId: string): AsyncGenerator<string> {
  await beginLook(client);
  const head = await headOf(client, shopId);
  if (!head) throw new Error('there is no such shop');
  const hash = createHash('sha256');
  const told = (line: string): string => {
    const text = `${line}\n`;
    hash.update(text);
    return text;
  };
  yield told(JSON.stringify(head));
  let rows = 0;
  for await (const { line } of shopRows(client, shopId)) {
    rows += 1;
    yield told(line);
  }
  yield `${JSON.stringify({ rows, sha256: hash.digest('hex') })}\n`;
}

async function* onItsOwn(url: string, shopId: string): AsyncGenerator<string> {
  const client = await connect(url);
  try {
    yield* archiveText(client, shopId);
  } finally {
    await client.end();
  }
}

/** A whole shop as one gzipped file of JSON lines, made as it is read: however large, little is held. */
export function archiveStream(url: string, shopId: string): Readable {
  const gzip = createGzip();
  const text = Readable.from(onItsOwn(url, shopId), { objectMode: false, highWaterMark: 256 * 1024 });
  text.on('error', (error) => gzip.destroy(error));
  gzip.on('close', () => text.destroy());
  return text.pipe(gzip);
}
