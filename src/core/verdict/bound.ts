import { displacement, type Affine, type Point } from '../geometry/affine';
import { covarianceAt, largestSd } from '../fit/point-covariance';
import { chiSquareQuantile, fisherQuantile, studentQuantile } from '../math/quantile';

export const CONFIDENCE = 0.95;
export type Verdict = 'pass' | 'fail' | 'cannot_tell';

export interface MapWithCovariance {
  readonly map: Affine;
  readonly covariance: ArrayLike<number>;
  /** Infinite when the uncertainties are known. */
  readonly quantileDegrees: number;
}

export interface Bounds {
  /** Worst corner of the estimate. */
  readonly worstMm: number;
  readonly worstCorner: Point;
  /** The true worst corner is below this with the stated confidence. */
  readonly upperMm: number;
  /** The true worst corner is above this with the stated confidence; may be negative. */
  readonly lowerMm: number;
}

/**
 * Confidence bounds of the worst corner error. Upper: max over corners of |d| + t_.95 sqrt(lambda_max(Sigma)), valid
 * without a multiplicity correction (intersection-union). Lower: |d| - q sqrt(lambda_max(Sigma)) with q the root of the
 * chi-square(2) quantile (2 F(2, nu) when the spread was estimated) at 1 - .05 / corners (union of events: corrected).
 */
export function worstCornerBounds(fit: MapWithCovariance, corners: readonly Point[]): Bounds {
  const nu = fit.quantileDegrees;
  const upperFactor = studentQuantile(CONFIDENCE, nu);
  const level = 1 - (1 - CONFIDENCE) / corners.length;
  const lowerFactor = Math.sqrt(Number.isFinite(nu) ? 2 * fisherQuantile(level, 2, nu) : chiSquareQuantile(level, 2));
  const each = corners.map((corner) => {
    const d = displacement(fit.map, corner);
    const sd = largestSd(covarianceAt(fit.covariance, corner));
    const length = Math.hypot(d.x, d.y);
    return { corner, length, upper: length + upperFactor * sd, lower: length - lowerFactor * sd };
  });
  const worst = each.reduce((a, b) => (b.length > a.length ? b : a));
  return {
    worstMm: worst.length,
    worstCorner: worst.corner,
    upperMm: Math.max(...each.map((e) => e.upper)),
    lowerMm: Math.max(...each.map((e) => e.lower)),
  };
}

export function verdictOf(bounds: Bounds, toleranceMm: number): Verdict {
  if (bounds.upperMm <= toleranceMm) return 'pass';
  return bounds.lowerMm > toleranceMm ? 'fail' : 'cannot_tell';
}

/** What to do when nothing can be told: the larger share of the bound says where effort helps. */
export type Advice = 'more-spots' | 'another-load';

export function adviceFor(reading: ArrayLike<number>, total: ArrayLike<number>, corners: readonly Point[]): Advice {
  const worstSquare = (covariance: ArrayLike<number>): number =>
    Math.max(...corners.map((p) => largestSd(covarianceAt(covariance, p)) ** 2));
  const readingShare = worstSquare(reading);
  return readingShare > worstSquare(total) - readingShare ? 'more-spots' : 'another-load';
}
