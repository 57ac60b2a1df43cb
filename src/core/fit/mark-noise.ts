import { choleskyFactor } from '../math/symmetric';
import { leastSquares, matrix } from '../math/qr';
import { chiSquareQuantile } from '../math/quantile';
import type { Point } from '../geometry/affine';
import { basisOf, PARAMETER_COUNT } from './design';
import { loadCovariance, type LoadModel } from './load-noise';

/** One load's own map: six parameters about the middle, and their covariance from reading alone. */
export interface LoadMap {
  readonly beta: ArrayLike<number>;
  /** 6 x 6 row-major. */
  readonly readingCovariance: ArrayLike<number>;
}

export type MarkNoise =
  /** One load: what changes with every load cannot be told from what does not. */
  | { readonly kind: 'one-load' }
  /** Two loads: only whether they differ by more than reading explains, and how much could hide (95 %, one-sided). */
  | { readonly kind: 'steady'; readonly withinMm: number; readonly degrees: number }
  | { readonly kind: 'unsteady'; readonly atLeastMm: number; readonly degrees: number }
  /** Three loads and more: the noise per mark and axis with its 95 % interval. */
  | {
      readonly kind: 'estimated';
      readonly sdMm: number;
      readonly lowerMm: number;
      readonly upperMm: number;
      readonly degrees: number;
    };

/** Marks worse than this are not marks; the search ends here. */
const LARGEST_SD_MM = 5;
const BISECTIONS = 32;
const LOADS_FOR_AN_INTERVAL = 3;

type Rows = readonly (readonly number[])[];

const unitColumns = (n: number): Rows =>
  Array.from({ length: n }, (_, k) => Array.from({ length: n }, (__, i) => (i === k ? 1 : 0)));

/** L^-1 applied to each column, for a lower triangular L (n x n), by forward substitution. */
function whitened(factor: Float64Array, n: number, columns: Rows): Rows {
  return columns.map((column) => {
    const out = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i++) {
      let sum = column[i]!;
      for (let j = 0; j < i; j++) sum -= factor[i * n + j]! * out[j]!;
      out[i] = sum / factor[i * n + i]!;
    }
    return out;
  });
}

/** (M^T M)^-1 M^T of a model's basis M (6 x n), whose columns are orthogonal: what of a map the machine's model can cause. */
function projectionOn(model: LoadModel): Rows {
  const basis = basisOf(model);
  const columns = basis[0]!.map((_, k) => basis.map((row) => row[k]!));
  return columns.map((column) => {
    const square = column.reduce((sum, value) => sum + value * value, 0);
    return column.map((value) => value / square);
  });
}

/** P C P^T, row-major n x n, for P (n x 6) and C (6 x 6 row-major). */
function projected(p: Rows, covariance: ArrayLike<number>): Float64Array {
  const n = p.length;
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      for (let k = 0; k < PARAMETER_COUNT; k++)
        for (let l = 0; l < PARAMETER_COUNT; l++)
          out[i * n + j]! += p[i]![k]! * covariance[k * PARAMETER_COUNT + l]! * p[j]![l]!;
  return out;
}

/** A load in the few numbers that the machine's model of its marks can change. */
interface Told {
  readonly value: readonly number[];
  readonly reading: Float64Array;
}

/**
 * Generalised Q: sum over loads of (y - mu)^T (R + s^2 C)^-1 (y - mu), mu the weighted mean. At the true s it has a
 * chi-square distribution with n (loads - 1) degrees, and it falls as s grows.
 */
function spread(group: readonly Told[], unitLoad: Float64Array, sdMm: number): number {
  const n = group[0]!.value.length;
  const rows = group.map(({ value, reading }) => {
    const total = reading.map((r, i) => r + sdMm * sdMm * unitLoad[i]!);
    const [y = [], ...units] = whitened(choleskyFactor(total, n), n, [value, ...unitColumns(n)]);
    return { y, units };
  });
  const design = matrix(n * group.length, n, (row, column) => rows[Math.floor(row / n)]!.units[column]![row % n]!);
  const solved = leastSquares(
    design,
    rows.flatMap((r) => r.y),
  );
  if (!solved.ok) throw new Error('a load without a full map was given');
  return solved.value.residualSumOfSquares;
}

/**
 * Mark-reading noise per mark and axis from the differences of loads, pooled over groups between which the machine was
 * changed. Point: the s at which Q equals its degrees (Paule and Mandel 1982, J. Res. NBS 87, 377); interval: the s at which
 * Q equals the chi-square quantiles (Q-profile, Viechtbauer 2007, Statist. Med. 26, 37), exact when the reading covariances are.
 * @param groups loads of one state of the machine each, all maps told in one sheet frame; full affine maps.
 * @param marks the machine's marks, and the model that it fits to them: only what that model can change is compared.
 */
export function markNoise(
  groups: readonly (readonly LoadMap[])[],
  marks: readonly Point[],
  model: LoadModel,
): MarkNoise {
  const p = projectionOn(model);
  const unitLoad = projected(p, loadCovariance(marks, 1, model));
  const told = groups
    .filter((g) => g.length > 1)
    .map((g) =>
      g.map(({ beta, readingCovariance }): Told => ({
        value: p.map((row) => row.reduce((sum, value, k) => sum + value * beta[k]!, 0)),
        reading: projected(p, readingCovariance),
      })),
    );
  const loads = told.reduce((sum, g) => sum + g.length - 1, 0);
  const degrees = p.length * loads;
  if (degrees === 0) return { kind: 'one-load' };
  const q = (sdMm: number): number => told.reduce((sum, g) => sum + spread(g, unitLoad, sdMm), 0);
  const sdAt = (wanted: number): number => {
    if (q(0) <= wanted) return 0;
    let [low, high] = [0, LARGEST_SD_MM];
    for (let i = 0; i < BISECTIONS; i++) {
      const middle = (low + high) / 2;
      if (q(middle) > wanted) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  const at = (p: number): number => chiSquareQuantile(p, degrees);
  if (loads < LOADS_FOR_AN_INTERVAL - 1) {
    const isUnsteady = q(0) > at(0.95);
    return isUnsteady
      ? { kind: 'unsteady', atLeastMm: sdAt(at(0.95)), degrees }
      : { kind: 'steady', withinMm: sdAt(at(0.05)), degrees };
  }
  return { kind: 'estimated', sdMm: sdAt(degrees), lowerMm: sdAt(at(0.975)), upperMm: sdAt(at(0.025)), degrees };
}
