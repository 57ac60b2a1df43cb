import 'server-only';
import type { Client } from 'pg';
import type { ArchiveHead } from '@/contracts/archive';
import { onConnection } from '@/db/archive/databases';
import { SHARED_TABLES } from '@/db/archive/shop-tables';
import { beginLook, doorRows, shopRows, tablesHere, type RowLine } from '@/db/archive/rows';
import { fill, firstDifference, summed, sumsOf, type Sums } from './archive-fill';

interface ShopName {
  readonly id: string;
  readonly name: string;
}

/** The shop here whose place an archive takes: the same one, or the demo for a demo. */
export async function replacedBy(client: Client, head: ArchiveHead): Promise<ShopName | null> {
  const { rows } = await client.query<ShopName>(
    'select id, name from shop where id = $1 or (is_demo and $2) order by id = $1 desc',
    [head.shop.id, head.shop.isDemo],
  );
  return rows[0] ?? null;
}

async function otherShops(client: Client, leftOut: string): Promise<readonly string[]> {
  const { rows } = await client.query<{ id: string }>('select id from shop where id <> $1 order by made_at, id', [
    leftOut,
  ]);
  return rows.map((r) => r.id);
}

type SheetIds = ReadonlyMap<string, string>;

async function sheetIds(from: Client, to: Client): Promise<SheetIds> {
  const ask = `select id, encode(content_sha256, 'hex') as hash from sheet_definition`;
  const [here, there] = [
    await from.query<{ id: string; hash: string }>(ask),
    await to.query<{ id: string; hash: string }>(ask),
  ];
  const byHash = new Map(there.rows.map((r) => [r.hash, r.id]));
  return new Map(here.rows.flatMap(({ id, hash }) => (byHash.has(hash) ? [[id, byHash.get(hash) ?? id]] : [])));
}

const SHEET_ID = /"(sheet_definition_id)": "([0-9a-f-]{36})"/;

/** Rows of another shop as they stand beside the archive's: shared sheets that are there already are passed over. */
async function* besides(rows: AsyncIterable<RowLine>, known: SheetIds): AsyncGenerator<RowLine> {
  for await (const { table, line } of rows) {
    const named = table === 'sheet_definition' ? /"id": "([0-9a-f-]{36})"/.exec(line)?.[1] : SHEET_ID.exec(line)?.[2];
    const there = named === undefined ? undefined : known.get(named);
    if (there !== undefined && SHARED_TABLES.has(table)) continue;
    if (there === undefined || !SHEET_ID.test(line)) yield { table, line };
    else yield { table, line: line.replace(SHEET_ID, `"$1": "${there}"`) };
  }
}

/** Shared sheets are told apart by their content and never change: they are left out of what is compared. */
const withoutShared = (sums: Sums): Sums => new Map([...sums].filter(([table]) => !SHARED_TABLES.has(table)));

const DOOR = 'door';

/** What was copied, by shop, and of the door. */
export interface Copied {
  readonly sums: ReadonlyMap<string, Sums>;
  readonly sheets: ReadonlyMap<string, SheetIds>;
}

/** Copies every other shop, and who may come in, into the database that is being made. */
export async function copyOthers(present: Client, freshUrl: string, leftOut: string): Promise<Copied> {
  const sums = new Map<string, Sums>();
  const sheets = new Map<string, SheetIds>();
  await onConnection(freshUrl, async (fresh) => {
    const copy = async (name: string, rows: AsyncIterable<RowLine>) => {
      const told = new Map<string, { rows: number; sum: bigint }>();
      await fill(fresh, summed(rows, told), { isChecked: false });
      sums.set(name, told);
    };
    await beginLook(present);
    for (const shopId of await otherShops(present, leftOut)) {
      const known = await sheetIds(present, fresh);
      sheets.set(shopId, known);
      await copy(shopId, besides(shopRows(present, shopId), known));
    }
    await copy(DOOR, doorRows(present));
    await present.query('rollback');
    await beginLook(fresh);
    for (const [name, told] of sums) {
      const there = await sumsOf(name === DOOR ? doorRows(fresh) : shopRows(fresh, name));
      const differs = firstDifference(withoutShared(told), withoutShared(there));
      if (differs !== null) throw new Error(`copying ${differs} of another shop did not give the same`);
    }
    await fresh.query('rollback');
  });
  return { sums, sheets };
}

const PATIENCE_MS = 15_000;

/**
 * Keeps every writer out for as long as this connection lives, and tells whether the other shops are still as they were
 * copied. Readers go on.
 */
export async function holdWriters(present: Client, leftOut: string, copied: Copied): Promise<boolean> {
  const tables = [...(await tablesHere(present))].map((name) => `"${name}"`).join(', ');
  await present.query('begin');
  await present.query(`set local lock_timeout = ${String(PATIENCE_MS)}`);
  await present.query(`set local timezone = 'UTC'`);
  await present.query(`lock table ${tables} in share mode`);
  const shops = await otherShops(present, leftOut);
  if (shops.length !== copied.sums.size - 1) return false;
  for (const name of [...shops, DOOR]) {
    const known = copied.sheets.get(name) ?? new Map<string, string>();
    const rows = name === DOOR ? doorRows(present) : besides(shopRows(present, name), known);
    const was = copied.sums.get(name);
    if (!was || firstDifference(withoutShared(was), withoutShared(await sumsOf(rows))) !== null) return false;
  }
  return true;
}
