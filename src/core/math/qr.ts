import { fail, ok, type Result } from '../result';

/** Row-major matrix; `data[row * columns + column]`. */
export interface Matrix {
  readonly rows: number;
  readonly columns: number;
  readonly data: Float64Array;
}

export type LeastSquaresError =
  | { readonly kind: 'too-few-rows'; readonly got: number; readonly needed: number }
  | { readonly kind: 'rank-deficient'; readonly rank: number; readonly column: number };

export interface LeastSquaresSolution {
  /** Minimiser of |A x - b|, one entry a column of A. */
  readonly parameters: Float64Array;
  /** (A^T A)^-1, row-major, columns x columns. */
  readonly inverseNormal: Float64Array;
  /** Sum of squared residuals |A x - b|^2. */
  readonly residualSumOfSquares: number;
}

export function matrix(rows: number, columns: number, fill?: (row: number, column: number) => number): Matrix {
  const data = new Float64Array(rows * columns);
  if (fill) {
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) data[row * columns + column] = fill(row, column);
    }
  }
  return { rows, columns, data };
}

/** Divides each column by its Euclidean length, so that the rank test does not depend on units. Zero columns stay. */
function columnLengths(a: Matrix): Float64Array {
  const lengths = new Float64Array(a.columns);
  for (let column = 0; column < a.columns; column++) {
    let sum = 0;
    for (let row = 0; row < a.rows; row++) sum += a.data[row * a.columns + column]! ** 2;
    lengths[column] = Math.sqrt(sum);
  }
  return lengths;
}

/** Householder reflections in place: turns `work` into R (upper part) and applies the same reflections to `rhs`. */
function reduceInto(work: Float64Array, rhs: Float64Array, rows: number, columns: number): void {
  for (let k = 0; k < columns; k++) {
    let norm = 0;
    for (let i = k; i < rows; i++) norm = Math.hypot(norm, work[i * columns + k]!);
    if (norm === 0) continue;
    const head = work[k * columns + k]!;
    const alpha = head > 0 ? -norm : norm;
    const v0 = head - alpha;
    // v = (v0, rest of the column); beta = 2 / v^T v
    const beta = 1 / (norm * (norm + Math.abs(head)));
    for (let j = k + 1; j < columns; j++) {
      let dot = v0 * work[k * columns + j]!;
      for (let i = k + 1; i < rows; i++) dot += work[i * columns + k]! * work[i * columns + j]!;
      const scale = beta * dot;
      work[k * columns + j]! -= scale * v0;
      for (let i = k + 1; i < rows; i++) work[i * columns + j]! -= scale * work[i * columns + k]!;
    }
    let dot = v0 * rhs[k]!;
    for (let i = k + 1; i < rows; i++) dot += work[i * columns + k]! * rhs[i]!;
    const scale = beta * dot;
    rhs[k]! -= scale * v0;
    for (let i = k + 1; i < rows; i++) rhs[i]! -= scale * work[i * columns + k]!;
    work[k * columns + k] = alpha;
  }
}

/** Inverse of the upper triangle R (columns x columns), row-major. */
function invertUpper(r: Float64Array, columns: number): Float64Array {
  const inverse = new Float64Array(columns * columns);
  for (let j = columns - 1; j >= 0; j--) {
    inverse[j * columns + j] = 1 / r[j * columns + j]!;
    for (let i = j - 1; i >= 0; i--) {
      let sum = 0;
      for (let k = i + 1; k <= j; k++) sum += r[i * columns + k]! * inverse[k * columns + j]!;
      inverse[i * columns + j] = -sum / r[i * columns + i]!;
    }
  }
  return inverse;
}

/**
 * Linear least squares by Householder QR of the column-scaled matrix.
 * Minimises |A x - b|; weights are the caller's (scale the rows first).
 * @param a rows x columns, finite. @param b length rows, finite.
 * @returns minimiser, (A^T A)^-1 and the sum of squared residuals; `too-few-rows` below `columns` rows; `rank-deficient`
 *   when a diagonal of R is below max(rows, columns) * epsilon * its largest, with the first such column.
 * Source: Golub and Van Loan, Matrix Computations, Householder QR (algorithms 5.1.1 and 5.2.1), from memory.
 */
export function leastSquares(a: Matrix, b: ArrayLike<number>): Result<LeastSquaresSolution, LeastSquaresError> {
  const { rows, columns } = a;
  if (rows < columns) return fail({ kind: 'too-few-rows', got: rows, needed: columns });
  const lengths = columnLengths(a);
  const work = new Float64Array(a.data);
  for (let i = 0; i < work.length; i++) {
    const length = lengths[i % columns]!;
    if (length > 0) work[i]! /= length;
  }
  const rhs = Float64Array.from(b);
  reduceInto(work, rhs, rows, columns);

  let largest = 0;
  for (let k = 0; k < columns; k++) largest = Math.max(largest, Math.abs(work[k * columns + k]!));
  const tolerance = Math.max(rows, columns) * Number.EPSILON * largest;
  for (let k = 0; k < columns; k++) {
    if (Math.abs(work[k * columns + k]!) <= tolerance) return fail({ kind: 'rank-deficient', rank: k, column: k });
  }

  const inverse = invertUpper(work, columns);
  const parameters = new Float64Array(columns);
  const inverseNormal = new Float64Array(columns * columns);
  for (let i = 0; i < columns; i++) {
    for (let k = i; k < columns; k++) parameters[i]! += inverse[i * columns + k]! * rhs[k]!;
    parameters[i]! /= lengths[i]!;
    for (let j = 0; j < columns; j++) {
      let sum = 0;
      for (let k = Math.max(i, j); k < columns; k++) sum += inverse[i * columns + k]! * inverse[j * columns + k]!;
      inverseNormal[i * columns + j] = sum / (lengths[i]! * lengths[j]!);
    }
  }
  let residualSumOfSquares = 0;
  for (let i = columns; i < rows; i++) residualSumOfSquares += rhs[i]! ** 2;
  return ok({ parameters, inverseNormal, residualSumOfSquares });
}
