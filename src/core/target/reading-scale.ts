import { MM_PER_INCH, type PrintedUnit } from '../units/length';

/** Unit of the numbers printed at a sheet's figures: mm, or thousandths of an inch. Readings are shown and typed in it. */
export const READING_SCALES = ['mm', 'thou'] as const satisfies readonly PrintedUnit[];
export type ReadingScale = PrintedUnit;

/** A printed tick of a scale: the reading at it, and the number beside it where it has one. */
export interface ScaleTick {
  readonly valueMm: number;
  readonly number: string | null;
}

/** How the figures of one scale are divided. */
export interface ScaleDivision {
  /** Wedge: step in which the picture is moved and the reading entered. */
  readonly wedgeStepMm: number;
  /** Wedge: step of a leap (Shift with an arrow key). */
  readonly wedgeLeapMm: number;
  /** Wedge: readings beyond this are not offered. */
  readonly wedgeReachMm: number;
  readonly wedgeTicks: readonly ScaleTick[];
  /** Comb: shift from one coinciding tick to the next. */
  readonly combTickMm: number;
  /** Comb: numbers at every fifth printed tick, from the tenth below zero to the tenth above. */
  readonly combNumbers: readonly string[];
  /** Comb: lines of the ruler under its row, three to either side of zero, and the number at its end. */
  readonly rulerLineMm: number;
  readonly rulerEnd: string;
  /** Rough grid: from line to line, to how much of it a corner is read, and at every which line a thicker one stands. */
  readonly gridLineMm: number;
  readonly gridStepMm: number;
  readonly gridThickEvery: number;
}

const THOU_MM = MM_PER_INCH / 1000;

const range = (reach: number): readonly number[] => Array.from({ length: 2 * reach + 1 }, (_, i) => i - reach);
const signedNumber = (value: number, words: string): string =>
  value === 0 ? '0' : `${value > 0 ? '+' : '\u2212'}${words}`;

const halves = (tenths: number): string => signedNumber(tenths, Math.abs(tenths) === 10 ? '1' : '.5');

const DIVISIONS: Readonly<Record<ReadingScale, ScaleDivision>> = {
  mm: {
    wedgeStepMm: 0.05,
    wedgeLeapMm: 0.5,
    wedgeReachMm: 1,
    wedgeTicks: range(10).map((tenths) => ({
      valueMm: tenths / 10,
      number: tenths % 5 === 0 ? halves(tenths) : null,
    })),
    combTickMm: 0.1,
    combNumbers: [-10, -5, 0, 5, 10].map(halves),
    rulerLineMm: 1,
    rulerEnd: '3',
    gridLineMm: 1,
    gridStepMm: 0.25,
    gridThickEvery: 5,
  },
  thou: {
    wedgeStepMm: 2 * THOU_MM,
    wedgeLeapMm: 20 * THOU_MM,
    wedgeReachMm: 38 * THOU_MM,
    wedgeTicks: range(7).map((fives) => ({
      valueMm: fives * 5 * THOU_MM,
      number: fives % 2 === 0 ? signedNumber(fives, String(Math.abs(5 * fives))) : null,
    })),
    combTickMm: 4 * THOU_MM,
    combNumbers: [-10, -5, 0, 5, 10].map((tick) => signedNumber(tick, String(4 * Math.abs(tick)))),
    rulerLineMm: 40 * THOU_MM,
    rulerEnd: '120',
    gridLineMm: 50 * THOU_MM,
    gridStepMm: 10 * THOU_MM,
    gridThickEvery: 4,
  },
};

export const divisionOf = (scale: ReadingScale = 'mm'): ScaleDivision => DIVISIONS[scale];

/** Nearest reading that a wedge of a scale can give, mm. */
export function nearestWedgeReading(mm: number, scale: ReadingScale = 'mm'): number {
  const { wedgeStepMm, wedgeReachMm } = divisionOf(scale);
  const most = Math.round(wedgeReachMm / wedgeStepMm);
  const steps = Math.max(-most, Math.min(most, Math.round(mm / wedgeStepMm)));
  // A whole number of steps written as a person would: 0.15, never 0.15000000000000002.
  return Number((steps * wedgeStepMm).toFixed(6)) + 0;
}
