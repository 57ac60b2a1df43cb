import type { Point } from '../geometry/affine';
import type { PointCovariance } from '../fit/point-covariance';
import { normalProbability } from '../math/quantile';
import { largestEigenvalue } from '../math/symmetric';

/** An error at one place: where it is expected, and its covariance. */
export interface PlaceError {
  readonly mean: Point;
  readonly covariance: PointCovariance;
}

/** How far from its expected value the integral reaches: beyond 8 SD lies less than 1e-14. */
const REACH_SD = 8;
const STEPS = 200;

/** Simpson's rule over [from, to]. */
function simpson(f: (x: number) => number, from: number, to: number): number {
  if (!(to > from)) return 0;
  const h = (to - from) / STEPS;
  let sum = f(from) + f(to);
  for (let i = 1; i < STEPS; i++) sum += f(from + i * h) * (i % 2 === 1 ? 4 : 2);
  return (sum * h) / 3;
}

const density = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);

/** Chance that a normal number lies in [low, high]; an SD of zero leaves its mean. */
function between(mean: number, sd: number, low: number, high: number): number {
  if (sd <= 0) return mean >= low && mean <= high ? 1 : 0;
  return normalProbability((high - mean) / sd) - normalProbability((low - mean) / sd);
}

/** Principal directions of a covariance: the mean along each, and their SDs, larger first. */
function principal({ mean, covariance: { xx, xy, yy } }: PlaceError) {
  const large = largestEigenvalue(xx, xy, yy);
  const small = Math.max(0, xx + yy - large);
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return {
    u: { mean: c * mean.x + s * mean.y, sd: Math.sqrt(Math.max(0, large)) },
    v: { mean: -s * mean.x + c * mean.y, sd: Math.sqrt(small) },
  };
}

/**
 * Chance that the error's length exceeds r. The error is bivariate normal; over its larger principal direction the chance
 * of the other one is integrated inside the circle, with u = r sin t so that the circle's ends do no harm (Simpson, 200
 * steps). @param radiusMm >= 0.
 */
export function chanceBeyondCircle(error: PlaceError, radiusMm: number): number {
  const { u, v } = principal(error);
  const r = radiusMm;
  const inside = (at: number): number => {
    const half = Math.sqrt(Math.max(0, r * r - at * at));
    return between(v.mean, v.sd, -half, half);
  };
  if (u.sd <= 0) return Math.abs(u.mean) <= r ? 1 - inside(u.mean) : 1;
  const angleOf = (at: number): number => Math.asin(Math.min(1, Math.max(-1, at / r)));
  if (r === 0) return 1;
  const from = angleOf(u.mean - REACH_SD * u.sd);
  const to = angleOf(u.mean + REACH_SD * u.sd);
  const weight = (t: number): number => {
    const at = r * Math.sin(t);
    return ((r * Math.cos(t)) / u.sd) * density((at - u.mean) / u.sd) * inside(at);
  };
  return Math.min(1, Math.max(0, 1 - simpson(weight, from, to)));
}

/**
 * Chance that the error exceeds r across or along: what shows on a piece with straight edges in those directions. Over x the
 * conditional normal of y is integrated (Simpson, 200 steps). @param halfMm >= 0.
 */
export function chanceBeyondSquare({ mean, covariance: { xx, xy, yy } }: PlaceError, halfMm: number): number {
  const sdX = Math.sqrt(Math.max(0, xx));
  const insideAt = (x: number): number => {
    const slope = xx > 0 ? xy / xx : 0;
    const sd = Math.sqrt(Math.max(0, yy - slope * xy));
    return between(mean.y + slope * (x - mean.x), sd, -halfMm, halfMm);
  };
  if (sdX <= 0) return Math.abs(mean.x) <= halfMm ? 1 - insideAt(mean.x) : 1;
  const from = Math.max(-halfMm, mean.x - REACH_SD * sdX);
  const to = Math.min(halfMm, mean.x + REACH_SD * sdX);
  const weight = (x: number): number => (density((x - mean.x) / sdX) / sdX) * insideAt(x);
  return Math.min(1, Math.max(0, 1 - simpson(weight, from, to)));
}
