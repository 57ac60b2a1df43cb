import { normalQuantile } from '../math/quantile';
import { leastSquares, matrix } from '../math/qr';
import { seededRng } from '../math/random';
import type { Observation } from '../reading/observation';

const SUBSET = 3;
/** A reading this many standard deviations of its prediction away does not belong. */
const REJECT_SD = 4;

/** Above this many observations of an axis, random triples stand for all of them. */
const ALL_TRIPLES_UP_TO = 12;
/** With a quarter of the observations wrong, 200 triples miss a clean one with a chance of 1e-47. */
const RANDOM_TRIPLES = 200;

type Triple = readonly [number, number, number];

/** All triples of n, or a fixed choice of random ones when there are many: same readings, same result. */
function subsets(n: number): readonly Triple[] {
  if (n > ALL_TRIPLES_UP_TO) {
    const rng = seededRng(n);
    const pick = (): number => Math.floor(rng() * n);
    return Array.from({ length: RANDOM_TRIPLES }, (): Triple => [pick(), pick(), pick()]);
  }
  const all: Triple[] = [];
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) for (let k = j + 1; k < n; k++) all.push([i, j, k]);
  return all;
}

interface Plane {
  readonly parameters: Float64Array;
  readonly inverseNormal: Float64Array;
}

/** d = t + a x + b y through the named observations of one axis; null when they lie on a line. */
function planeThrough(observations: readonly Observation[], chosen: readonly number[]): Plane | null {
  const design = matrix(chosen.length, SUBSET, (row, column) => {
    const o = observations[chosen[row]!]!;
    return [1, o.at.x, o.at.y][column]! / o.standardUncertaintyMm;
  });
  const rhs = chosen.map((i) => observations[i]!.valueMm / observations[i]!.standardUncertaintyMm);
  const solved = leastSquares(design, rhs);
  return solved.ok ? solved.value : null;
}

const residual = (o: Observation, plane: ArrayLike<number>): number =>
  (o.valueMm - plane[0]! - plane[1]! * o.at.x - plane[2]! * o.at.y) / o.standardUncertaintyMm;

function leverage(o: Observation, plane: Plane): number {
  const row = [1, o.at.x, o.at.y];
  let sum = 0;
  for (let i = 0; i < SUBSET; i++)
    for (let j = 0; j < SUBSET; j++) sum += row[i]! * plane.inverseNormal[i * SUBSET + j]! * row[j]!;
  return sum / o.standardUncertaintyMm ** 2;
}

/** Spread that the kept share of a normal sample shows is too small by this factor (asymptotic, Croux and Rousseeuw 1992, from memory). */
function keptShareFactor(share: number): number {
  if (share >= 1) return 1;
  const q = normalQuantile((1 + share) / 2);
  const density = Math.exp((-q * q) / 2) / Math.sqrt(2 * Math.PI);
  return 1 / Math.sqrt(1 - (2 * q * density) / share);
}

/**
 * Observations of one axis that do not belong, by least trimmed squares over all triples: the plane whose n - floor(n/4)
 * smallest squared residuals have the least sum, refitted to those; then every other one beyond four standard deviations
 * of its prediction, the spread floored at the stated uncertainty. Below five observations nothing is rejected.
 * Source: Rousseeuw 1984 for least trimmed squares, from memory; share and limit by our own simulation.
 * @returns indices into `observations`.
 */
export function misfits(observations: readonly Observation[]): readonly number[] {
  const n = observations.length;
  if (n < 5) return [];
  const keep = n - Math.floor(n / 4);
  const fit = trimmedPlane(observations, keep);
  if (!fit) return [];
  const spread = Math.sqrt(fit.cost / Math.max(1, keep - SUBSET)) * keptShareFactor(keep / n);
  const floor = Math.max(1, spread);
  return observations.flatMap((o, i) => {
    if (fit.kept.includes(i)) return [];
    const limit = REJECT_SD * floor * Math.sqrt(1 + leverage(o, fit.plane));
    return Math.abs(residual(o, fit.plane.parameters)) > limit ? [i] : [];
  });
}

/** Exact plane through three observations by Cramer's rule; null when they lie on a line. Speed: 84 of these a fit. */
function exactPlane(o: readonly [Observation, Observation, Observation]): readonly [number, number, number] | null {
  const [p, q, r] = o;
  const x1 = q.at.x - p.at.x;
  const y1 = q.at.y - p.at.y;
  const x2 = r.at.x - p.at.x;
  const y2 = r.at.y - p.at.y;
  const determinant = x1 * y2 - x2 * y1;
  if (Math.abs(determinant) < 1e-6 * (x1 * x1 + y1 * y1 + x2 * x2 + y2 * y2)) return null;
  const v1 = q.valueMm - p.valueMm;
  const v2 = r.valueMm - p.valueMm;
  const a = (v1 * y2 - v2 * y1) / determinant;
  const b = (x1 * v2 - x2 * v1) / determinant;
  return [p.valueMm - a * p.at.x - b * p.at.y, a, b];
}

interface TrimmedPlane {
  readonly plane: Plane;
  readonly kept: readonly number[];
  readonly cost: number;
}

function trimmedPlane(observations: readonly Observation[], keep: number): TrimmedPlane | null {
  let best: { cost: number; kept: readonly number[] } | null = null;
  for (const triple of subsets(observations.length)) {
    const [i, j, k] = triple;
    const plane = exactPlane([observations[i]!, observations[j]!, observations[k]!]);
    if (!plane) continue;
    const ranked = observations
      .map((o, i) => ({ i, square: residual(o, plane) ** 2 }))
      .sort((a, b) => a.square - b.square)
      .slice(0, keep);
    const cost = ranked.reduce((sum, r) => sum + r.square, 0);
    if (!best || cost < best.cost) best = { cost, kept: ranked.map((r) => r.i) };
  }
  if (!best) return null;
  const refitted = planeThrough(observations, best.kept);
  if (!refitted) return null;
  const cost = best.kept.reduce((sum, i) => sum + residual(observations[i]!, refitted.parameters) ** 2, 0);
  return { plane: refitted, kept: best.kept, cost };
}
