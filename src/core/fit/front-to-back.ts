import type { Point } from '../geometry/affine';
import type { Result } from '../result';
import type { Observation } from '../reading/observation';
import type { Axis } from '../target/wedge';
import { fitErrorMap, type ErrorMapFit, type FitError } from './fit-error-map';

/** One figure read on both faces of the same cut piece, in the front's sheet frame. */
export interface FacePair {
  readonly id: string;
  readonly axis: Axis;
  readonly at: Point;
  /** Cut minus print, on the front and on the back. */
  readonly frontMm: number;
  readonly backMm: number;
  readonly frontUncertaintyMm: number;
  readonly backUncertaintyMm: number;
}

/**
 * How the back's print lies against the front's, as a map in the front's sheet frame: back minus front. Both faces are read
 * against one and the same cut edge, so the cut and its load fall out: value = front - back,
 * u = sqrt(u_front^2 + u_back^2); then the usual weighted fit of the largest model that the spots support.
 * @returns the fit, or why there is none.
 */
export function frontToBack(pairs: readonly FacePair[], corners: readonly Point[]): Result<ErrorMapFit, FitError> {
  const differences = pairs.map((p): Observation => ({
    id: p.id,
    axis: p.axis,
    at: p.at,
    valueMm: p.frontMm - p.backMm,
    standardUncertaintyMm: Math.hypot(p.frontUncertaintyMm, p.backUncertaintyMm),
    loadKey: 'one piece',
  }));
  return fitErrorMap(differences, { corners });
}
