import 'server-only';
import type { HistoryQueryInput } from '@/contracts/history';
import type { Database } from '@/db/client';
import { writeTable } from '@/formats/csv/write-table';
import type { MadeFile } from './files';
import { readRecord, type RecordLine } from './shop-record';

/** More lines than any shop looks through; the archive holds everything. */
const MOST_LINES = 20_000;

const HEAD = ['at', 'kind', 'of', 'material', 'words', 'worst mm', 'bound mm', 'allowed mm', 'by', 'id'];

const cells = (line: RecordLine) => [
  ...[line.at.toISOString(), line.kind, line.thing, line.materialName, line.words],
  ...[line.worstMm, line.upperMm, line.toleranceMm, line.by, line.id],
];

/** The history as it is asked for, as a file: CSV with units in its head, or JSON. Lengths in mm, moments in UTC. */
export async function recordFile(
  database: Database,
  shopId: string,
  query: HistoryQueryInput,
  format: 'csv' | 'json',
): Promise<MadeFile> {
  const { lines } = await readRecord(database, shopId, query, MOST_LINES);
  if (format === 'csv')
    return { name: 'history.csv', mediaType: 'text/csv; charset=utf-8', body: writeTable(HEAD, lines.map(cells)) };
  return { name: 'history.json', mediaType: 'application/json', body: `${JSON.stringify({ lines }, null, 1)}\n` };
}
