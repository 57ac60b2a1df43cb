import 'server-only';
import type { ListName } from '@/contracts/lists';
import type { Database } from '@/db/client';
import { findList, type ListCell } from '@/db/queries/lists';
import { writeTable } from '@/formats/csv/write-table';
import type { MadeFile } from './files';

const cell = (value: ListCell | undefined): string | number | null => {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return value ?? null;
};

/** A list of the shop as a file: CSV with units in its head, or JSON. Lengths in mm, moments in UTC. */
export async function listFile(
  database: Database,
  shopId: string,
  { what, format }: { readonly what: ListName; readonly format: 'csv' | 'json' },
): Promise<MadeFile> {
  const { head, rows } = await findList(database, what, shopId);
  if (format === 'json')
    return {
      name: `${what}.json`,
      mediaType: 'application/json',
      body: `${JSON.stringify({ lines: rows }, null, 1)}\n`,
    };
  const lines = rows.map((row) => head.map((name) => cell(row[name])));
  return { name: `${what}.csv`, mediaType: 'text/csv; charset=utf-8', body: writeTable(head, lines) };
}
