import { MAD_TO_SD, medianSize } from '../math/median';
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

/** Triples are tried until one of them was good all but surely (one missed in a million), but so many at most. */
const MOST_TRIPLES = 150;
const LEAST_TRIPLES = 12;
const MISSED = 1e-6;
const RADIUS_SHARE = 0.08;
const ROUNDS = 5;
/** Weights are taken anew until the parameters move by less than this, mm. */
const SETTLED_MM = 5e-5;
/** Roundness that rollers and lenses leave, mm: how far the two-lobed term is let go. */
const OVAL_SD_MM = 0.03;
/** Tukey's bisquare at 99 % efficiency. From memory. */
const BISQUARE = 7.04;

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

/** Points that lie on the circle; stops where they can no longer be more than `most`. */
function countNear(px: Float64Array, py: Float64Array, { x, y, r }: Circle, bounds: AgreementBounds): number {
  const n = px.length;
  const [inner, outer] = [Math.max(0, r - bounds.toleranceMm) ** 2, (r + bounds.toleranceMm) ** 2];
  let far = 0;
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [px[i]! - x, py[i]! - y];
    const square = dx * dx + dy * dy;
    if (square > inner && square < outer) continue;
    if (++far > n - bounds.most) break;
  }
  return n - far;
}

interface AgreementBounds {
  readonly toleranceMm: number;
  readonly most: number;
}

/** So many triples of which one holds good points only, all but surely, when a share of all points is good. */
const triplesFor = (goodShare: number): number => Math.log(MISSED) / Math.log(1 - Math.min(0.99, goodShare ** 3));

/** The circle that most points lie on, of many through three of them. */
function mostAgreed(px: Float64Array, py: Float64Array, search: CircleSearch): Circle | null {
  const { expectedRadiusMm, toleranceMm, rng } = search;
  const n = px.length;
  const pick = (): number => Math.floor(rng() * n);
  let best: Circle | null = null;
  let most = 0;
  let wanted = MOST_TRIPLES;
  for (let triple = 0; triple < wanted; triple++) {
    const circle = throughThree(px, py, [pick(), pick(), pick()]);
    if (!circle || Math.abs(circle.r / expectedRadiusMm - 1) > RADIUS_SHARE) continue;
    const near = countNear(px, py, circle, { toleranceMm, most });
    if (near <= most) continue;
    most = near;
    best = circle;
    wanted = Math.min(MOST_TRIPLES, Math.max(LEAST_TRIPLES, triplesFor(near / n)));
  }
  return best;
}

/** Sum over lags of the residuals' correlation, up to the first that is none: how many points are worth one. */
function inflationOf(residuals: Float64Array): number {
  const n = residuals.length;
  let square = 0;
  for (let i = 0; i < n; i++) square += residuals[i]! * residuals[i]!;
  if (square === 0) return 1;
  let inflation = 1;
  for (let lag = 1; lag < n / 8; lag++) {
    let sum = 0;
    for (let i = 0, other = lag; i < n; i++) {
      sum += residuals[i]! * residuals[other]!;
      if (++other === n) other = 0;
    }
    if (sum <= 0) break;
    inflation += (2 * sum) / square;
  }
  return inflation;
}

/** Terms of r = a0 + a1 cos + b1 sin + a2 cos 2 + b2 sin 2. */
const TERMS = 5;

/** The widest way between neighbours of angles that follow each other round a middle. */
function largestGap(angles: Float64Array): number {
  const round = 2 * Math.PI;
  let largest = 0;
  for (let i = 0; i < angles.length; i++) {
    const way = angles[(i + 1) % angles.length]! - angles[i]!;
    largest = Math.max(largest, way > 0 ? way : way + round);
  }
  return largest;
}

/**
 * A circle through edge points of which many may be wrong: the one most agreed on of up to 150 through three points, then
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
  const near = pointsNear(px, py, start, 2 * search.toleranceMm);
  return near.count < 8 ? null : refined(near, start, search);
}

/** Edge points told from the middle found, and the fit's terms at each of them, row by row. */
interface PolarPoints extends EdgePoints {
  readonly terms: Float64Array;
}

function pointsNear(px: Float64Array, py: Float64Array, { x, y, r }: Circle, reachMm: number): PolarPoints {
  const angles = new Float64Array(px.length);
  const radii = new Float64Array(px.length);
  const terms = new Float64Array(px.length * TERMS);
  let count = 0;
  for (let i = 0; i < px.length; i++) {
    const [dx, dy] = [px[i]! - x, py[i]! - y];
    const radius = Math.sqrt(dx * dx + dy * dy);
    if (Math.abs(radius - r) >= reachMm) continue;
    const [cos, sin] = [dx / radius, dy / radius];
    terms.set([1, cos, sin, cos * cos - sin * sin, 2 * cos * sin], count * TERMS);
    angles[count] = Math.atan2(dy, dx);
    radii[count++] = radius;
  }
  return { angles: angles.subarray(0, count), radii: radii.subarray(0, count), terms, count };
}

