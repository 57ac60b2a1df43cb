import { displacement, type Affine, type Point } from '@/core/geometry/affine';
import { covarianceAt } from '@/core/fit/point-covariance';

export interface MapArrow {
  readonly from: Point;
  readonly to: Point;
  readonly isUsed: boolean;
}

export interface MapEllipse {
  readonly centre: Point;
  readonly radiusLongMm: number;
  readonly radiusShortMm: number;
  readonly turnDeg: number;
}

const NICE = [1, 2, 5, 10, 20, 50, 100, 200, 500];

/** Magnification that draws the worst error about 26 mm long on the sheet: a round number, stated with the picture. */
export function magnificationFor(worstMm: number): number {
  const wanted = 26 / Math.max(worstMm, 0.02);
  return [...NICE].reverse().find((n) => n <= wanted) ?? 1;
}

/** sqrt of the chi-square(2) quantile at 95 %. */
const ELLIPSE_95 = 2.4477;

/** 95 % ellipse of the map's displacement at a place, magnified like the arrows, round the arrow's tip. */
export function ellipseAt(map: Affine, covariance: ArrayLike<number>, p: Point, magnification: number): MapEllipse {
  const c = covarianceAt(covariance, p);
  const mean = (c.xx + c.yy) / 2;
  const spread = Math.hypot((c.xx - c.yy) / 2, c.xy);
  const d = displacement(map, p);
  const radius = (variance: number): number => ELLIPSE_95 * Math.sqrt(Math.max(0, variance)) * magnification;
  return {
    centre: { x: p.x + d.x * magnification, y: p.y + d.y * magnification },
    radiusLongMm: radius(mean + spread),
    radiusShortMm: radius(mean - spread),
    turnDeg: (0.5 * Math.atan2(2 * c.xy, c.xx - c.yy) * 180) / Math.PI,
  };
}

export function arrowAt(map: Affine, p: Point, magnification: number): MapArrow {
  const d = displacement(map, p);
  return { from: p, to: { x: p.x + d.x * magnification, y: p.y + d.y * magnification }, isUsed: true };
}
