import { fail, ok, type Result } from '../result';
import { EYE_SD_MM, readingUncertainty } from './uncertainty';

/** A machine's own row of cut lines or boxes with stepped shifts. */
export interface Ladder {
  /** Labels of the first and last line, as the machine counts them. */
  readonly first: number;
  readonly last: number;
  /** Label of the line without any shift. */
  readonly middle: number;
  /** Shift from line to line; null where the machine does not tell it. */
  readonly stepMm: number | null;
}

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
  | { readonly kind: 'beyond-ladder'; readonly first: number; readonly last: number }
  | { readonly kind: 'no-half'; readonly got: number };

/** Closer to an end than this the answer may lie beyond. */
const NEAR_END_STEPS = 1.5;

/**
 * The line of a machine's own ladder that looks best, as a shift: (line - middle) x step. Two lines equally good are the
 * half between them. u^2 = (step / 2)^2 / 12 + operator^2, as half lines are offered.
 * @param line label of the line, or the half between two.
 */
export function readLadder(ladder: Ladder, line: number): Result<LadderReading, LadderProblem> {
  const { first, last, middle, stepMm } = ladder;
  if (!(first < last) || middle < first || middle > last || (stepMm !== null && !(stepMm > 0)))
    return fail({ kind: 'no-ladder' });
  if (!(line >= first && line <= last)) return fail({ kind: 'beyond-ladder', first, last });
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
    isNearEnd: line - first < NEAR_END_STEPS || last - line < NEAR_END_STEPS,
  });
}

export type StepProblem =
  | { readonly kind: 'no-half'; readonly got: number }
  /** So few lines apart that reading them tells next to nothing of the step. */
  | { readonly kind: 'too-near'; readonly lines: number }
  | { readonly kind: 'no-change' };

/** Fewer lines between the two runs leave the step worse known than to a seventh. */
const FEWEST_LINES = 3;

/**
 * The step of a ladder from two runs with a known change between them: change / lines between. Each line is read to the
 * nearest half, u = (1/2)/sqrt(12) lines; the change is taken as exact.
 * @param before, after labels of the best line, or the half between two.
 */
export function learnStep(
  before: number,
  after: number,
  changeMm: number,
): Result<{ readonly stepMm: number; readonly standardUncertaintyMm: number }, StepProblem> {
  for (const line of [before, after]) if (!Number.isInteger(2 * line)) return fail({ kind: 'no-half', got: line });
  if (!(Math.abs(changeMm) > 0)) return fail({ kind: 'no-change' });
  const lines = Math.abs(after - before);
  if (lines < FEWEST_LINES) return fail({ kind: 'too-near', lines });
  const stepMm = Math.abs(changeMm) / lines;
  return ok({ stepMm, standardUncertaintyMm: (stepMm * Math.SQRT2 * 0.5) / Math.sqrt(12) / lines });
}
