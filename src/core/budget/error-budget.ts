import type { Point } from '../geometry/affine';
import { covarianceAt, type PointCovariance } from '../fit/point-covariance';
import { largestEigenvalue } from '../math/symmetric';
import { chanceBeyondCircle, chanceBeyondSquare } from './plane-chance';
import { edgePlaces, errorAt, growthCovariance, totalCovariance, type EdgePiece, type JobError } from './edge-forecast';

export type BudgetSource = 'constant' | 'load' | 'growth';

export interface BudgetLine {
  readonly source: BudgetSource;
  /** Standard uncertainty at the worst place, in the direction in which all together are widest. */
  readonly sdMm: number;
  /** Of the sum of squares. */
  readonly share: number;
}

export interface ErrorBudget {
  /** Where the job's edge is in most danger. */
  readonly place: Point;
  /** Expected error there: it is not chance, and adds as it stands. */
  readonly meanMm: number;
  readonly lines: readonly BudgetLine[];
  /** Root of the sum of squares. */
  readonly combinedSdMm: number;
}

/** e^T C e for the unit vector e. */
const along = (c: PointCovariance, e: Point): number => c.xx * e.x * e.x + 2 * c.xy * e.x * e.y + c.yy * e.y * e.y;

function widestDirection({ xx, xy, yy }: PointCovariance): Point {
  const large = largestEigenvalue(xx, xy, yy);
  const [x, y] = Math.abs(xy) > 1e-15 ? [large - yy, xy] : xx >= yy ? [1, 0] : [0, 1];
  const length = Math.hypot(x, y);
  return { x: x / length, y: y / length };
}

/** The place among all pieces' edges with the largest expected error and three SDs together. */
export function worstPlace(error: JobError, pieces: readonly EdgePiece[]): Point {
  const covariance = totalCovariance(error);
  const danger = (p: Point): number => {
    const { mean, covariance: c } = errorAt(error.beta, covariance, p);
    return Math.hypot(mean.x, mean.y) + 3 * Math.sqrt(Math.max(0, largestEigenvalue(c.xx, c.xy, c.yy)));
  };
  return pieces.flatMap(edgePlaces).reduce((worst, p) => (danger(p) > danger(worst) ? p : worst));
}

/**
 * Where the error at the worst place comes from, by the law of propagation of uncertainty: variances of independent sources
 * add, each taken whole across the job (a load's error, the constant's doubt and the growth are shared by all pieces: they
 * are one number each, not one a piece). Source of the law: JCGM 100:2008 (GUM), 5.1.2.
 * @param pieces at least one.
 */
export function errorBudget(error: JobError, pieces: readonly EdgePiece[]): ErrorBudget {
  const place = worstPlace(error, pieces);
  const { mean, covariance } = errorAt(error.beta, totalCovariance(error), place);
  const e = widestDirection(covariance);
  const total = along(covariance, e);
  const of = (source: BudgetSource, matrix: ArrayLike<number>): BudgetLine => {
    const variance = Math.max(0, along(covarianceAt(matrix, place), e));
    return { source, sdMm: Math.sqrt(variance), share: total > 0 ? variance / total : 0 };
  };
  return {
    place,
    meanMm: Math.hypot(mean.x, mean.y),
    lines: [
      of('constant', error.constantCovariance),
      of('load', error.loadCovariance),
      of('growth', growthCovariance(error.growthSd)),
    ],
    combinedSdMm: Math.sqrt(total),
  };
}

/**
 * Least edge at one place that hides the error of so large a share of jobs: the closed form's root, by halving to 0.1 um.
 * @param yieldShare 0 to 1, exclusive.
 */
export function budgetEdge(error: JobError, place: Point, isRound: boolean, yieldShare: number): number {
  const at = errorAt(error.beta, totalCovariance(error), place);
  const beyond = isRound ? chanceBeyondCircle : chanceBeyondSquare;
  let low = 0;
  let high = 1e-3;
  while (beyond(at, high) > 1 - yieldShare) {
    low = high;
    high *= 2;
  }
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    if (beyond(at, middle) > 1 - yieldShare) low = middle;
    else high = middle;
  }
  return high;
}
