import { cornersOf, type Point } from '../geometry/affine';
import { fitErrorMap, type ErrorMapFit, type FitError } from '../fit/fit-error-map';
import { ASSUMED_MARK_SD_MM, loadCovariance, type LoadModel } from '../fit/load-noise';
import { seededRng } from '../math/random';
import type { Observation } from '../reading/observation';
import { fail, ok, type Result } from '../result';
import { adviceFor, verdictOf, worstCornerBounds, type Advice, type Bounds, type Verdict } from './bound';
import { borderFor, nextJob, type NextJob } from './next-job';
import { judgeParts, type PartJudgement } from './parts';

export interface AppraisalOptions {
  readonly workWidthMm: number;
  readonly workLengthMm: number;
  readonly toleranceMm: number;
  /** Marks that the machine reads at each load, about the same origin; none: it does not. */
  readonly marks: readonly Point[];
  readonly markModel: LoadModel;
  /** Noise per mark and axis; the usual one where it is not known. */
  readonly markSdMm?: number;
  /** Share of next jobs whose error the border is to hide. */
  readonly yieldShare?: number;
  readonly seed?: number;
}

export interface Appraisal {
  readonly fit: ErrorMapFit;
  readonly parts: readonly PartJudgement[];
  readonly bounds: Bounds;
  readonly verdict: Verdict;
  readonly advice: Advice;
  readonly next: NextJob;
  /** White border or bleed that hides the error of the wanted share of next jobs (95 in 100) with nothing changed. */
  readonly borderMm: number;
}

export type AppraisalError = FitError | { readonly kind: 'mirrored' } | { readonly kind: 'marks-cannot-carry-model' };

/** How many marks a model of them needs. */
const LEAST_MARKS: Readonly<Record<LoadModel, number>> = {
  shift: 0,
  rigid: 2,
  similarity: 2,
  two_scales: 3,
  affine: 3,
};

/**
 * Readings to map, intervals, verdict and border in one: what a check sheet says of a machine before any correction.
 * @param observations finite; mm about the middle of the work area, one sheet frame for all.
 * @returns the appraisal, or the named reason why there is none.
 */
export function appraise(
  observations: readonly Observation[],
  options: AppraisalOptions,
): Result<Appraisal, AppraisalError> {
  const { workWidthMm, workLengthMm, toleranceMm, marks, markModel, markSdMm = ASSUMED_MARK_SD_MM } = options;
  if (marks.length < LEAST_MARKS[markModel]) return fail({ kind: 'marks-cannot-carry-model' });
  const corners = cornersOf(workWidthMm, workLengthMm);
  const noise = loadCovariance(marks, markSdMm, markModel);
  const fitted = fitErrorMap(observations, { loadCovariance: noise, corners });
  if (!fitted.ok) return fitted;
  const fit = fitted.value;
  if (fit.map.xx * fit.map.yy - fit.map.xy * fit.map.yx <= 0) return fail({ kind: 'mirrored' });
  const bounds = worstCornerBounds(fit, corners);
  const { seed = 1, yieldShare = 0.95 } = options;
  const jobs = { beta: fit.beta, covariance: fit.covariance, loadCovariance: noise, corners };
  const next = nextJob({ ...jobs, toleranceMm }, seededRng(seed));
  return ok({
    fit,
    parts: judgeParts(fit, { widthMm: workWidthMm, lengthMm: workLengthMm }, toleranceMm),
    bounds,
    verdict: verdictOf(bounds, toleranceMm),
    advice: adviceFor(fit.readingCovariance, fit.covariance, corners),
    next,
    borderMm: borderFor(jobs, yieldShare, seededRng(seed)),
  });
}
