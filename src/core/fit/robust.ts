import { normalQuantile } from '../math/normal-quantile';
import { leastSquares, matrix } from '../math/qr';
import { seededRng } from '../math/random';
import type { Observation } from '../reading/observation';

/** Parameters of one axis: shift and two slopes; one more where the cutter came from either side. */
const PLANE = 3;
/** A reading this many standard deviations of its prediction away does not belong. */
const REJECT_SD = 4;

/** Above this many observations of an axis, random subsets stand for all of them. */
const ALL_SUBSETS_UP_TO = 12;
/** Above this many observations of an axis, planes are first compared on this many of them; only the best few are held against all. */
const FIRST_COMPARED_ON = 1000;
const BEST_PLANES = 10;
/** With a quarter of the observations wrong, 200 triples miss a clean one with a chance of 1e-47, 200 fours with 1e-33. */
const RANDOM_SUBSETS = 200;

const listed = new Map<string, readonly (readonly number[])[]>();

/** All subsets of `size` out of n, or a fixed choice of random ones when there are many: same readings, same result. */
function subsets(n: number, size: number): readonly (readonly number[])[] {
  if (n > ALL_SUBSETS_UP_TO) {
    const rng = seededRng(n);
    return Array.from({ length: RANDOM_SUBSETS }, () => Array.from({ length: size }, () => Math.floor(rng() * n)));
  }
  const key = `${n} ${size}`;
  const known = listed.get(key) ?? allSubsets(n, size);
  listed.set(key, known);
  return known;
}

function allSubsets(n: number, size: number): readonly (readonly number[])[] {
  let all: number[][] = [[]];
  for (let k = 0; k < size; k++)
    all = all.flatMap((chosen) => {
      const first = (chosen.at(-1) ?? -1) + 1;
      return Array.from({ length: n - first }, (_, i) => [...chosen, first + i]);
    });
  return all;
}

interface Plane {
  readonly parameters: Float64Array;
  readonly inverseNormal: Float64Array;
}

const rowOf = (o: Observation): readonly number[] => [1, o.at.x, o.at.y, o.approach ?? 0];

/** d = t + a x + b y [+ side h] through the named observations of one axis; null when they do not tell it. */
function planeThrough(observations: readonly Observation[], chosen: readonly number[], size: number): Plane | null {
  const design = matrix(chosen.length, size, (row, column) => {
    const o = observations[chosen[row]!]!;
    return rowOf(o)[column]! / o.standardUncertaintyMm;
  });
  const rhs = chosen.map((i) => observations[i]!.valueMm / observations[i]!.standardUncertaintyMm);
  const solved = leastSquares(design, rhs);
  return solved.ok ? solved.value : null;
}

function residual(o: Observation, plane: ArrayLike<number>): number {
  const sided = plane.length > PLANE ? (o.approach ?? 0) * plane[PLANE]! : 0;
  return (o.valueMm - plane[0]! - plane[1]! * o.at.x - plane[2]! * o.at.y - sided) / o.standardUncertaintyMm;
}

