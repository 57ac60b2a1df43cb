import { leastSquares } from '../math/qr';
import type { Rng } from '../math/random';

/** Edge points round a middle: angle and distance, mm, counter-clockwise as given. */
export interface EdgePoints {
  readonly angles: Float64Array;
  readonly radii: Float64Array;
  readonly count: number;
}

/** A circle through edge points, and how well it is known. */
export interface CircleFit {
  /** Middle against the one that the points are told from, mm. */
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  /** Two-lobed part of the radius: its factors of cos and sin of twice the angle, mm. */
  readonly ovalCosMm: number;
  readonly ovalSinMm: number;
  /** Variances and covariance of the middle, mm^2; what is common to neighbouring points is counted. */
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
  /** Points on the circle, and the widest angle without one. */
  readonly inlierCount: number;
  readonly largestGapRad: number;
}

export interface CircleSearch {
  readonly expectedRadiusMm: number;
  /** Spread of the radius about the expected one, mm: as far as it is known from elsewhere. */
  readonly radiusSdMm: number;
  /** How oval it may be, mm: what rollers leave of a round one, unless a tilted view is to be allowed for. */
  readonly ovalSdMm?: number;
  /** How far a point of the circle may lie off it, mm. */
  readonly toleranceMm: number;
  readonly rng: Rng;
}

const TRIPLES = 150;
const RADIUS_SHARE = 0.08;
const ROUNDS = 5;
/** Roundness that rollers and lenses leave, mm: how far the two-lobed term is let go. */
const OVAL_SD_MM = 0.03;
/** Tukey's bisquare at 95 % efficiency; MAD to standard deviation. From memory. */
const BISQUARE = 4.685;
const MAD_TO_SD = 1.4826;

interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** The circle through three points; null when they lie on a line. */
function throughThree(px: Float64Array, py: Float64Array, [i, j, k]: readonly [number, number, number]): Circle | null {
  const [ax, ay] = [px[j]! - px[i]!, py[j]! - py[i]!];
  const [bx, by] = [px[k]! - px[i]!, py[k]! - py[i]!];
  const cross = 2 * (ax * by - ay * bx);
  if (Math.abs(cross) < 1e-9) return null;
  const [a2, b2] = [ax * ax + ay * ay, bx * bx + by * by];
  const x = (by * a2 - ay * b2) / cross;
  const y = (ax * b2 - bx * a2) / cross;
  return { x: px[i]! + x, y: py[i]! + y, r: Math.hypot(x, y) };
}

function countNear(px: Float64Array, py: Float64Array, { x, y, r }: Circle, toleranceMm: number): number {
  let near = 0;
  for (let i = 0; i < px.length; i++) {
    const gap = Math.sqrt((px[i]! - x) ** 2 + (py[i]! - y) ** 2) - r;
    if (gap < toleranceMm && gap > -toleranceMm) near += 1;
  }
  return near;
}

/** The circle that most points lie on, of many through three of them. */
function mostAgreed(px: Float64Array, py: Float64Array, search: CircleSearch): Circle | null {
  const { expectedRadiusMm, toleranceMm, rng } = search;
  const n = px.length;
  const pick = (): number => Math.floor(rng() * n);
  let best: Circle | null = null;
  let most = 0;
  for (let triple = 0; triple < TRIPLES; triple++) {
    const circle = throughThree(px, py, [pick(), pick(), pick()]);
    if (!circle || Math.abs(circle.r / expectedRadiusMm - 1) > RADIUS_SHARE) continue;
    const near = countNear(px, py, circle, toleranceMm);
    if (near <= most) continue;
    most = near;
    best = circle;
  }
  return best;
}

const medianOf = (values: Float64Array): number => {
  const sorted = values.slice().sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

/** Sum over lags of the residuals' correlation, up to the first that is none: how many points are worth one. */
function inflationOf(residuals: readonly number[]): number {
  const n = residuals.length;
  const square = residuals.reduce((sum, r) => sum + r * r, 0);
  if (square === 0) return 1;
  let inflation = 1;
  for (let lag = 1; lag < n / 8; lag++) {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += residuals[i]! * residuals[(i + lag) % n]!;
    if (sum <= 0) break;
    inflation += (2 * sum) / square;
  }
  return inflation;
}

/** Rows of r = a0 + a1 cos + b1 sin + a2 cos 2 + b2 sin 2, and one each for what is known beforehand. */
const TERMS = 5;
const terms = (angle: number): readonly number[] => [
  1,
  Math.cos(angle),
  Math.sin(angle),
  Math.cos(2 * angle),
  Math.sin(2 * angle),
];

function largestGap(angles: readonly number[]): number {
  const sorted = [...angles].sort((a, b) => a - b);
  return sorted.reduce(
    (gap, angle, i) => Math.max(gap, i === 0 ? angle + 2 * Math.PI - sorted.at(-1)! : angle - sorted[i - 1]!),
    0,
  );
}

/**
 * A circle through edge points of which many may be wrong: the one most agreed on of 150 through three points, then
 * weighted least squares by Tukey's bisquare with a weak two-lobed term. The middle's variance is that of the fit times the
 * residuals' correlation round the circle, because ragged ink makes neighbours alike.
 * @returns null when no circle of about the expected radius goes through at least eight of the points.
 */
export function fitCircle({ angles, radii, count }: EdgePoints, search: CircleSearch): CircleFit | null {
  const px = new Float64Array(count);
  const py = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    px[i] = radii[i]! * Math.cos(angles[i]!);
    py[i] = radii[i]! * Math.sin(angles[i]!);
  }
  const start = mostAgreed(px, py, search);
  if (!start) return null;
  // Told from the middle found, so that the terms are those of a circle about it.
  const near: PolarPoint[] = [];
  for (let i = 0; i < count; i++) {
    const [x, y] = [px[i]! - start.x, py[i]! - start.y];
    const radius = Math.hypot(x, y);
    if (Math.abs(radius - start.r) < 2 * search.toleranceMm) near.push({ angle: Math.atan2(y, x), radius });
  }
  if (near.length < 8) return null;
  return refined(near, start, search);
}

