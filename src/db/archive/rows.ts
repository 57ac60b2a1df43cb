import 'server-only';
import type { ClientBase } from 'pg';
import { DOOR_TABLES, SHOP_TABLES, type ShopTable } from './shop-tables';

/** One row as it travels: its table, and the whole line `["table", {...}]` in the database's own canonical form. */
export interface RowLine {
  readonly table: string;
  readonly line: string;
}

const ROWS_AT_ONCE = 500;
const LARGE_ROWS_AT_ONCE = 1;

const quoted = (name: string): string => `"${name}"`;

/** Names of the tables that stand in this database. */
export async function tablesHere(client: ClientBase): Promise<ReadonlySet<string>> {
  const { rows } = await client.query<{ table_name: string }>(
    `select table_name from information_schema.tables where table_schema = current_schema() and table_type = 'BASE TABLE'
     and table_name <> '__drizzle_migrations'`,
  );
  return new Set(rows.map((r) => r.table_name));
}

/** Begins a look at one moment of the database: whatever is written meanwhile is not seen. Moments are given in UTC. */
export async function beginLook(client: ClientBase): Promise<void> {
  await client.query('begin transaction isolation level repeatable read read only');
  await client.query(`set local timezone = 'UTC'`);
  await client.query('set local extra_float_digits = 1');
}

const select = (table: ShopTable): string => {
  const left = (table.leftOut ?? []).map((c) => ` - '${c}'`).join('');
  const order = table.orderBy ?? table.key.map(quoted).join(', ');
  return `select jsonb_build_array('${table.name}', to_jsonb(t)${left})::text as line
    from (select * from ${quoted(table.name)} where ${table.where} order by ${order}) t`;
};

/** Rows of one shop, table after table, each in its own order. To be called within `beginLook`. */
export async function* shopRows(client: ClientBase, shopId: string): AsyncGenerator<RowLine> {
  const here = await tablesHere(client);
  for (const table of SHOP_TABLES) {
    if (!here.has(table.name)) continue;
    // A cursor takes no parameters: the id is a uuid and is told as text.
    const where = select(table).replaceAll('$1', `'${shopId.replaceAll("'", "''")}'::uuid`);
    await client.query(`declare archive_rows no scroll cursor for ${where}`);
    const fetch = () => {
      const count = table.isLarge ? LARGE_ROWS_AT_ONCE : ROWS_AT_ONCE;
      const asked = client.query<{ line: string }>(`fetch ${count} from archive_rows`);
      // Whoever ends before the last row does not wait for those that were asked for.
      asked.catch(() => undefined);
      return asked;
    };
    // The next rows are found while these are written.
    for (let next = fetch(); ;) {
      const { rows } = await next;
      if (rows.length === 0) break;
      next = fetch();
      for (const { line } of rows) yield { table: table.name, line };
    }
    await client.query('close archive_rows');
  }
}

/** How many rows of each table a shop has. */
export async function countRows(client: ClientBase, shopId: string): Promise<Readonly<Record<string, number>>> {
  const here = await tablesHere(client);
  const counts: Record<string, number> = {};
  for (const { name, where } of SHOP_TABLES.filter((t) => here.has(t.name))) {
    const { rows } = await client.query<{ n: string }>(`select count(*) as n from ${quoted(name)} where ${where}`, [
      shopId,
    ]);
    counts[name] = Number(rows[0]?.n ?? 0);
  }
  return counts;
}

/** Who may come in from beyond this machine: rows of no shop, as they travel from database to database. */
export async function* doorRows(client: ClientBase): AsyncGenerator<RowLine> {
  for (const name of DOOR_TABLES) {
    const { rows } = await client.query<{ line: string }>(
      `select jsonb_build_array('${name}', to_jsonb(t))::text as line from ${quoted(name)} t order by to_jsonb(t)::text`,
    );
    for (const { line } of rows) yield { table: name, line };
  }
}

/** Columns of every table, those left out that the database counts by itself. */
export async function columnsHere(client: ClientBase): Promise<ReadonlyMap<string, readonly string[]>> {
  const { rows } = await client.query<{ table_name: string; column_name: string }>(
    `select table_name, column_name from information_schema.columns
     where table_schema = current_schema() and is_identity = 'NO' order by table_name, ordinal_position`,
  );
  const columns = new Map<string, string[]>();
  for (const { table_name: table, column_name: column } of rows)
    columns.set(table, [...(columns.get(table) ?? []), column]);
  return columns;
}

/** A table's rows put in as they came, in their order. @param rows JSON texts of one object each. */
export async function putRows(
  client: ClientBase,
  table: string,
  columns: readonly string[],
  rows: readonly string[],
): Promise<void> {
  const list = columns.map(quoted).join(', ');
  await client.query(
    `insert into ${quoted(table)} (${list}) select ${list}
     from rows from (jsonb_populate_recordset(null::${quoted(table)}, $1::jsonb)) with ordinality order by ordinality`,
    [`[${rows.join(',')}]`],
  );
}
