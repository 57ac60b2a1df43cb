import { unmarkFormulas } from './formula-marks';
import { dsvFormat } from 'd3';
import { lengthProblemWords, parseLength, type TypedUnit } from '@/core/units/length';

/** What a column of a table from elsewhere holds. */
export type ColumnKind = 'text' | 'length' | 'number' | 'moment' | 'choice';

export interface TableColumn {
  readonly key: string;
  /** As it stands in the files that are given out here. */
  readonly title: string;
  /** Other heads under which it is known, small letters. */
  readonly alike: readonly string[];
  readonly kind: ColumnKind;
  readonly isRequired: boolean;
  /** Of a choice: what may stand there, and what it means; small letters. */
  readonly choices?: Readonly<Record<string, string>>;
}

export type TableValue = string | number | null;

export interface TableLine {
  /** Line of the text, from 1 for its head. */
  readonly line: number;
  readonly cells: readonly string[];
  /** Lengths in mm, moments in ms; null where the cell is empty. */
  readonly values: Readonly<Record<string, TableValue>>;
}

export interface TableProblem {
  readonly line: number;
  readonly field: string;
  readonly words: string;
}

export interface ReadTable {
  readonly separator: string;
  /** Heads of the file, and the column that each was taken for; null: passed over. */
  readonly heads: readonly { readonly title: string; readonly key: string | null }[];
  readonly lines: readonly TableLine[];
  readonly problems: readonly TableProblem[];
}

export interface TableReading {
  readonly columns: readonly TableColumn[];
  /** Unit of lengths whose head names none. */
  readonly system: TypedUnit;
  /** How a date such as 03/04/2026 is meant. */
  readonly isDayFirst: boolean;
  readonly mostLines: number;
}