interface Weighted {
  readonly parameters: Float64Array;
  readonly inverseNormal: Float64Array;
}

/** One weighted fit of the five terms to points of one scatter, with what is known of radius and roundness beforehand. */
function weightedTerms(
  { radii, terms, count: n }: PolarPoints,
  weights: Float64Array,
  scatterMm: number,
  { expectedRadiusMm, radiusSdMm, ovalSdMm = OVAL_SD_MM }: CircleSearch,
): Weighted | null {
  const data = new Float64Array((n + 3) * TERMS);
  const rhs = new Float64Array(n + 3);
  for (let i = 0, at = 0; i < n; i++) {
    const weight = Math.sqrt(weights[i]!) / scatterMm;
    for (let k = 0; k < TERMS; k++, at++) data[at] = weight * terms[at]!;
    rhs[i] = weight * radii[i]!;
  }
  data[n * TERMS] = 1 / radiusSdMm;
  rhs[n] = expectedRadiusMm / radiusSdMm;
  data[(n + 1) * TERMS + 3] = 1 / ovalSdMm;
  data[(n + 2) * TERMS + 4] = 1 / ovalSdMm;
  const fit = leastSquares({ rows: n + 3, columns: TERMS, data }, rhs);
  return fit.ok ? fit.value : null;
}

function residualsOf({ radii, terms, count }: PolarPoints, parameters: Float64Array, out: Float64Array): void {
  for (let i = 0, at = 0; i < count; i++) {
    let radius = 0;
    for (let k = 0; k < TERMS; k++, at++) radius += terms[at]! * parameters[k]!;
    out[i] = radii[i]! - radius;
  }
}

/** How many points are worth one, and what the terms take of what is left: the variance goes with it. */
function doubtFactor(residualsInOrder: Float64Array): number {
  const inflation = inflationOf(residualsInOrder);
  const independent = residualsInOrder.length / inflation;
  return inflation * (independent / Math.max(1, independent - TERMS));
}

const isSettled = (now: Float64Array, before: Float64Array | undefined): boolean =>
  before !== undefined && now.every((p, k) => Math.abs(p - before[k]!) < SETTLED_MM);

function refined(points: PolarPoints, start: Circle, search: CircleSearch): CircleFit | null {
  const weights = new Float64Array(points.count).fill(1);
  const residuals = new Float64Array(points.count);
  const held = new Float64Array(points.count);
  let scatterMm = 0.02;
  let fit: Weighted | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const solved: Weighted | null = weightedTerms(points, weights, scatterMm, search);
    if (!solved) return null;
    const isLast = isSettled(solved.parameters, fit?.parameters);
    fit = solved;
    residualsOf(points, solved.parameters, residuals);
    scatterMm = Math.max(1e-4, MAD_TO_SD * medianSize(residuals, held));
    for (let i = 0; i < residuals.length; i++) {
      const t = residuals[i]! / (BISQUARE * scatterMm);
      weights[i] = Math.abs(t) < 1 ? (1 - t * t) ** 2 : 0;
    }
    if (isLast) break;
  }
  return fit && asCircle(points, { fit, weights, residuals, start });
}

interface Refined {
  readonly fit: Weighted;
  readonly weights: Float64Array;
  readonly residuals: Float64Array;
  readonly start: Circle;
}

function asCircle({ angles }: PolarPoints, { fit, weights, residuals, start }: Refined): CircleFit {
  // Points of one circle follow each other the same way round every middle inside it: rays keep their order.
  const inliers = { angles: angles.slice(), residuals: residuals.slice(), count: 0 };
  for (let i = 0; i < weights.length; i++) {
    if (weights[i]! === 0) continue;
    inliers.angles[inliers.count] = angles[i]!;
    inliers.residuals[inliers.count++] = residuals[i]!;
  }
  const factor = doubtFactor(inliers.residuals.subarray(0, inliers.count));
  const [radiusMm, x, y, ovalCosMm, ovalSinMm] = [0, 1, 2, 3, 4].map((k) => fit.parameters[k]!);
  const variance = (i: number, j: number): number => fit.inverseNormal[i * TERMS + j]! * factor;
  return {
    ...{ x: start.x + x!, y: start.y + y!, radiusMm: radiusMm!, ovalCosMm: ovalCosMm!, ovalSinMm: ovalSinMm! },
    ...{ xx: variance(1, 1), xy: variance(1, 2), yy: variance(2, 2) },
    inlierCount: inliers.count,
    largestGapRad: largestGap(inliers.angles.subarray(0, inliers.count)),
  };
}
