import { fail, ok, type Result } from '@/core/result';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
import { FARTHEST_MM, MOST_CHARACTERS, MOST_ELEMENTS, problem, tooFar, type FileProblem } from '../cut-file/cut-file';

/** One instruction with its place in the text. */
export interface HpglInstruction {
  readonly name: string;
  readonly values: readonly number[];
  readonly start: number;
  readonly end: number;
}

/** Set nothing that we follow, and are carried over as they stand: speed, pens, line types, labels' fonts. */
const CARRIED: ReadonlySet<string> = new Set([
  'IN',
  'DF',
  'SP',
  'VS',
  'FS',
  'AS',
  'LT',
  'PW',
  'WU',
  'PT',
  'NR',
  'EC',
  'PG',
  'TR',
  'LO',
  'SI',
  'SR',
  'DI',
  'DR',
  'CA',
  'CS',
  'SS',
  'SA',
  'SL',
  'CP',
  'SM',
  'BP',
  'PS',
  'QL',
  'NP',
  'CR',
  'PC',
  'AC',
  'MC',
]);
/** Move or draw, and are followed. */
export const DRAWS: ReadonlySet<string> = new Set(['PU', 'PD', 'PA', 'PR', 'AA', 'AR', 'CI']);
/** Without values they only reset; with values they change the units of all that follows. */
const RESETS: ReadonlySet<string> = new Set(['SC', 'IP', 'IW', 'RO']);

const ESCAPE = /\u001b(?:%-?\d*[AB]|E|\.[A-Z@()](?:[\d;]*:)?)/y;
const INSTRUCTION = /([A-Za-z])([A-Za-z])([^A-Za-z;\u001b]*);?/y;
const BETWEEN = /[\s;,\u0000]+/y;
const VALUE = /[\s,]*([+-]?(?:\d+\.?\d*|\.\d+))(?=[\s,+-]|$)/y;
const REST = /^[\s,]*$/;

/** How many values each drawing instruction takes: pairs, or its own counts. */
function countIsRight(name: string, count: number): boolean {
  if (name === 'AA' || name === 'AR') return count === 3 || count === 4;
  return name === 'CI' ? count === 1 || count === 2 : count % 2 === 0;
}

/** One number after another, also where only a sign stands between them. Null: something else. */
function scannedNumbers(words: string): readonly number[] | null {
  const numbers: number[] = [];
  let at = 0;
  for (;;) {
    VALUE.lastIndex = at;
    const found = VALUE.exec(words);
    if (!found) return REST.test(words.slice(at)) ? numbers : null;
    numbers.push(Number(found[1]));
    at = VALUE.lastIndex;
  }
}

const PLAIN = /^[\d\s,.+-]*$/;

/** Numbers of an instruction; those with blanks or commas between them, of which there may be millions, at once. */
function numbersIn(words: string): readonly number[] | null {
  if (!PLAIN.test(words)) return null;
  const numbers: number[] = [];
  for (const word of words.split(/[\s,]+/)) {
    if (word === '') continue;
    const value = +word;
    if (Number.isNaN(value)) return scannedNumbers(words);
    numbers.push(value);
  }
  return numbers;
}

function checked(name: string, words: string, start: number): Result<readonly number[], FileProblem> {
  const where = `${name} at character ${start + 1}`;
  if (RESETS.has(name)) {
    if (words.trim() === '') return ok([]);
    return fail(
      problem('not-understood', where, `${name} changes the scale, window or turn of the drawing: save it without.`),
    );
  }
  if (CARRIED.has(name)) return ok(name === 'SP' ? (numbersIn(words) ?? []) : []);
  if (!DRAWS.has(name))
    return fail(
      problem(
        'not-understood',
        where,
        `The instruction ${name} is not followed: save the file as plain lines and arcs.`,
      ),
    );
  const values = numbersIn(words);
  if (!values) return fail(problem('not-understood', where, `${name} holds something that is no number.`));
  if (!countIsRight(name, values.length))
    return fail(problem('not-understood', where, `${name} has ${values.length} numbers: pairs are expected.`));
  if (values.some((v) => Math.abs(v) > FARTHEST_MM * PLOTTER_UNITS_PER_MM)) return fail(tooFar(where));
  return ok(values);
}

/** Length of a label's text from `at`, its end mark included. */
function labelEnd(text: string, at: number, endMark: string): number {
  const end = text.indexOf(endMark, at);
  return end < 0 ? text.length : end + 1;
}

function stepOver(pattern: RegExp, text: string, at: number): number {
  pattern.lastIndex = at;
  return pattern.test(text) ? pattern.lastIndex : at;
}

interface Reader {
  readonly text: string;
  readonly found: HpglInstruction[];
  endMark: string;
}

/** One instruction at `at`: where the next begins, or why it was not understood. */
function takeInstruction(reader: Reader, at: number): Result<number, FileProblem> {
  const { text } = reader;
  INSTRUCTION.lastIndex = at;
  const match = INSTRUCTION.exec(text);
  if (!match)
    return fail(
      problem('not-a-drawing', `character ${at + 1}`, 'The file is no plotter file: an instruction was expected.'),
    );
  const name = `${match[1] ?? ''}${match[2] ?? ''}`.toUpperCase();
  if (name === 'LB') return ok(labelEnd(text, at + 2, reader.endMark));
  if (name === 'DT') {
    reader.endMark = text[at + 2] ?? reader.endMark;
    return ok(at + 3);
  }
  const end = INSTRUCTION.lastIndex;
  const values = checked(name, match[3] ?? '', at);
  if (!values.ok) return values;
  reader.found.push({ name, values: values.value, start: at, end });
  return ok(end);
}

/** Instructions of a plotter file in order, each with its place; labels and device settings are stepped over. */
export function readInstructions(text: string): Result<readonly HpglInstruction[], FileProblem> {
  if (text.length > MOST_CHARACTERS) return fail(problem('too-large', 'file', 'More than 64 MB.'));
  const reader: Reader = { text, found: [], endMark: '\u0003' };
  let at = 0;
  while (at < text.length) {
    const next = stepOver(ESCAPE, text, stepOver(BETWEEN, text, at));
    if (next > at) {
      at = next;
      continue;
    }
    const taken = takeInstruction(reader, at);
    if (!taken.ok) return taken;
    if (reader.found.length > 2 * MOST_ELEMENTS)
      return fail(problem('too-large', 'file', 'More than two million instructions.'));
    at = taken.value;
  }
  return ok(reader.found);
}