interface PolarPoint {
  readonly angle: number;
  readonly radius: number;
}

interface Weighted {
  readonly parameters: Float64Array;
  readonly inverseNormal: Float64Array;
}

/** One weighted fit of the five terms to points of one scatter, with what is known of radius and roundness beforehand. */
function weightedTerms(
  points: readonly PolarPoint[],
  weights: Float64Array,
  scatterMm: number,
  { expectedRadiusMm, radiusSdMm, ovalSdMm = OVAL_SD_MM }: CircleSearch,
): Weighted | null {
  const n = points.length;
  const data = new Float64Array((n + 3) * TERMS);
  const rhs = new Float64Array(n + 3);
  points.forEach(({ angle, radius }, i) => {
    const weight = Math.sqrt(weights[i]!) / scatterMm;
    terms(angle).forEach((term, k) => (data[i * TERMS + k] = weight * term));
    rhs[i] = weight * radius;
  });
  data[n * TERMS] = 1 / radiusSdMm;
  rhs[n] = expectedRadiusMm / radiusSdMm;
  data[(n + 1) * TERMS + 3] = 1 / ovalSdMm;
  data[(n + 2) * TERMS + 4] = 1 / ovalSdMm;
  const fit = leastSquares({ rows: n + 3, columns: TERMS, data }, rhs);
  return fit.ok ? fit.value : null;
}

const radiusAt = (parameters: Float64Array, angle: number): number =>
  terms(angle).reduce((sum, term, k) => sum + term * parameters[k]!, 0);

/** How many points are worth one, and what the terms take of what is left: the variance goes with it. */
function doubtFactor(residualsInOrder: readonly number[]): number {
  const inflation = inflationOf(residualsInOrder);
  const independent = residualsInOrder.length / inflation;
  return inflation * (independent / Math.max(1, independent - TERMS));
}

function refined(points: readonly PolarPoint[], start: Circle, search: CircleSearch): CircleFit | null {
  const weights = new Float64Array(points.length).fill(1);
  let residuals = new Float64Array(points.length);
  let scatterMm = 0.02;
  let fit: Weighted | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const solved: Weighted | null = weightedTerms(points, weights, scatterMm, search);
    if (!solved) return null;
    fit = solved;
    residuals = Float64Array.from(points, ({ angle, radius }) => radius - radiusAt(solved.parameters, angle));
    scatterMm = Math.max(1e-4, MAD_TO_SD * medianOf(residuals.map(Math.abs)));
    residuals.forEach((residual, i) => {
      const t = residual / (BISQUARE * scatterMm);
      weights[i] = Math.abs(t) < 1 ? (1 - t * t) ** 2 : 0;
    });
  }
  return fit && asCircle(points, { fit, weights, residuals, start });
}

interface Refined {
  readonly fit: Weighted;
  readonly weights: Float64Array;
  readonly residuals: Float64Array;
  readonly start: Circle;
}

function asCircle(points: readonly PolarPoint[], { fit, weights, residuals, start }: Refined): CircleFit {
  const inliers = points
    .map(({ angle }, i) => ({ angle, residual: residuals[i]!, weight: weights[i]! }))
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => a.angle - b.angle);
  const factor = doubtFactor(inliers.map(({ residual }) => residual));
  const [radiusMm, x, y, ovalCosMm, ovalSinMm] = [0, 1, 2, 3, 4].map((k) => fit.parameters[k]!);
  const variance = (i: number, j: number): number => fit.inverseNormal[i * TERMS + j]! * factor;
  return {
    ...{ x: start.x + x!, y: start.y + y!, radiusMm: radiusMm!, ovalCosMm: ovalCosMm!, ovalSinMm: ovalSinMm! },
    ...{ xx: variance(1, 1), xy: variance(1, 2), yy: variance(2, 2) },
    inlierCount: inliers.length,
    largestGapRad: largestGap(inliers.map(({ angle }) => angle)),
  };
}
