import { leastSquares, matrix } from '../math/qr';
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
  /** Variances and covariance of the middle, mm^2; what is common to neighbouring points is counted. */
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
  readonly radiusVariance: number;
  /** Points on the circle, and the widest angle without one. */
  readonly inlierCount: number;
  readonly largestGapRad: number;
  readonly scatterMm: number;
}

export interface CircleSearch {
  readonly expectedRadiusMm: number;
  /** Spread of the radius about the expected one, mm: as far as it is known from elsewhere. */
  readonly radiusSdMm: number;
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
  const near: { readonly angle: number; readonly radius: number }[] = [];
  for (let i = 0; i < count; i++) {
    const [x, y] = [px[i]! - start.x, py[i]! - start.y];
    const radius = Math.hypot(x, y);
    if (Math.abs(radius - start.r) < 2 * search.toleranceMm) near.push({ angle: Math.atan2(y, x), radius });
  }
  if (near.length < 8) return null;
  return refined(near, start, search);
}

function refined(
  points: readonly { readonly angle: number; readonly radius: number }[],
  start: Circle,
  { expectedRadiusMm, radiusSdMm }: CircleSearch,
): CircleFit | null {
  const rows = points.map(({ angle }) => terms(angle));
  const weights = new Float64Array(points.length).fill(1);
  const residuals = new Float64Array(points.length);
  let scatter = 0.02;
  let solved: { readonly parameters: Float64Array; readonly inverseNormal: Float64Array } | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const sd = Math.max(scatter, 1e-4);
    const n = points.length;
    const priors = [radiusSdMm, OVAL_SD_MM, OVAL_SD_MM];
    const columns = [0, 3, 4];
    const design = matrix(n + 3, TERMS, (row, column) =>
      row < n
        ? (Math.sqrt(weights[row]!) * rows[row]![column]!) / sd
        : columns[row - n] === column
          ? 1 / priors[row - n]!
          : 0,
    );
    const rhs = new Float64Array(n + 3);
    for (let i = 0; i < n; i++) rhs[i] = (Math.sqrt(weights[i]!) * points[i]!.radius) / sd;
    rhs[n] = expectedRadiusMm / radiusSdMm;
    const fit = leastSquares(design, rhs);
    if (!fit.ok) return null;
    solved = fit.value;
    for (let i = 0; i < n; i++)
      residuals[i] = points[i]!.radius - rows[i]!.reduce((sum, term, k) => sum + term * solved!.parameters[k]!, 0);
    scatter = Math.max(1e-4, MAD_TO_SD * medianOf(residuals.map(Math.abs)));
    for (let i = 0; i < n; i++) {
      const t = residuals[i]! / (BISQUARE * scatter);
      weights[i] = Math.abs(t) < 1 ? (1 - t * t) ** 2 : 0;
    }
  }
  if (!solved) return null;
  const inliers = points
    .map((p, i) => ({ angle: p.angle, residual: residuals[i]!, weight: weights[i]! }))
    .filter((p) => p.weight > 0);
  const inOrder = [...inliers].sort((a, b) => a.angle - b.angle).map((p) => p.residual);
  const factor = inflationOf(inOrder);
  const [a0 = NaN, a1 = NaN, b1 = NaN] = solved.parameters;
  const v = solved.inverseNormal;
  return {
    x: start.x + a1,
    y: start.y + b1,
    radiusMm: a0,
    xx: v[TERMS + 1]! * factor,
    xy: v[TERMS + 2]! * factor,
    yy: v[2 * TERMS + 2]! * factor,
    radiusVariance: v[0]! * factor,
    inlierCount: inliers.length,
    largestGapRad: largestGap(inliers.map((p) => p.angle)),
    scatterMm: scatter,
  };
}
