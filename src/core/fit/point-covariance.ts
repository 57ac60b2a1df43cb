import type { Point } from '../geometry/affine';
import { largestEigenvalue } from '../math/symmetric';
import { componentRow, PARAMETER_COUNT } from './design';

/** 2 x 2 covariance of the displacement at a place, mm^2. */
export interface PointCovariance {
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
}

/** rowA^T M rowB of a row-major 6 x 6 matrix. */
function form(m: ArrayLike<number>, a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < PARAMETER_COUNT; i++) {
    for (let j = 0; j < PARAMETER_COUNT; j++) sum += a[i]! * m[i * PARAMETER_COUNT + j]! * b[j]!;
  }
  return sum;
}

/** Covariance of d(p) from the 6 x 6 covariance of the parameters. */
export function covarianceAt(covariance: ArrayLike<number>, p: Point): PointCovariance {
  const across = componentRow('across', p.x, p.y);
  const along = componentRow('along', p.x, p.y);
  return {
    xx: form(covariance, across, across),
    xy: form(covariance, across, along),
    yy: form(covariance, along, along),
  };
}

/** Largest standard deviation over all directions at a place, mm. */
export function largestSd(c: PointCovariance): number {
  return Math.sqrt(Math.max(0, largestEigenvalue(c.xx, c.xy, c.yy)));
}