function leverage(o: Observation, { parameters, inverseNormal }: Plane): number {
  const size = parameters.length;
  const row = rowOf(o);
  let sum = 0;
  for (let i = 0; i < size; i++) for (let j = 0; j < size; j++) sum += row[i]! * inverseNormal[i * size + j]! * row[j]!;
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
 * of its prediction, the spread floored at the stated uncertainty. Below five observations nothing is rejected. Where the
 * cutter came from either side, planes have that as a fourth parameter, and nothing is rejected below six.
 * Source: Rousseeuw 1984 for least trimmed squares, from memory; share and limit by our own simulation.
 * @returns indices into `observations`.
 */
export function misfits(observations: readonly Observation[]): readonly number[] {
  const n = observations.length;
  const sides = new Set(observations.map((o) => o.approach));
  const size = sides.has(1) && sides.has(-1) ? PLANE + 1 : PLANE;
  if (n < size + 2) return [];
  const keep = n - Math.floor(n / 4);
  const fit = trimmedPlane(observations, keep, size);
  if (!fit) return [];
  const spread = Math.sqrt(fit.cost / Math.max(1, keep - size)) * keptShareFactor(keep / n);
  const floor = Math.max(1, spread);
  const isKept = new Uint8Array(n);
  for (const i of fit.kept) isKept[i] = 1;
  return observations.flatMap((o, i) => {
    if (isKept[i] === 1) return [];
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

/** Plane with a side, exact through four observations, by elimination; null when they do not tell it. */
function exactSided(chosen: readonly Observation[]): readonly number[] | null {
  const rows = chosen.map((o) => [...rowOf(o), o.valueMm]);
  const size = rows.length;
  for (let k = 0; k < size; k++) {
    const pivot = rows.slice(k).reduce((best, row) => (Math.abs(row[k]!) > Math.abs(best[k]!) ? row : best));
    const reach = Math.max(...rows.map((row) => Math.abs(row[k]!)));
    if (Math.abs(pivot[k]!) <= 1e-9 * reach || reach === 0) return null;
    rows.splice(rows.indexOf(pivot), 1);
    rows.splice(k, 0, pivot);
    for (const row of rows) {
      if (row === pivot) continue;
      const share = row[k]! / pivot[k]!;
      for (let j = k; j <= size; j++) row[j]! -= share * pivot[j]!;
    }
  }
  return rows.map((row, k) => row[size]! / row[k]!);
}

/** Plane that holds a subset exactly; speed: one for each subset of each fit. */
function planeOf(observations: readonly Observation[], subset: readonly number[]): ArrayLike<number> | null {
  const chosen = subset.map((i) => observations[i]!);
  const [a, b, c] = chosen;
  return chosen.length === PLANE ? exactPlane([a!, b!, c!]) : exactSided(chosen);
}

/** Observations as columns, with room for their squared residuals: speed, every subset of a fit is held against all of them. */
interface Columns {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly side: Float64Array;
  readonly value: Float64Array;
  readonly sd: Float64Array;
  readonly squares: Float64Array;
}

function columnsOf(observations: readonly Observation[]): Columns {
  const column = (of: (o: Observation) => number): Float64Array => {
    const filled = new Float64Array(observations.length);
    for (let i = 0; i < filled.length; i++) filled[i] = of(observations[i]!);
    return filled;
  };
  return {
    x: column((o) => o.at.x),
    y: column((o) => o.at.y),
    side: column((o) => o.approach ?? 0),
    value: column((o) => o.valueMm),
    sd: column((o) => o.standardUncertaintyMm),
    squares: new Float64Array(observations.length),
  };
}

/** Squared residuals under a plane, into the columns' own room, which is returned. */
function squaresUnder({ x, y, side, value, sd, squares }: Columns, plane: ArrayLike<number>): Float64Array {
  const [shift, slopeX, slopeY] = [plane[0]!, plane[1]!, plane[2]!];
  const sided = plane.length > PLANE ? plane[PLANE]! : 0;
  for (let i = 0; i < squares.length; i++) {
    const r = (value[i]! - shift - slopeX * x[i]! - slopeY * y[i]! - side[i]! * sided) / sd[i]!;
    squares[i] = r * r;
  }
  return squares;
}

/** Few values are sorted sooner by insertion than by the engine's own sort. */
const INSERTION_UP_TO = 40;

function sortUp(values: Float64Array): Float64Array {
  if (values.length > INSERTION_UP_TO) return values.sort();
  for (let i = 1; i < values.length; i++) {
    const one = values[i]!;
    let at = i;
    for (; at > 0 && values[at - 1]! > one; at--) values[at] = values[at - 1]!;
    values[at] = one;
  }
  return values;
}

/** Sum of the `keep` smallest squared residuals. */
function trimmedCost(columns: Columns, plane: ArrayLike<number>, keep: number): number {
  const squares = sortUp(squaresUnder(columns, plane));
  let cost = 0;
  for (let i = 0; i < keep; i++) cost += squares[i]!;
  return cost;
}

/** Indices of the `keep` observations nearest to a plane; among equals the first. */
function nearestTo(columns: Columns, plane: ArrayLike<number>, keep: number): readonly number[] {
  const squares = Float64Array.from(squaresUnder(columns, plane));
  const limit = Float64Array.from(squares).sort()[keep - 1]!;
  let atLimit = keep - squares.reduce((count, square) => count + (square < limit ? 1 : 0), 0);
  return Array.from(squares).flatMap((square, i) => {
    if (square < limit) return [i];
    return square === limit && atLimit-- > 0 ? [i] : [];
  });
}

/**
 * Of many planes the few that fit a fixed choice of the observations best: with many observations, to hold each plane against all
 * of them would take their number times the planes. Source: nested subsets of FAST-LTS (Rousseeuw and Van Driessen 2006, from memory).
 */
function shortlist(
  observations: readonly Observation[],
  planes: readonly ArrayLike<number>[],
  share: number,
): readonly ArrayLike<number>[] {
  if (observations.length <= FIRST_COMPARED_ON) return planes;
  const rng = seededRng(observations.length);
  const some = Array.from({ length: FIRST_COMPARED_ON }, () => observations[Math.floor(rng() * observations.length)]!);
  const columns = columnsOf(some);
  const keep = Math.round(share * FIRST_COMPARED_ON);
  return planes
    .map((plane) => ({ plane, cost: trimmedCost(columns, plane, keep) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, BEST_PLANES)
    .map((p) => p.plane);
}

function trimmedPlane(observations: readonly Observation[], keep: number, size: number): TrimmedPlane | null {
  const planes = subsets(observations.length, size)
    .map((subset) => planeOf(observations, subset))
    .filter((plane) => plane !== null);
  const columns = columnsOf(observations);
  let best: { readonly cost: number; readonly plane: ArrayLike<number> } | null = null;
  for (const plane of shortlist(observations, planes, keep / observations.length)) {
    const cost = trimmedCost(columns, plane, keep);
    if (!best || cost < best.cost) best = { cost, plane };
  }
  if (!best) return null;
  const kept = nearestTo(columns, best.plane, keep);
  const refitted = planeThrough(observations, kept, size);
  if (!refitted) return null;
  const cost = kept.reduce((sum, i) => sum + residual(observations[i]!, refitted.parameters) ** 2, 0);
  return { plane: refitted, kept, cost };
}
