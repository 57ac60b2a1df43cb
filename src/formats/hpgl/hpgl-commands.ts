import { fail, ok, type Result } from '@/core/result';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';
import { FARTHEST_MM, MOST_CHARACTERS, problem, tooFar, type FileProblem } from '../cut-file/cut-file';

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
const NAME = /[A-Za-z][A-Za-z]/y;
const BETWEEN = /[\s;,\u0000]+/y;

/** Of a whole file: more would cost more memory than any cutter's own. */
const MOST_INSTRUCTIONS = 2_000_000;
const MOST_NUMBERS = 4_000_000;

/** How many values each drawing instruction takes: pairs, or its own counts. */
function countIsRight(name: string, count: number): boolean {
  if (name === 'AA' || name === 'AR') return count === 3 || count === 4;
  return name === 'CI' ? count === 1 || count === 2 : count % 2 === 0;
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57;
const isLetter = (code: number): boolean => (code >= 65 && code <= 90) || (code >= 97 && code <= 122);
const isBlank = (code: number): boolean => code <= 32 && code !== 27;
const [PLUS, MINUS, COMMA, DOT, SEMICOLON, ESC] = [43, 45, 44, 46, 59, 27];

/** End of a number at `at`; `at` itself where none stands. */
function numberEnd(text: string, at: number): number {
  let end = at;
  const sign = text.charCodeAt(end);
  if (sign === PLUS || sign === MINUS) end += 1;
  const first = end;
  while (isDigit(text.charCodeAt(end))) end += 1;
  let digits = end - first;
  if (text.charCodeAt(end) === DOT) {
    const point = end + 1;
    end = point;
    while (isDigit(text.charCodeAt(end))) end += 1;
    digits += end - point;
  }
  return digits > 0 ? end : at;
}

/** Where an instruction's values end: at a letter, a semicolon, an escape or the end of the text. */
function valuesEnd(text: string, from: number): number {
  let at = from;
  for (; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (isLetter(code) || code === SEMICOLON || code === ESC) break;
  }
  return at;
}

/** Numbers of an instruction, also where only a sign stands between two; or what is wrong with them. */
function numbersIn(text: string, from: number, to: number): readonly number[] | 'no-number' | 'too-many' {
  const numbers: number[] = [];
  let at = from;
  let isFresh = true;
  while (at < to) {
    const code = text.charCodeAt(at);
    if (code === COMMA || isBlank(code)) {
      at += 1;
      isFresh = true;
      continue;
    }
    const end = numberEnd(text, at);
    if (end === at || (!isFresh && code !== PLUS && code !== MINUS)) return 'no-number';
    if (numbers.length >= MOST_NUMBERS) return 'too-many';
    numbers.push(Number(text.slice(at, end)));
    at = end;
    isFresh = false;
  }
  return numbers;
}

/** Number of the pen an instruction takes; 0 puts it away. */
function penIn(text: string, from: number, to: number): readonly number[] {
  const numbers = numbersIn(text, from, to);
  return typeof numbers === 'string' ? [] : numbers;
}

const tooMany = (): FileProblem => problem('too-large', 'file', 'More than two million instructions or points.');

function checked(
  name: string,
  text: string,
  [start, from, to]: readonly [number, number, number],
): Result<readonly number[], FileProblem> {
  const refuse = (words: string): Result<never, FileProblem> =>
    fail(problem('not-understood', `${name} at character ${start + 1}`, words));
  if (RESETS.has(name))
    return text.slice(from, to).trim() === ''
      ? ok([])
      : refuse(`${name} changes the scale, window or turn of the drawing: save it without.`);
  if (CARRIED.has(name)) return ok(name === 'SP' ? penIn(text, from, to) : []);
  if (!DRAWS.has(name))
    return refuse(`The instruction ${name} is not followed: save the file as plain lines and arcs.`);
  const values = numbersIn(text, from, to);
  if (values === 'too-many') return fail(tooMany());
  if (values === 'no-number') return refuse(`${name} holds something that is no number.`);
  if (!countIsRight(name, values.length)) return refuse(`${name} has ${values.length} numbers: pairs are expected.`);
  if (values.some((v) => Math.abs(v) > FARTHEST_MM * PLOTTER_UNITS_PER_MM))
    return fail(tooFar(`${name} at character ${start + 1}`));
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
  /** Takes each instruction that is read, and may refuse it. */
  readonly take: (instruction: HpglInstruction) => FileProblem | null;
  endMark: string;
  instructions: number;
  numbers: number;
}

/** One instruction at `at`: where the next begins, or why it was not understood. */
function takeInstruction(reader: Reader, at: number): Result<number, FileProblem> {
  const { text } = reader;
  const from = stepOver(NAME, text, at);
  if (from === at)
    return fail(
      problem('not-a-drawing', `character ${at + 1}`, 'The file is no plotter file: an instruction was expected.'),
    );
  const name = text.slice(at, from).toUpperCase();
  if (name === 'LB') return ok(labelEnd(text, from, reader.endMark));
  if (name === 'DT') {
    reader.endMark = text[from] ?? reader.endMark;
    return ok(from + 1);
  }
  const to = valuesEnd(text, from);
  const end = text.charCodeAt(to) === SEMICOLON ? to + 1 : to;
  const values = checked(name, text, [at, from, to]);
  if (!values.ok) return values;
  reader.instructions += 1;
  reader.numbers += values.value.length;
  if (reader.instructions > MOST_INSTRUCTIONS || reader.numbers > MOST_NUMBERS) return fail(tooMany());
  const refused = reader.take({ name, values: values.value, start: at, end });
  return refused ? fail(refused) : ok(end);
}

/**
 * Hands on the instructions of a plotter file one by one, each with its place; labels and device settings are stepped over.
 * @returns why the file is not taken, or what `take` refused it for; null when all was taken.
 */
export function eachInstruction(text: string, take: Reader['take']): FileProblem | null {
  if (text.length > MOST_CHARACTERS) return problem('too-large', 'file', 'More than 64 MB.');
  const reader: Reader = { text, take, endMark: '\u0003', instructions: 0, numbers: 0 };
  let at = 0;
  while (at < text.length) {
    const next = stepOver(ESCAPE, text, stepOver(BETWEEN, text, at));
    if (next > at) {
      at = next;
      continue;
    }
    const taken = takeInstruction(reader, at);
    if (!taken.ok) return taken.error;
    at = taken.value;
  }
  return null;
}
