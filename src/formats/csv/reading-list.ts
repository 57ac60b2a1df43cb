import { dsvFormat } from 'd3';
import { AXES, type Axis } from '@/core/target/wedge';
import { lengthProblemWords, parseLength, type TypedUnit } from '@/core/units/length';

/** One reading out of a list, with the line it stood in. */
export interface ListedReading {
  readonly line: number;
  readonly spotNo: number;
  readonly axis: Axis;
  readonly readingMm: number;
}

/** What is wrong in one place of a list: the line, the field, and what is expected. */
export interface ListProblem {
  readonly line: number;
  readonly field: string;
  readonly words: string;
}

export interface ReadingList {
  readonly readings: readonly ListedReading[];
  readonly problems: readonly ListProblem[];
}

/** More than any sheet has figures. */
const MOST_LINES = 500;
export const MOST_CHARACTERS = 100_000;
const SEPARATORS = ['\t', ';', ','] as const;

/** The first of tab, semicolon and comma that the first line holds: with the former two a comma may be the decimal sign. */
export const separatorOf = (head: string): string => SEPARATORS.find((s) => head.includes(s)) ?? ',';

interface Column {
  readonly kind: 'spot' | 'axis' | Axis | 'reading';
  readonly title: string;
  /** Unit in the head, as "across (in)" or "across in"; absent: the person's own. */
  readonly unit: string;
}

const UNIT = /[\s([]+(mm|cm|in|inch|thou|")[)\]]*$/i;
const KINDS: readonly (readonly [Column['kind'], RegExp])[] = [
  ['spot', /^(?:spot|figure|no\.?|#)/i],
  ['axis', /^(?:axis|direction)/i],
  ['across', /^(?:across|x\b)/i],
  ['along', /^(?:along|y\b)/i],
  ['reading', /^(?:reading|value|displacement)/i],
];

function columnOf(title: string): Column | null {
  const kind = KINDS.find(([, pattern]) => pattern.test(title.trim()))?.[0];
  return kind ? { kind, title: title.trim(), unit: UNIT.exec(title.trim())?.[1] ?? '' } : null;
}

const AXIS_WORDS: Readonly<Record<string, Axis>> = { across: 'across', x: 'across', along: 'along', y: 'along' };

interface Draft {
  readonly readings: ListedReading[];
  readonly problems: ListProblem[];
}

interface Line {
  readonly line: number;
  readonly spotNo: number;
  readonly system: TypedUnit;
}

function takeValue(draft: Draft, at: Line & { readonly axis: Axis }, { title, unit }: Column, words: string): void {
  const { line, spotNo, axis, system } = at;
  const text = words.trim();
  if (text === '') return;
  const hasUnit = /[a-z"]/i.test(text);
  const parsed = parseLength(hasUnit ? text : `${text} ${unit}`, system);
  if (parsed.ok) draft.readings.push({ line, spotNo, axis, readingMm: parsed.value });
  else draft.problems.push({ line, field: title, words: lengthProblemWords(parsed.error, system) });
}

type Columns = readonly (Column | null)[];

const cellOf = (columns: Columns, cells: readonly string[], kind: Column['kind']): string =>
  cells[columns.findIndex((c) => c?.kind === kind)]?.trim() ?? '';

/** The axis that a column's value belongs to: its own, or the one the line names. Null for a column without values. */
function axisOf(column: Column, named: string): Axis | 'unknown' | null {
  if (column.kind === 'across' || column.kind === 'along') return column.kind;
  return column.kind === 'reading' ? (AXIS_WORDS[named.toLowerCase()] ?? 'unknown') : null;
}

function takeLine(
  draft: Draft,
  columns: Columns,
  cells: readonly string[],
  where: { readonly line: number; readonly system: TypedUnit },
): void {
  const wrong = (field: string, words: string): void => {
    draft.problems.push({ line: where.line, field, words });
  };
  const spot = cellOf(columns, cells, 'spot');
  const spotNo = Number(spot);
  if (!/^\d{1,2}$/.test(spot) || spotNo === 0) {
    wrong('spot', `"${spot}" is no spot: a number as printed beside it is expected.`);
    return;
  }
  const named = cellOf(columns, cells, 'axis');
  for (const [i, column] of columns.entries()) {
    const axis = column && axisOf(column, named);
    if (axis === 'unknown') wrong('axis', `"${named}" is neither across nor along.`);
    else if (column && axis) takeValue(draft, { ...where, spotNo, axis }, column, cells[i] ?? '');
  }
}

/** The same figure told twice: which of the two counts is not guessed. */
function repeatedIn(readings: readonly ListedReading[]): readonly ListProblem[] {
  const seen = new Map<string, number>();
  return readings.flatMap(({ line, spotNo, axis }) => {
    const key = `${spotNo} ${axis}`;
    const before = seen.get(key);
    if (before !== undefined)
      return [{ line, field: axis, words: `Spot ${spotNo} ${axis} stands in line ${before} already.` }];
    seen.set(key, line);
    return [];
  });
}

/**
 * Readings out of a table as spreadsheets write it: a head line with "spot" and either "across" and "along" or "axis" and
 * "reading", a unit in the head where it is not the person's own; tab, semicolon or comma between columns, decimal point or
 * comma; empty cells are figures that were not read.
 */
export function parseReadingList(text: string, system: TypedUnit): ReadingList {
  if (text.length > MOST_CHARACTERS)
    return {
      readings: [],
      problems: [{ line: 1, field: 'list', words: 'This is far longer than any list of readings.' }],
    };
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  const head = lines[0] ?? '';
  const separator = separatorOf(head);
  const rows = dsvFormat(separator).parseRows(lines.slice(0, MOST_LINES + 1).join('\n'));
  const columns = (rows[0] ?? []).map(columnOf);
  const has = (...kinds: readonly Column['kind'][]): boolean =>
    kinds.every((kind) => columns.some((c) => c?.kind === kind));
  if (!has('spot') || !(has('axis', 'reading') || AXES.some((axis) => has(axis)))) {
    const words = 'The first line must name the columns: spot, across, along (or: spot, axis, reading).';
    return { readings: [], problems: [{ line: 1, field: 'head', words }] };
  }
  const draft: Draft = { readings: [], problems: [] };
  for (const [i, cells] of rows.slice(1).entries())
    if (cells.some((c) => c.trim() !== '')) takeLine(draft, columns, cells, { line: i + 2, system });
  if (lines.length > MOST_LINES + 1)
    draft.problems.push({ line: MOST_LINES + 2, field: 'list', words: `More than ${MOST_LINES} lines.` });
  return { readings: draft.readings, problems: [...draft.problems, ...repeatedIn(draft.readings)] };
}
