import { fail, ok, type Result } from '@/core/result';
import { MOST_CHARACTERS, problem, type FileProblem } from '../cut-file/cut-file';

/** Groups of a DXF as columns: a drawing has millions. Group i stands in lines 2 i + 1 (its code) and 2 i + 2 (its value). */
export interface DxfGroups {
  readonly text: string;
  readonly count: number;
  readonly codes: Int32Array;
  /** Where each value stands in the text, blanks round it left out. */
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** Where each pair of lines begins; one more at the end. */
  readonly pairStarts: Uint32Array;
}

const MOST_GROUPS = 6_000_000;
const [LF, CR, SPACE] = [10, 13, 32];

/** End of the line that begins at `at` (its last character's place + 1). */
function lineEnd(text: string, at: number): number {
  let end = at;
  for (; end < text.length; end++) {
    const code = text.charCodeAt(end);
    if (code === LF || code === CR) break;
  }
  return end;
}

/** Where the next line begins after one that ends at `end`. */
function nextLine(text: string, end: number): number {
  const isPair = text.charCodeAt(end) === CR && text.charCodeAt(end + 1) === LF;
  return Math.min(text.length, end + (isPair ? 2 : 1));
}

function skipBlanks(text: string, from: number, to: number): number {
  let start = from;
  while (start < to && text.charCodeAt(start) <= SPACE) start += 1;
  return start;
}

function trimBlanks(text: string, from: number, to: number): number {
  let end = to;
  while (end > from && text.charCodeAt(end - 1) <= SPACE) end -= 1;
  return end;
}

/** At most so many pairs of lines: what the columns must hold. */
function roomFor(text: string): number {
  let lines = 1;
  for (let at = lineEnd(text, 0); at < text.length; at = lineEnd(text, nextLine(text, at))) lines += 1;
  return Math.ceil(lines / 2) + 1;
}

/** The pairs of lines of an ASCII DXF. @returns the groups, or the line that is no group code. */
export function readGroups(text: string): Result<DxfGroups, FileProblem> {
  if (text.length > MOST_CHARACTERS) return fail(problem('too-large', 'file', 'More than 64 MB.'));
  if (text.startsWith('AutoCAD Binary DXF'))
    return fail(problem('not-a-drawing', 'file', 'This is a binary DXF: save it as a text DXF.'));
  const room = roomFor(text);
  if (room > MOST_GROUPS) return fail(problem('too-large', 'file', 'More than six million groups.'));
  const codes = new Int32Array(room);
  const starts = new Uint32Array(room);
  const ends = new Uint32Array(room);
  const pairStarts = new Uint32Array(room + 1);
  let count = 0;
  let at = 0;
  while (at < text.length) {
    const codeEnd = lineEnd(text, at);
    const valueAt = nextLine(text, codeEnd);
    const from = skipBlanks(text, at, codeEnd);
    if (from === codeEnd && valueAt >= text.length) break;
    const code = Number(text.slice(from, codeEnd));
    if (from === codeEnd || !Number.isInteger(code) || Math.abs(code) > 9999)
      return fail(
        problem('not-a-drawing', `line ${2 * count + 1}`, 'A group code was expected: the file is no text DXF.'),
      );
    const valueEnd = lineEnd(text, valueAt);
    const start = skipBlanks(text, valueAt, valueEnd);
    codes[count] = code;
    starts[count] = start;
    ends[count] = trimBlanks(text, start, valueEnd);
    pairStarts[count] = at;
    count += 1;
    at = nextLine(text, valueEnd);
    pairStarts[count] = at;
  }
  return ok({ text, count, codes, starts, ends, pairStarts });
}

export const codeAt = ({ codes }: DxfGroups, i: number): number => codes[i] ?? NaN;
export const startAt = ({ starts }: DxfGroups, i: number): number => starts[i] ?? 0;
export const endAt = ({ ends }: DxfGroups, i: number): number => ends[i] ?? 0;
export const pairStartAt = ({ pairStarts }: DxfGroups, i: number): number => pairStarts[i] ?? 0;
export const valueAt = (groups: DxfGroups, i: number): string =>
  groups.text.slice(startAt(groups, i), endAt(groups, i));