const SEPARATORS = ['\t', ';', ',', '|'] as const;
const UNIT = /[\s([]+(mm|cm|in|inch|thou|"|h|hours?|gf)[)\]]*\s*$/i;

interface Head {
  readonly title: string;
  readonly unit: string;
  readonly column: TableColumn | null;
}

const plainTitle = (title: string): string =>
  title
    .trim()
    .toLowerCase()
    .replace(/[_\s]+/g, ' ');

function headOf(title: string, columns: readonly TableColumn[]): Head {
  const whole = plainTitle(title);
  const bare = plainTitle(title.replace(UNIT, ''));
  const known = (words: string): TableColumn | undefined =>
    columns.find(
      (c) =>
        plainTitle(c.title) === words || plainTitle(c.title.replace(UNIT, '')) === words || c.alike.includes(words),
    );
  return { title: title.trim(), unit: UNIT.exec(title)?.[1] ?? '', column: known(whole) ?? known(bare) ?? null };
}

/** The separator by which most heads are known; where several know as many, the one that parts the line into most. */
function bestSeparator(
  text: string,
  columns: readonly TableColumn[],
): { separator: string; rows: readonly string[][] } {
  const tried = SEPARATORS.map((separator) => {
    const rows = dsvFormat(separator).parseRows(text);
    const heads = rows[0] ?? [];
    return { separator, rows, known: heads.filter((h) => headOf(h, columns).column).length, parts: heads.length };
  });
  return tried.reduce((best, t) =>
    t.known > best.known || (t.known === best.known && t.parts > best.parts) ? t : best,
  );
}

/** A number with a point or a comma as its decimal sign, thousands parted by the other one or by a space. Null: none. */
export function parseDecimal(text: string): number | null {
  const bare = text
    .trim()
    .replace(/[\s\u00a0\u202f]/g, '')
    .replace('\u2212', '-');
  const [comma, point] = [bare.lastIndexOf(','), bare.lastIndexOf('.')];
  let plain = bare;
  if (comma >= 0 && point >= 0) {
    const thousands = comma > point ? '.' : ',';
    if (!/^[+-]?\d{1,3}([.,]\d{3})*[.,]\d+$/.test(bare)) return null;
    plain = bare.replaceAll(thousands, '').replace(',', '.');
  } else if (comma >= 0) plain = bare.replace(',', '.');
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : null;
}

const MOMENT = /^(\d{4})-(\d{2})-(\d{2})(?:[T ](\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?(Z|[+-]\d{2}:?\d{2})?)?$/;
const DATE = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[ ,]+(\d{1,2}):(\d{2}))?$/;
const NOON = 12;

/** A day that there is, as ms UTC; null where there is none. */
function utcOf([year, month, day, hour, minute, second]: readonly [number, number, number, number, number, number]) {
  const ms = Date.UTC(year, month - 1, day, hour, minute, second);
  const back = new Date(ms);
  const isReal = back.getUTCMonth() === month - 1 && back.getUTCDate() === day && hour < 24 && minute < 60;
  return isReal ? ms : null;
}

/** ISO 8601, or a date with its parts by points or strokes. A day without an hour is taken at noon; without a zone, in UTC. */
export function parseMoment(text: string, isDayFirst: boolean): number | null {
  const bare = text.trim();
  const iso = MOMENT.exec(bare);
  if (iso) {
    const [, year, month, day, hour, minute, second, zone] = iso;
    const n = (part: string | undefined, otherwise: number): number => (part === undefined ? otherwise : Number(part));
    const ms = utcOf([Number(year), Number(month), Number(day), n(hour, NOON), n(minute, 0), n(second, 0)]);
    if (ms === null || zone === undefined || zone === 'Z') return ms;
    const sign = zone.startsWith('-') ? -1 : 1;
    return ms - sign * (60 * Number(zone.slice(1, 3)) + Number(zone.slice(-2))) * 60_000;
  }
  const parts = DATE.exec(bare);
  if (!parts) return null;
  const [, first, second, year, hour, minute] = parts;
  // Points are used where the day comes first, whatever else is said.
  const isDay = isDayFirst || bare.includes('.');
  const [day, month] = isDay ? [first, second] : [second, first];
  return utcOf([Number(year), Number(month), Number(day), Number(hour ?? NOON), Number(minute ?? 0), 0]);
}

type Taken = { readonly value: TableValue } | { readonly wrong: string };

function takeLength(text: string, unit: string, system: TypedUnit): Taken {
  const hasUnit = /[a-z"]/i.test(text);
  const parsed = parseLength(hasUnit ? text : `${text} ${unit}`, system);
  return parsed.ok ? { value: parsed.value } : { wrong: lengthProblemWords(parsed.error, system) };
}

function takeCell(text: string, { unit }: Head, column: TableColumn, reading: TableReading): Taken {
  switch (column.kind) {
    case 'text':
      // A mark that a spreadsheet was shown, so that it takes words for words.
      return { value: unmarkFormulas(text) };
    case 'length':
      return takeLength(text, unit, reading.system);
    case 'number': {
      const value = parseDecimal(text);
      return value === null ? { wrong: `"${text}" is no number.` } : { value };
    }
    case 'moment': {
      const value = parseMoment(text, reading.isDayFirst);
      return value === null ? { wrong: `"${text}" is no day: write it as 2026-11-26, or as 26.11.2026.` } : { value };
    }
    case 'choice': {
      const value = column.choices?.[text.toLowerCase()];
      const all = [...new Set(Object.values(column.choices ?? {}))].join(', ');
      return value === undefined ? { wrong: `"${text}" is none of: ${all}.` } : { value };
    }
  }
}

function lineOf(
  cells: readonly string[],
  line: number,
  heads: readonly Head[],
  reading: TableReading,
): { readonly line: TableLine; readonly problems: readonly TableProblem[] } {
  const values: Record<string, TableValue> = Object.fromEntries(reading.columns.map((c) => [c.key, null]));
  const problems: TableProblem[] = [];
  for (const [i, head] of heads.entries()) {
    const text = cells[i]?.trim() ?? '';
    if (!head.column || text === '') continue;
    const taken = takeCell(text, head, head.column, reading);
    if ('wrong' in taken) problems.push({ line, field: head.title, words: taken.wrong });
    else values[head.column.key] = taken.value;
  }
  for (const { key, title, isRequired } of reading.columns)
    if (
      isRequired &&
      values[key] === null &&
      !problems.some((p) => plainTitle(p.field).startsWith(plainTitle(title).replace(UNIT, '')))
    )
      problems.push({ line, field: title, words: 'Nothing stands there, and it is needed.' });
  return { line: { line, cells, values }, problems };
}

/** What is wrong with the heads: none known, one that is needed missing, one told twice. */
function headProblems(heads: readonly Head[], columns: readonly TableColumn[]): readonly TableProblem[] {
  const missing = columns.filter((c) => c.isRequired && heads.every((h) => h.column?.key !== c.key));
  const twice = heads.filter((h, i) => h.column && heads.findIndex((o) => o.column?.key === h.column?.key) < i);
  return [
    ...missing.map((c) => ({
      ...{ line: 1, field: c.title },
      words: `No column of the file is called that, nor ${c.alike.join(' nor ')}. Its first line must name the columns.`,
    })),
    ...twice.map((h) => ({ line: 1, field: h.title, words: 'Another column is taken for the same.' })),
  ];
}

/**
 * A table from elsewhere: separated by tab, semicolon, comma or stroke, with a point or a comma as the decimal sign, units in
 * its head or in its cells. Whatever cannot be understood is told with its line and field; nothing is guessed.
 */
export function readTable(text: string, reading: TableReading): ReadTable {
  const { separator, rows } = bestSeparator(text.replace(/^\ufeff/, ''), reading.columns);
  const heads = (rows[0] ?? []).map((title) => headOf(title, reading.columns));
  const problems = [...headProblems(heads, reading.columns)];
  const filled = rows
    .slice(1)
    .flatMap((cells, i) => (cells.some((c) => c.trim() !== '') ? [{ cells, line: i + 2 }] : []));
  if (filled.length > reading.mostLines)
    problems.push({
      line: reading.mostLines + 2,
      field: 'lines',
      words: `At most ${String(reading.mostLines)} lines at once: part the file.`,
    });
  if (filled.length === 0) problems.push({ line: 1, field: 'lines', words: 'No line follows the head.' });
  const read = problems.length > 0 ? [] : filled.map(({ cells, line }) => lineOf(cells, line, heads, reading));
  return {
    separator,
    heads: heads.map((h) => ({ title: h.title, key: h.column?.key ?? null })),
    lines: read.map((r) => r.line),
    problems: [...problems, ...read.flatMap((r) => r.problems)],
  };
}
