import { fail, ok, type Result } from '@/core/result';
import { MOST_CHARACTERS, problem, type FileProblem } from '../cut-file/cut-file';

/** One group of a DXF: its code and where its value stands in the text, blanks round it left out. */
export interface DxfGroup {
  readonly code: number;
  readonly value: string;
  readonly start: number;
  readonly end: number;
  /** Where the pair of lines begins and ends, line end included. */
  readonly pairStart: number;
  readonly pairEnd: number;
}

const MOST_GROUPS = 12_000_000;

/** End of the line that begins at `at` (its last character's place + 1), and where the next begins. */
function lineAt(text: string, at: number): { readonly end: number; readonly next: number } {
  let end = at;
  while (end < text.length && text[end] !== '\n' && text[end] !== '\r') end += 1;
  const isPair = text[end] === '\r' && text[end + 1] === '\n';
  return { end, next: Math.min(text.length, end + (isPair ? 2 : 1)) };
}

/** Place of a line's words without the blanks round them. */
function wordsOf(text: string, from: number, to: number): readonly [number, number] {
  let start = from;
  let end = to;
  while (start < end && text.charCodeAt(start) <= 32) start += 1;
  while (end > start && text.charCodeAt(end - 1) <= 32) end -= 1;
  return [start, end];
}

/** The pairs of lines of an ASCII DXF. @returns the groups, or the line that is no group code. */
export function readGroups(text: string): Result<readonly DxfGroup[], FileProblem> {
  if (text.length > MOST_CHARACTERS) return fail(problem('too-large', 'file', 'More than 64 MB.'));
  if (text.startsWith('AutoCAD Binary DXF'))
    return fail(problem('not-a-drawing', 'file', 'This is a binary DXF: save it as a text DXF.'));
  const groups: DxfGroup[] = [];
  let at = 0;
  while (at < text.length) {
    const codeLine = lineAt(text, at);
    const valueLine = lineAt(text, codeLine.next);
    const [codeStart, codeEnd] = wordsOf(text, at, codeLine.end);
    if (codeStart === codeEnd && codeLine.next >= text.length) break;
    const code = Number(text.slice(codeStart, codeEnd));
    if (codeStart === codeEnd || !Number.isInteger(code))
      return fail(
        problem(
          'not-a-drawing',
          `line ${2 * groups.length + 1}`,
          'A group code was expected: the file is no text DXF.',
        ),
      );
    const [start, end] = wordsOf(text, codeLine.next, valueLine.end);
    groups.push({ code, value: text.slice(start, end), start, end, pairStart: at, pairEnd: valueLine.next });
    if (groups.length > MOST_GROUPS) return fail(problem('too-large', 'file', 'More than twelve million groups.'));
    at = valueLine.next;
  }
  return ok(groups);
}

/** A stretch of groups: an entity, a header variable, a table's entry. */
export interface DxfRecord {
  readonly type: string;
  readonly groups: readonly DxfGroup[];
}

/** Groups cut at each code 0. */
function recordsOf(groups: readonly DxfGroup[]): readonly DxfRecord[] {
  const records: DxfRecord[] = [];
  let start = -1;
  const close = (end: number): void => {
    const first = groups[start];
    if (first) records.push({ type: first.value, groups: groups.slice(start, end) });
  };
  for (let i = 0; i < groups.length; i++) {
    if (groups[i]?.code !== 0) continue;
    close(i);
    start = i;
  }
  close(groups.length);
  return records;
}

export interface DxfFile {
  readonly text: string;
  /** Version word of the header, or the oldest where it has none. */
  readonly version: string;
  readonly unitCode: number;
  readonly entities: readonly DxfRecord[];
  /** Entities of each block by its name. */
  readonly blocks: ReadonlyMap<string, readonly DxfRecord[]>;
  /** Colour number of each layer. */
  readonly layerColours: ReadonlyMap<string, string>;
}

export const valueOf = (record: DxfRecord, code: number): string | undefined =>
  record.groups.find((g) => g.code === code)?.value;
export const numberOf = (record: DxfRecord, code: number, absent = 0): number =>
  Number(valueOf(record, code) ?? absent);

function headerValue(records: readonly DxfRecord[], name: string): string | undefined {
  const header = records.find((r) => r.type === 'SECTION' && valueOf(r, 2) === 'HEADER');
  const at = header?.groups.findIndex((g) => g.code === 9 && g.value === name) ?? -1;
  return at < 0 ? undefined : header?.groups[at + 1]?.value;
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
  const records = recordsOf(groups.value);
  if (!records.some((r) => r.type === 'SECTION'))
    return fail(problem('not-a-drawing', 'file', 'It holds no section: the file is no DXF drawing.'));
  const layers = section(records, 'TABLES').filter((r) => r.type === 'LAYER');
  return ok({
    text,
    version: headerValue(records, '$ACADVER') ?? 'AC1009',
    unitCode: Number(headerValue(records, '$INSUNITS') ?? 0),
    entities: section(records, 'ENTITIES'),
    blocks: blocksOf(section(records, 'BLOCKS')),
    layerColours: new Map(layers.map((l) => [valueOf(l, 2) ?? '', valueOf(l, 62) ?? '7'])),
  });
}