/** A stretch of groups: an entity, a header variable, a table's entry. */
export interface DxfRecord {
  readonly type: string;
  readonly groups: DxfGroups;
  /** Its groups: from, and before. */
  readonly from: number;
  readonly to: number;
}

const MOST_RECORDS = 1_500_000;

/** Groups cut at each code 0. */
function recordsOf(groups: DxfGroups): Result<readonly DxfRecord[], FileProblem> {
  const records: DxfRecord[] = [];
  // Types repeat a million times: each word is kept once.
  const types = new Map<string, string>();
  let start = -1;
  const close = (end: number): void => {
    if (start < 0) return;
    const word = valueAt(groups, start);
    const type = types.get(word) ?? word;
    types.set(type, type);
    records.push({ type, groups, from: start, to: end });
  };
  for (let i = 0; i < groups.count; i++) {
    if (groups.codes[i] !== 0) continue;
    close(i);
    start = i;
    if (records.length > MOST_RECORDS)
      return fail(problem('too-large', 'file', 'More than a million and a half entities.'));
  }
  close(groups.count);
  return ok(records);
}

export interface DxfFile {
  readonly groups: DxfGroups;
  /** Version word of the header, or the oldest where it has none. */
  readonly version: string;
  readonly unitCode: number;
  readonly entities: readonly DxfRecord[];
  /** Entities of each block by its name. */
  readonly blocks: ReadonlyMap<string, readonly DxfRecord[]>;
  /** Colour number of each layer. */
  readonly layerColours: ReadonlyMap<string, string>;
}

/** The first group of a record that has a code; -1 where none has. */
function indexOf({ groups, from, to }: DxfRecord, code: number): number {
  for (let i = from; i < to; i++) if (groups.codes[i] === code) return i;
  return -1;
}

export function valueOf(record: DxfRecord, code: number): string | undefined {
  const i = indexOf(record, code);
  return i < 0 ? undefined : valueAt(record.groups, i);
}
export const numberOf = (record: DxfRecord, code: number, absent = 0): number =>
  Number(valueOf(record, code) ?? absent);

function headerValue(records: readonly DxfRecord[], name: string): string | undefined {
  const header = records.find((r) => r.type === 'SECTION' && valueOf(r, 2) === 'HEADER');
  if (!header) return undefined;
  const { groups, from, to } = header;
  for (let i = from; i + 1 < to; i++)
    if (groups.codes[i] === 9 && valueAt(groups, i) === name) return valueAt(groups, i + 1);
  return undefined;
}

/** Records between the start of a section and its end. */
function section(records: readonly DxfRecord[], name: string): readonly DxfRecord[] {
  const from = records.findIndex((r) => r.type === 'SECTION' && valueOf(r, 2) === name);
  if (from < 0) return [];
  const to = records.findIndex((r, i) => i > from && r.type === 'ENDSEC');
  return records.slice(from + 1, to < 0 ? records.length : to);
}

function blocksOf(records: readonly DxfRecord[]): ReadonlyMap<string, readonly DxfRecord[]> {
  const blocks = new Map<string, DxfRecord[]>();
  let open: DxfRecord[] | null = null;
  for (const record of records) {
    if (record.type === 'BLOCK') {
      open = [];
      blocks.set(valueOf(record, 2) ?? '', open);
    } else if (record.type === 'ENDBLK') open = null;
    else open?.push(record);
  }
  return blocks;
}

/** An ASCII DXF by its sections. */
export function readDxfFile(text: string): Result<DxfFile, FileProblem> {
  const groups = readGroups(text);
  if (!groups.ok) return groups;
  const cut = recordsOf(groups.value);
  if (!cut.ok) return cut;
  const records = cut.value;
  if (!records.some((r) => r.type === 'SECTION'))
    return fail(problem('not-a-drawing', 'file', 'It holds no section: the file is no DXF drawing.'));
  const layers = section(records, 'TABLES').filter((r) => r.type === 'LAYER');
  return ok({
    groups: groups.value,
    version: headerValue(records, '$ACADVER') ?? 'AC1009',
    unitCode: Number(headerValue(records, '$INSUNITS') ?? 0),
    entities: section(records, 'ENTITIES'),
    blocks: blocksOf(section(records, 'BLOCKS')),
    layerColours: new Map(layers.map((l) => [valueOf(l, 2) ?? '', valueOf(l, 62) ?? '7'])),
  });
}
