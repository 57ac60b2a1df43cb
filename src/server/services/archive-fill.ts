import 'server-only';
import { createHash } from 'node:crypto';
import { DatabaseError, type Client } from 'pg';
import { columnsHere, putRows, type RowLine } from '@/db/archive/rows';
import { rowOf } from '@/formats/archive/split-lines';
import { ArchiveRefused } from './archive-read';
import { checkRow } from './archive-row';

const ROWS_AT_ONCE = 1000;
const LETTERS_AT_ONCE = 4_000_000;

/** What the database says of a row that it does not take, in words that name no machine of ours. */
function refusalOf(table: string, error: unknown): unknown {
  if (!(error instanceof DatabaseError)) return error;
  const code = error.code ?? '';
  // Classes 22 and 23 (data, constraints) and our own guards: the row is at fault. Anything else is not the archive's doing.
  if (!/^(22|23|RP|P0)/.test(code)) return error;
  return new ArchiveRefused(`A row of "${table}" cannot stand: ${error.message}.`);
}

export interface FillOptions {
  /** Rows from outside are held against what their tables take; those of our own database are not. */
  readonly isChecked: boolean;
  readonly onRows?: (count: number) => void;
  readonly signal?: AbortSignal;
}

/**
 * Puts rows into a database, all in one transaction: all of them stand afterwards, or none.
 * @throws ArchiveRefused where a row is not what its table takes, or names what is not there.
 */
export async function fill(client: Client, rows: AsyncIterable<RowLine>, options: FillOptions): Promise<void> {
  const columns = await columnsHere(client);
  let table = '';
  let batch: string[] = [];
  let letters = 0;
  const flush = async (): Promise<void> => {
    if (batch.length === 0) return;
    try {
      await putRows(client, table, columns.get(table) ?? [], batch);
    } catch (error) {
      throw refusalOf(table, error);
    }
    options.onRows?.(batch.length);
    batch = [];
    letters = 0;
  };
  await client.query('begin');
  try {
    await client.query('set constraints all deferred');
    // Checks come with their end: what belongs to them is put in after it.
    await client.query(`select set_config('red_plumb.fills', 'on', true)`);
    for await (const row of rows) {
      options.signal?.throwIfAborted();
      const object = rowOf(row.line)?.object ?? '';
      if (options.isChecked) checkRow(row.table, object, columns.get(row.table) ?? []);
      if (row.table !== table || batch.length >= ROWS_AT_ONCE || letters + object.length > LETTERS_AT_ONCE)
        await flush();
      table = row.table;
      batch.push(object);
      letters += object.length;
    }
    await flush();
    await client.query('commit').catch((error: unknown) => {
      throw refusalOf('the whole', error);
    });
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  }
}

/** What rows are, in whatever order they come: equal sums mean equal rows. One for each table. */
export type Sums = ReadonlyMap<string, { readonly rows: number; readonly sum: bigint }>;

const SUM_BITS = 128;

/** A row as a number, by its hash. */
export const rowNumber = (line: string): bigint =>
  BigInt(
    `0x${createHash('sha256')
      .update(line)
      .digest('hex')
      .slice(0, SUM_BITS / 4)}`,
  );

/** Sums of rows as they pass by. */
export async function* summed(
  rows: AsyncIterable<RowLine>,
  sums: Map<string, { rows: number; sum: bigint }>,
): AsyncGenerator<RowLine> {
  for await (const row of rows) {
    const before = sums.get(row.table) ?? { rows: 0, sum: 0n };
    sums.set(row.table, { rows: before.rows + 1, sum: BigInt.asUintN(SUM_BITS, before.sum + rowNumber(row.line)) });
    yield row;
  }
}

export async function sumsOf(rows: AsyncIterable<RowLine>): Promise<Sums> {
  const sums = new Map<string, { rows: number; sum: bigint }>();
  const passing = summed(rows, sums);
  while ((await passing.next()).done !== true);
  return sums;
}

/** The first table whose rows differ, or null where all are equal. */
export function firstDifference(a: Sums, b: Sums): string | null {
  for (const name of new Set([...a.keys(), ...b.keys()])) {
    const [left, right] = [a.get(name), b.get(name)];
    if (left?.rows !== right?.rows || left?.sum !== right?.sum) return name;
  }
  return null;
}
