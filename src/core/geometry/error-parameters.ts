import { fail, ok, type Result } from '../result';
import { displacement, type Affine, type Frame, type Point } from './affine';

/**
 * An affine error map told as a shop would: A = R K S about a pivot, t the displacement of the pivot.
 * R turns by rotationRad counter-clockwise, K = [[1, squareness], [0, 1]] leans the y axis to +x, S scales.
 */
export interface ErrorParameters {
  readonly offsetAcrossMm: number;
  readonly offsetAlongMm: number;
  readonly rotationRad: number;
  /** 1 + scaleAcross is the length of the x edge of a unit square. */
  readonly scaleAcross: number;
  /** 1 + scaleAlong is the height of a unit square over its x edge. */
  readonly scaleAlong: number;
  readonly squareness: number;
}

export const NO_ERROR: ErrorParameters = {
  offsetAcrossMm: 0,
  offsetAlongMm: 0,
  rotationRad: 0,
  scaleAcross: 0,
  scaleAlong: 0,
  squareness: 0,
};

/** The affine map p -> p + t + (A - I)(p - pivot). */
export function fromParameters<F extends Frame = 'sheet'>(
  parameters: ErrorParameters,
  pivot: Point<F> = { x: 0, y: 0 },
): Affine<F, F> {
  const c = Math.cos(parameters.rotationRad);
  const s = Math.sin(parameters.rotationRad);
  const sx = 1 + parameters.scaleAcross;
  const sy = 1 + parameters.scaleAlong;
  const k = parameters.squareness;
  const xx = c * sx;
  const xy = (c * k - s) * sy;
  const yx = s * sx;
  const yy = (s * k + c) * sy;
  return {
    xx,
    xy,
    yx,
    yy,
    tx: pivot.x + parameters.offsetAcrossMm - xx * pivot.x - xy * pivot.y,
    ty: pivot.y + parameters.offsetAlongMm - yx * pivot.x - yy * pivot.y,
  };
}

export type NotAnErrorMap = { readonly kind: 'mirrored-or-singular'; readonly determinant: number };

/**
 * Exact decomposition of A = R K S: rotation atan2(A21, A11); 1 + ex = |first column|; det = A11 A22 - A12 A21;
 * 1 + ey = det / (1 + ex); k = (A11 A12 + A21 A22) / det.
 * @returns `mirrored-or-singular` when the determinant is not positive.
 */
export function toParameters<F extends Frame>(
  map: Affine<F, F>,
  pivot: Point<F> = { x: 0, y: 0 },
): Result<ErrorParameters, NotAnErrorMap> {
  const determinant = map.xx * map.yy - map.xy * map.yx;
  if (!(determinant > 0)) return fail({ kind: 'mirrored-or-singular', determinant });
  const width = Math.hypot(map.xx, map.yx);
  const t = displacement(map, pivot);
  return ok({
    offsetAcrossMm: t.x,
    offsetAlongMm: t.y,
    rotationRad: Math.atan2(map.yx, map.xx),
    scaleAcross: width - 1,
    scaleAlong: determinant / width - 1,
    squareness: (map.xx * map.xy + map.yx * map.yy) / determinant,
  });
}
