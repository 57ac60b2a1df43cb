import { fail, ok, type Result } from '../result';
import { EYE_SD_MM, readingUncertainty } from './uncertainty';

/** How a machine names its lines or boxes: counted, by letters from A, or counted from the middle with a sign. */
export const LINE_LABELS = ['numbers', 'letters', 'signed'] as const;
export type LineLabels = (typeof LINE_LABELS)[number];

/** A machine's own row of cut lines or boxes with stepped shifts along one axis. Lines are counted from 1, whatever their names. */
export interface Ladder {
  readonly labels: LineLabels;
  /** Number beside the first line, where lines are counted; 1 on most machines, 0 on some. */
  readonly firstNumber: number;
  readonly lines: number;
  /** Which line, counted from 1, has no shift. */
  readonly middle: number;
  /** Whether the machine takes the half between two lines. */
  readonly takesHalves: boolean;
  /** Shift from line to line; null where the machine does not tell it. */
  readonly stepMm: number | null;
}

/** The machine's own test: a row for each axis that it has one for, and where it cuts them. */
export interface OwnTest {
  readonly across: Ladder | null;
  readonly along: Ladder | null;
  /** Whether the machine prints a sheet for its test, or cuts its lines on a check sheet that is loaded for it. */
  readonly sheet: 'own' | 'check-sheet';
}

export const MOST_LINES = 99;
export const MOST_LETTERS = 26;

/** Whether a row can be: at least two lines, the middle among them, no more letters than there are. */
export const isLadder = ({ labels, firstNumber, lines, middle, stepMm }: Ladder): boolean =>
  Number.isInteger(lines) &&
  Number.isInteger(middle) &&
  Number.isInteger(firstNumber) &&
  Math.abs(firstNumber) <= MOST_LINES &&
  lines >= 2 &&
  lines <= (labels === 'letters' ? MOST_LETTERS : MOST_LINES) &&
  middle >= 1 &&
  middle <= lines &&
  (stepMm === null || stepMm > 0);

/** Lines of a row, counted from 1. */
export const linesOf = ({ lines }: Ladder): readonly number[] => Array.from({ length: lines }, (_, i) => i + 1);

/** A line's label on the machine: "14", "C", "+2", "\u22121", "0". @param line whole, counted from 1. */
export function labelOf(ladder: Ladder, line: number): string {
  if (ladder.labels === 'letters') return String.fromCharCode(64 + line);
  if (ladder.labels === 'numbers') return String(ladder.firstNumber + line - 1);
  const steps = line - ladder.middle;
  return `${steps > 0 ? '+' : ''}${String(steps).replace('-', '\u2212')}`;
}

const upright = (text: string): string => text.trim().toUpperCase().replaceAll('\u2212', '-').replace(',', '.');

/** One whole line by its label; null when no line bears it. */
function wholeLineOf(ladder: Ladder, label: string): number | null {
  for (let line = 1; line <= ladder.lines; line++) {
    const own = upright(labelOf(ladder, line));
    if (own === label || own === `+${label}`) return line;
  }
  return null;
}

/**
 * The line that a label names, as it is typed: "C", "c", "+2", "14"; the half between two neighbours by both, "C/D", or, where
 * lines bear numbers, by its number, "+1.5".
 * @returns counted from 1; null when no line is called so.
 */
export function lineOf(ladder: Ladder, text: string): number | null {
  const label = upright(text);
  const whole = wholeLineOf(ladder, label);
  if (whole !== null) return whole;
  const [one, other] = label.split(/[/&]/).map((part) => wholeLineOf(ladder, part.trim()));
  if (one != null && other != null) return Math.abs(one - other) === 1 ? (one + other) / 2 : null;
  if (ladder.labels === 'letters' || !/^[+-]?\d+\.50*$/.test(label)) return null;
  const line = Number(label) + (ladder.labels === 'signed' ? ladder.middle : 1 - ladder.firstNumber);
  return line > 1 && line < ladder.lines ? line : null;
}

/** A line's own label, or both labels that a half lies between. @param line counted from 1, whole or half. */
export const namedLine = (ladder: Ladder, line: number): string =>
  Number.isInteger(line)
    ? labelOf(ladder, line)
    : `${labelOf(ladder, Math.floor(line))}/${labelOf(ladder, Math.ceil(line))}`;

export interface LadderReading {
  /** Lines from the middle, half ones where two look equally good. */
  readonly steps: number;
  /** Null while the length of a step is not known: a line alone is no length. */
  readonly shift: { readonly valueMm: number; readonly standardUncertaintyMm: number } | null;
  /** At the end of the row or next to it: what was sought may lie beyond, so a second run is needed. */
  readonly isNearEnd: boolean;
}

export type LadderProblem =
  | { readonly kind: 'no-ladder' }
  | { readonly kind: 'beyond-ladder'; readonly lines: number }
  | { readonly kind: 'no-half'; readonly got: number };

/** Closer to an end than this the answer may lie beyond. */
const NEAR_END_STEPS = 1.5;

/**
 * The line of a machine's own ladder that looks best, as a shift: (line - middle) x step. Two lines equally good are the
 * half between them. u^2 = (step / 2)^2 / 12 + operator^2, as the eye may name halves whether or not the machine takes them.
 * @param line counted from 1, or the half between two.
 */
export function readLadder(ladder: Ladder, line: number): Result<LadderReading, LadderProblem> {
  const { lines, middle, stepMm } = ladder;
  if (!isLadder(ladder)) return fail({ kind: 'no-ladder' });
  if (!(line >= 1 && line <= lines)) return fail({ kind: 'beyond-ladder', lines });
  if (!Number.isInteger(2 * line)) return fail({ kind: 'no-half', got: line });
  const steps = line - middle;
  return ok({
    steps,
    shift:
      stepMm === null
        ? null
        : {
            valueMm: steps * stepMm,
            standardUncertaintyMm: readingUncertainty({
              stepMm: stepMm / 2,
              operatorSdMm: EYE_SD_MM,
              printerDotMm: 0,
              isPlotterFile: false,
            }),
          },
    isNearEnd: line - 1 < NEAR_END_STEPS || lines - line < NEAR_END_STEPS,
  });
}

export type StepProblem =
  /** So few lines apart that reading them tells next to nothing of the step. */
  { readonly kind: 'too-near'; readonly lines: number } | { readonly kind: 'no-change' };

/** Fewer lines between the two runs leave the step worse known than to a seventh. */
const FEWEST_LINES = 3;

/**
 * The step of a ladder from two runs with a known change between them: change / lines between. Each line is read to the
 * nearest half, u = (1/2)/sqrt(12) lines; the change is taken as exact.
 * @param before, after lines counted from 1, or the half between two.
 */
export function learnStep(
  before: number,
  after: number,
  changeMm: number,
): Result<{ readonly stepMm: number; readonly standardUncertaintyMm: number }, StepProblem> {
  if (!(Math.abs(changeMm) > 0)) return fail({ kind: 'no-change' });
  const lines = Math.abs(after - before);
  if (lines < FEWEST_LINES) return fail({ kind: 'too-near', lines });
  const stepMm = Math.abs(changeMm) / lines;
  return ok({ stepMm, standardUncertaintyMm: (stepMm * Math.SQRT2 * 0.5) / Math.sqrt(12) / lines });
}
