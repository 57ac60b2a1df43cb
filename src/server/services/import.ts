import 'server-only';
import { and, eq, inArray } from 'drizzle-orm';
import { v5 as namedUuid } from 'uuid';
import {
  MOST_IMPORT_LINES,
  MOST_PREVIEWED,
  type ImportKind,
  type ImportLook,
  type ImportTableInput,
} from '@/contracts/import';
import type { UnitSystem } from '@/core/units/length';
import type { Database, Session } from '@/db/client';
import { findMaterials, findSetups } from '@/db/queries/shop';
import { testCut } from '@/db/schema/floor';
import { setup } from '@/db/schema/machines';
import { material, person } from '@/db/schema/shop';
import { dailyCheck, dailyCheckTakenBack } from '@/db/schema/trust';
import { readTable, type TableProblem } from '@/formats/csv/read-table';
import { now } from '../clock';
import type { Actor } from './actor';
import { IMPORT_COLUMNS } from './import-columns';
import { rowFrom, type ImportRow } from './import-rows';

const TABLES = { 'daily-checks': dailyCheck, 'test-cuts': testCut, materials: material } as const;

/** Ids that stand in the shop already: the same lines were taken in before. */
async function idsHere(session: Session, what: ImportKind, ids: readonly string[]): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const table = TABLES[what];
  const rows = await session
    .select({ id: table.id })
    .from(table)
    .where(inArray(table.id, [...ids]));
  return new Set(rows.map((r) => r.id));
}

interface Numbered {
  readonly line: number;
  readonly row: ImportRow;
}

/** Lines that stand here already, and those that stand in the table twice. */
function repeated(rows: readonly Numbered[], here: ReadonlySet<string>): readonly TableProblem[] {
  const seen = new Map<string, number>();
  return rows.flatMap(({ line, row }) => {
    const before = seen.get(row.value.id);
    seen.set(row.value.id, line);
    if (before !== undefined) return [{ line, field: 'line', words: `The same stands in line ${String(before)}.` }];
    return here.has(row.value.id) ? [{ line, field: 'line', words: 'This line was taken in before.' }] : [];
  });
}

/** Lines that were taken in and taken back come in afresh, under ids of their own: what was taken back stays so. */
async function afresh(session: Session, rows: readonly Numbered[]): Promise<readonly Numbered[]> {
  const ids = rows.map((r) => r.row.value.id);
  const back = await session
    .select({ id: dailyCheckTakenBack.dailyCheckId })
    .from(dailyCheckTakenBack)
    .where(inArray(dailyCheckTakenBack.dailyCheckId, ids));
  if (back.length === 0) return rows;
  const taken = new Set(back.map((b) => b.id));
  const next = rows.map((r) =>
    taken.has(r.row.value.id)
      ? { ...r, row: { ...r.row, value: { ...r.row.value, id: namedUuid('again', r.row.value.id) } } as ImportRow }
      : r,
  );
  return afresh(session, next);
}

const AT_ONCE = 500;

async function keep(session: Session, what: ImportKind, rows: readonly Numbered[]): Promise<void> {
  const values = rows.map((r) => r.row.value);
  for (let i = 0; i < values.length; i += AT_ONCE)
    await session.insert(TABLES[what]).values(values.slice(i, i + AT_ONCE) as never);
}

/** What the lines are understood as. */
function understood(input: ImportTableInput, system: UnitSystem) {
  const columns = IMPORT_COLUMNS[input.what];
  return readTable(input.text, { columns, system, isDayFirst: input.isDayFirst, mostLines: MOST_IMPORT_LINES });
}

/**
 * A table from another tool: looked at, or kept. All of its lines are kept or none; a single one that is not understood keeps
 * all of them out and is told with its line and field.
 */
export async function importTable(
  database: Database,
  { personId, shopId, system }: Actor & { readonly shopId: string; readonly system: UnitSystem },
  input: ImportTableInput,
): Promise<ImportLook> {
  const table = understood(input, system);
  const isBroken = new Set(table.problems.map((p) => p.line));
  return database.transaction(async (session) => {
    const [setups, materials] = [await findSetups(session, shopId), await findMaterials(session, shopId)];
    const place = { shopId, personId, now: now(), setups, materials };
    const made: Numbered[] = [];
    const problems = [...table.problems];
    for (const line of table.lines.filter((l) => !isBroken.has(l.line))) {
      const one = rowFrom[input.what](place, line);
      if ('row' in one) made.push({ line: line.line, row: one.row });
      else problems.push({ line: line.line, ...one.problem });
    }
    const rows = input.what === 'daily-checks' ? await afresh(session, made) : made;
    const ids = rows.map((r) => r.row.value.id);
    problems.push(...repeated(rows, await idsHere(session, input.what, ids)));
    const isKept = input.isKept && problems.length === 0;
    if (isKept) await keep(session, input.what, rows);
    return {
      heads: table.heads,
      problems: problems.sort((a, b) => a.line - b.line),
      preview: table.lines.slice(0, MOST_PREVIEWED).map(({ line, cells }) => ({ line, cells })),
      lines: table.lines.length,
      kept: isKept ? ids : [],
    };
  });
}

/** Daily checks that were taken in count no more; they stay in the record. */
export async function takeBackImport(database: Database, actor: Actor, ids: readonly string[]): Promise<number> {
  if (ids.length === 0) return 0;
  // Only those of the shop that this person belongs to.
  const here = await database
    .select({ id: dailyCheck.id })
    .from(dailyCheck)
    .innerJoin(setup, eq(setup.id, dailyCheck.setupId))
    .innerJoin(person, eq(person.shopId, setup.shopId))
    .where(and(eq(person.id, actor.personId), inArray(dailyCheck.id, [...ids])));
  if (here.length === 0) return 0;
  await database
    .insert(dailyCheckTakenBack)
    .values(here.map(({ id }) => ({ dailyCheckId: id, at: now(), by: actor.personId })))
    .onConflictDoNothing();
  return here.length;
}
