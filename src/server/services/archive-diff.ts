import 'server-only';
import type { Client } from 'pg';
import type { GroupChange, SettingChange } from '@/contracts/archive';
import { settingUnitWord, type SettingUnit } from '@/core/setting/machine-setting';
import { beginLook, shopRows } from '@/db/archive/rows';
import { RECORD_GROUPS, SHOP_TABLES, type ShopTable } from '@/db/archive/shop-tables';
import { rowOf } from '@/formats/archive/split-lines';
import { firstDifference, rowNumber, sumsOf, type Sums } from './archive-fill';

/** One side of a comparison: a connection, and whose rows; no shop: nothing to compare with. */
export interface Side {
  readonly client: Client;
  readonly shopId: string | null;
}

/** Everything of one side, looked at in one moment. */
async function look<T>({ client, shopId }: Side, work: (shopId: string) => Promise<T>, nothing: T): Promise<T> {
  if (shopId === null) return nothing;
  await beginLook(client);
  try {
    return await work(shopId);
  } finally {
    await client.query('rollback');
  }
}

const keyOf = (table: ShopTable, object: string): string => {
  const row = JSON.parse(object) as Readonly<Record<string, unknown>>;
  return table.key.map((column) => String(row[column])).join(' ');
};

/** Rows of the tables that differ, by their keys. */
async function rowsByKey(side: Side, tables: ReadonlyMap<string, ShopTable>) {
  const found = new Map<string, Map<string, bigint>>();
  const all = async (shopId: string) => {
    for await (const { table: name, line } of shopRows(side.client, shopId)) {
      const table = tables.get(name);
      const object = table && rowOf(line)?.object;
      if (!table || object === undefined) continue;
      const rows = found.get(name) ?? new Map<string, bigint>();
      rows.set(keyOf(table, object), rowNumber(line));
      found.set(name, rows);
    }
    return found;
  };
  return look(side, all, found);
}

interface Counts {
  onlyHere: number;
  onlyInArchive: number;
  different: number;
}

const NONE: ReadonlyMap<string, bigint> = new Map();

function changesBetween(here: ReadonlyMap<string, bigint>, there: ReadonlyMap<string, bigint>): Counts {
  const counts = { onlyHere: 0, onlyInArchive: 0, different: 0 };
  for (const [key, value] of here) {
    const other = there.get(key);
    if (other === undefined) counts.onlyHere += 1;
    else if (other !== value) counts.different += 1;
  }
  for (const key of there.keys()) if (!here.has(key)) counts.onlyInArchive += 1;
  return counts;
}

const isEqual = (a: Sums, b: Sums, name: string): boolean => {
  const only = (sums: Sums): Sums => new Map([...sums].filter(([table]) => table === name));
  return firstDifference(only(a), only(b)) === null;
};

/** How many rows of each kind of record stand here and in the archive, and how many would come, go and change. */
export async function groupChanges(here: Side, there: Side): Promise<readonly GroupChange[]> {
  const nothing: Sums = new Map();
  const sums = (side: Side) => look(side, (shopId) => sumsOf(shopRows(side.client, shopId)), nothing);
  const [a, b] = [await sums(here), await sums(there)];
  const differing = new Map(SHOP_TABLES.filter((t) => !isEqual(a, b, t.name)).map((t) => [t.name, t]));
  const [rowsHere, rowsThere] = [await rowsByKey(here, differing), await rowsByKey(there, differing)];
  return RECORD_GROUPS.map((group) => {
    const total = { group, here: 0, inArchive: 0, onlyHere: 0, onlyInArchive: 0, different: 0 };
    for (const { name } of SHOP_TABLES.filter((t) => t.group === group)) {
      total.here += a.get(name)?.rows ?? 0;
      total.inArchive += b.get(name)?.rows ?? 0;
      const counts = changesBetween(rowsHere.get(name) ?? NONE, rowsThere.get(name) ?? NONE);
      total.onlyHere += counts.onlyHere;
      total.onlyInArchive += counts.onlyInArchive;
      total.different += counts.different;
    }
    return total;
  });
}

interface PresentValue {
  readonly id: string;
  readonly owner: string;
  readonly setting: string;
  readonly unit: SettingUnit;
  readonly value: number | null;
}

async function presentValues(side: Side): Promise<readonly PresentValue[]> {
  const all = async (shopId: string) => {
    const { rows } = await side.client.query<PresentValue>(
      `select m.id, coalesce(c.name, p.name) as owner, m.display_name as setting, m.unit,
         (select v.value from setting_value v where v.machine_setting_id = m.id order by v.seq desc limit 1) as value
       from machine_setting m left join cutter c on c.id = m.cutter_id left join program p on p.id = m.program_id
       where coalesce(c.shop_id, p.shop_id) = $1 order by 2, m.position`,
      [shopId],
    );
    return rows;
  };
  return look<readonly PresentValue[]>(side, all, []);
}

/**
 * Settings whose value the record would tell otherwise: the machines are not put back with it, so a person must read them off.
 * One that stands on one side alone is told as well.
 */
export async function settingChanges(here: Side, there: Side): Promise<readonly SettingChange[]> {
  const [a, b] = [await presentValues(here), await presentValues(there)];
  const now = new Map(a.map((v) => [v.id, v]));
  const then = new Map(b.map((v) => [v.id, v]));
  return [...new Map([...then, ...now]).values()].flatMap(({ id, owner, setting, unit }) => {
    const [left, right] = [now.get(id)?.value ?? null, then.get(id)?.value ?? null];
    return left === right || left === null
      ? []
      : [{ owner, setting, unit: settingUnitWord(unit), here: left, inArchive: right }];
  });
}
