import { apply, cornersOf, type Point } from '../geometry/affine';
import { affineOf, type ModelName, PARAMETER_COUNT } from '../fit/design';
import { weightedFit, type WeightedFit } from '../fit/weighted-fit';
import { seededRng } from '../math/random';
import type { Observation } from '../reading/observation';
import { fail, ok, type Result } from '../result';
import { AXES } from '../target/wedge';
import { worstCornerBounds, type Bounds } from '../verdict/bound';
import { nextJob } from '../verdict/next-job';

/** A mark where it should be and where the tool was driven to meet it, about the middle of the work, mm. */
export interface TouchedMark {
  readonly nominal: Point;
  readonly found: Point;
}

/** What a cutter does with the marks that it was driven to. */
export const HAND_MODELS = ['shift', 'rigid', 'similarity', 'affine'] as const;
export type HandModel = (typeof HAND_MODELS)[number];
const MARKS_NEEDED: Readonly<Record<HandModel, number>> = { shift: 1, rigid: 2, similarity: 2, affine: 3 };

/** The tool driven over a mark by arrow keys, judged by eye. Common practice, no published source. */
export const TOUCH_SD_MM = 0.15;

export interface HandQuestion {
  readonly marks: readonly TouchedMark[];
  /** What the machine makes of them. */
  readonly uses: HandModel;
  readonly touchSdMm: number;
  readonly workWidthMm: number;
  readonly workLengthMm: number;
  readonly toleranceMm: number;
}

export interface HandAnswer {
  /** Where the print lies, as the marks tell: the largest model that so many marks carry. */
  readonly print: WeightedFit;
  readonly printModel: ModelName;
  /** What is left when the machine has used the marks: the print's map less what the machine takes out. */
  readonly leftBeta: readonly number[];
  readonly bounds: Bounds;
  /** Share of such sheets that come out beyond the tolerance. */
  readonly outShare: number;
  /** How far the marks themselves disagree with what the machine makes of them, the worst of them, mm. */
  readonly worstMarkMm: number;
}

export type HandProblem =
  | { readonly kind: 'too-few-marks'; readonly got: number; readonly needed: number }
  | { readonly kind: 'marks-coincide' }
  | { readonly kind: 'not-finite'; readonly mark: number };

const PRINT_MODELS: readonly HandModel[] = ['affine', 'similarity', 'shift'];

function observations({ marks, touchSdMm }: HandQuestion): readonly Observation[] {
  return marks.flatMap(({ nominal, found }, i) =>
    AXES.map((axis) => ({
      id: `mark ${i + 1} ${axis}`,
      axis,
      at: nominal,
      valueMm: axis === 'across' ? found.x - nominal.x : found.y - nominal.y,
      standardUncertaintyMm: touchSdMm,
      loadKey: 'hand',
    })),
  );
}

function firstProblem({ marks, uses, touchSdMm }: HandQuestion): HandProblem | null {
  const needed = MARKS_NEEDED[uses];
  if (marks.length < needed) return { kind: 'too-few-marks', got: marks.length, needed };
  const wrong = marks.findIndex(
    ({ nominal, found }) => ![nominal.x, nominal.y, found.x, found.y, touchSdMm].every((v) => Number.isFinite(v)),
  );
  return wrong < 0 ? null : { kind: 'not-finite', mark: wrong + 1 };
}

/** The largest model that the marks carry without reaching far beyond what they tell. */
function printFit(own: readonly Observation[], corners: readonly Point[], markCount: number) {
  for (const model of PRINT_MODELS) {
    if (markCount < MARKS_NEEDED[model]) continue;
    const fit = weightedFit(own, model);
    if (fit.ok) return { model, fit: fit.value };
  }
  return null;
}

/**
 * Registration by hand: from marks found with the tool, how the print lies, and what will be left once the machine has
 * made of them what it can. Given the touches, what is left is the print's map less the machine's, and is as uncertain
 * as the print's map.
 * @param question at least one mark; a turn needs two, scales and squareness three.
 */
export function registerByHand(question: HandQuestion): Result<HandAnswer, HandProblem> {
  const problem = firstProblem(question);
  if (problem) return fail(problem);
  const corners = cornersOf(question.workWidthMm, question.workLengthMm);
  const own = observations(question);
  const print = printFit(own, corners, question.marks.length);
  const used = weightedFit(own, question.uses);
  if (!print || !used.ok) return fail({ kind: 'marks-coincide' });
  const leftBeta = [...print.fit.beta].map((b, i) => b - used.value.beta[i]!);
  const { covariance } = print.fit;
  const left = affineOf(leftBeta);
  const nothing = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  const { toleranceMm } = question;
  const jobs = { beta: leftBeta, covariance, loadCovariance: nothing, corners, toleranceMm };
  return ok({
    print: print.fit,
    printModel: print.model,
    leftBeta,
    bounds: worstCornerBounds({ map: left, covariance, quantileDegrees: Infinity }, corners),
    outShare: nextJob(jobs, seededRng(1)).outShare,
    worstMarkMm: Math.max(
      ...question.marks.map(({ nominal, found }) => {
        const met = apply(affineOf(used.value.beta), nominal);
        return Math.hypot(found.x - met.x, found.y - met.y);
      }),
    ),
  });
}
