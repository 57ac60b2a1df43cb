import type { Observation } from '../reading/observation';

/** Weighted least squares plane d = t + a x + b y of one component. */
export interface PlaneFit {
  /** t, a, b. */
  readonly parameters: readonly [number, number, number];
  /** 3 x 3 row-major, from the stated uncertainties. */
  readonly covariance: readonly number[];
  readonly chiSquare: number;
}

/** Spots whose spread across their main direction is less than this share of it (squared) are left to orthogonal factors. */
const LEAST_SPREAD = 1e-6;

/** One component's readings side by side: places, values and weights 1/u^2. */
interface Columns {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly value: Float64Array;
  readonly weight: Float64Array;
}

/**
 * Readings of both components in flat arrays, across from the front and along from the back: objects are walked once.
 * Null where a figure was cut from a side of its own.
 */
function columnsOf(observations: readonly Observation[]): { readonly across: Columns; readonly along: Columns } | null {
  const count = observations.length;
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  const value = new Float64Array(count);
  const weight = new Float64Array(count);
  let front = 0;
  let back = count;
  for (const o of observations) {
    if (o.approach !== undefined) return null;
    const i = o.axis === 'across' ? front++ : --back;
    x[i] = o.at.x;
    y[i] = o.at.y;
    value[i] = o.valueMm;
    weight[i] = 1 / (o.standardUncertaintyMm * o.standardUncertaintyMm);
  }
  const part = (from: number, to: number): Columns => ({
    x: x.subarray(from, to),
    y: y.subarray(from, to),
    value: value.subarray(from, to),
    weight: weight.subarray(from, to),
  });
  return { across: part(0, front), along: part(front, count) };
}

/** The plane of one component; null where its spots are too few, or almost on a line. */
function planeOf({ x, y, value, weight }: Columns): PlaneFit | null {
  const count = x.length;
  if (count < 3) return null;
  let [w, wx, wy, wv] = [0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    w += weight[i]!;
    wx += weight[i]! * x[i]!;
    wy += weight[i]! * y[i]!;
    wv += weight[i]! * value[i]!;
  }
  const [mx, my, mv] = [wx / w, wy / w, wv / w];
  let [xx, xy, yy, xv, yv] = [0, 0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const dx = x[i]! - mx;
    const dy = y[i]! - my;
    const wdx = weight[i]! * dx;
    const wdy = weight[i]! * dy;
    const dv = value[i]! - mv;
    xx += wdx * dx;
    xy += wdx * dy;
    yy += wdy * dy;
    xv += wdx * dv;
    yv += wdy * dv;
  }
  const determinant = xx * yy - xy * xy;
  // A product that is nothing, or no number, leaves nothing to divide by.
  if (!(determinant > LEAST_SPREAD * xx * yy) || !Number.isFinite(1 / determinant)) return null;
  const a = (yy * xv - xy * yv) / determinant;
  const b = (xx * yv - xy * xv) / determinant;
  const t = mv - a * mx - b * my;
  let chiSquare = 0;
  for (let i = 0; i < count; i++) {
    const r = value[i]! - t - a * x[i]! - b * y[i]!;
    chiSquare += weight[i]! * r * r;
  }
  const [aa, ab, bb] = [yy / determinant, -xy / determinant, xx / determinant];
  const ta = -(mx * aa + my * ab);
  const tb = -(mx * ab + my * bb);
  const tt = 1 / w - mx * ta - my * tb;
  return { parameters: [t, a, b], covariance: [tt, ta, tb, ta, aa, ab, tb, ab, bb], chiSquare };
}

/**
 * Both components' planes by sums about the weighted means: the quick way for spots that are well spread.
 * Minimises sum ((value - t - a x - b y) / u)^2 for each component.
 * @param observations finite, u > 0.
 * @returns across and along; null where a component has too few spots, where they lie on or almost on a line, or where
 *   figures were cut from either side: orthogonal factors tell what there is to tell then.
 * Source: normal equations of the centred problem; the loss of digits is the square of its condition, at most 1e6 here.
 */
export function planesByMoments(
  observations: readonly Observation[],
): { readonly across: PlaneFit; readonly along: PlaneFit } | null {
  const columns = columnsOf(observations);
  const across = columns && planeOf(columns.across);
  const along = columns && planeOf(columns.along);
  return across && along ? { across, along } : null;
}
