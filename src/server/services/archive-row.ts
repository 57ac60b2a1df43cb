import 'server-only';
import { createHash } from 'node:crypto';
import { z } from 'zod';
import { Draft } from '@/contracts/jobs';
import { PrintSizeShape } from '@/contracts/print-size';
import { SectionWork } from '@/contracts/rolls';
import { StoredOwnTest, StoredScans, StoredSettings, StoredSheet, StoredTruth } from '@/contracts/stored';
import { canonicalJson } from '@/core/target/canonical-json';
import { SHOP_TABLES } from '@/db/archive/shop-tables';
import { ArchiveRefused } from './archive-read';

/** What stands as JSON in a column is checked as strictly as where it is read. */
const JSON_COLUMNS: Readonly<Record<`${string}.${string}`, z.ZodType>> = {
  'sheet_definition.content': StoredSheet,
  'simulated_setup.truth': StoredTruth,
  'cutter.own_test': StoredOwnTest.nullable(),
  'cut_set.settings_snapshot': StoredSettings,
  'roll_run.settings_snapshot': StoredSettings,
  'locked_layout.settings_snapshot': StoredSettings,
  'scan.scans': StoredScans,
  'scan.print_size': PrintSizeShape.nullable(),
  'roll_run.section_work': SectionWork.nullable(),
  'job.draft': Draft,
  'locked_layout.content': z.looseObject({ draft: Draft }),
  'reading.raw': z.unknown(),
};

/** Columns whose bytes must give the hash that stands beside them. */
const HASHED_BYTES = new Set(['job_art', 'locked_file', 'cut_release']);
const HASHED_JSON = new Set(['sheet_definition', 'locked_layout']);

/** Words of people are short; kept files are told apart from them by their column. */
const LONGEST_WORDS = 20_000;
/** Names are shorter still: of files too, as file systems have them. */
const LONGEST_NAME = 255;
const isName = (column: string): boolean => /(^|_)name$/.test(column);

/** Columns that hold a moment, by how they are called. */
const isMoment = (column: string): boolean => /(^|_)at$/.test(column);
/** A moment that a shop can have seen: PostgreSQL also takes "infinity" and years before our own calendar. */
const isSane = (moment: string): boolean => {
  const at = Date.parse(moment);
  return at > Date.UTC(1990, 0) && at < Date.UTC(2200, 0);
};

type Row = Readonly<Record<string, unknown>>;

const sha256 = (bytes: Buffer | string): string => `\\x${createHash('sha256').update(bytes).digest('hex')}`;

function checkHash(table: string, row: Row): void {
  const { content, content_sha256: told } = row;
  let found: unknown = told;
  if (HASHED_BYTES.has(table) && typeof content === 'string') found = sha256(Buffer.from(content.slice(2), 'hex'));
  if (HASHED_JSON.has(table)) found = sha256(canonicalJson(content));
  if (found !== told) throw new ArchiveRefused(`A kept file or sheet in "${table}" does not give the hash beside it.`);
}

function checkColumns(table: string, row: Row, columns: readonly string[]): void {
  const unknown = Object.keys(row).find((name) => !columns.includes(name));
  if (unknown !== undefined)
    throw new ArchiveRefused(`A row of "${table}" has "${unknown.slice(0, 63)}", which is no column.`);
  const missing = columns.find((name) => !(name in row));
  if (missing !== undefined) throw new ArchiveRefused(`A row of "${table}" has no "${missing}".`);
}

/** What is wrong with a value of text, as the end of a sentence; null where nothing is. */
function textProblem(column: string, value: string): string | null {
  if (isMoment(column) && !isSane(value)) return 'is no moment that a shop can have seen';
  if (isName(column) && value.length > LONGEST_NAME) return 'is longer than a name can be';
  return value.length > LONGEST_WORDS && !value.startsWith('\\x') ? 'is longer than anybody writes' : null;
}

function checkValues(table: string, row: Row): void {
  for (const [name, value] of Object.entries(row)) {
    const shape = JSON_COLUMNS[`${table}.${name}`];
    const isAsWritten = shape === undefined || shape.safeParse(value).success;
    const problem = isAsWritten ? null : 'is not as Red Plumb writes it';
    const found = problem ?? (shape === undefined && typeof value === 'string' ? textProblem(name, value) : null);
    if (found !== null) throw new ArchiveRefused(`"${name}" in a row of "${table}" ${found}.`);
  }
}

const TABLES = new Set(SHOP_TABLES.map((t) => t.name));

/** Holds one row of an archive against what its table takes. @param columns those of its table. @throws ArchiveRefused */
export function checkRow(table: string, object: string, columns: readonly string[]): void {
  if (!TABLES.has(table)) throw new ArchiveRefused(`"${table}" is no table of an archive.`);
  let row: unknown;
  try {
    row = JSON.parse(object);
  } catch {
    throw new ArchiveRefused(`A row of "${table}" is not JSON.`);
  }
  const parsed = row as Row;
  checkColumns(table, parsed, columns);
  checkValues(table, parsed);
  checkHash(table, parsed);
}
