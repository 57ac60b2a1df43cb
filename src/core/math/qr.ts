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

/** Euclidean length of each column: dividing by it makes the rank test independent of units. Zero columns stay. */
function columnLengths({ rows, columns, data }: Matrix): Float64Array {
  const squares = new Float64Array(columns);
  for (let row = 0, i = 0; row < rows; row++)
    for (let column = 0; column < columns; column++, i++) squares[column]! += data[i]! * data[i]!;
  return squares.map(Math.sqrt);
}

/** Rows taken in at once: with the triangle they stay in the fastest memory. */
const BLOCK_ROWS = 256;

/** Dot product of the first `count` entries; four sums side by side, because one alone waits for itself. */
function dotOf(a: Float64Array, b: Float64Array, count: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let i = 0;
  for (; i + 3 < count; i += 4) {
    s0 += a[i]! * b[i]!;
    s1 += a[i + 1]! * b[i + 1]!;
    s2 += a[i + 2]! * b[i + 2]!;
    s3 += a[i + 3]! * b[i + 3]!;
  }
  for (; i < count; i++) s0 += a[i]! * b[i]!;
  return s0 + s1 + (s2 + s3);
}

/**
 * One Householder reflection: column k of a block under the triangle's row k, applied to all columns after it. The block
 * is kept as one array a column, `height` entries of each in use.
 */
function reflectInto(triangle: Float64Array, block: readonly Float64Array[], k: number, height: number): void {
  const width = block.length;
  const own = block[k]!;
  const squares = dotOf(own, own, height);
  if (squares === 0) return;
  const head = triangle[k * width + k]!;
  const norm = Math.sqrt(head * head + squares);
  const alpha = head > 0 ? -norm : norm;
  // v = (v0, the block's column); beta = 2 / v^T v
  const v0 = head - alpha;
  const beta = 1 / (norm * (norm + Math.abs(head)));
  for (let j = k + 1; j < width; j++) {
    const other = block[j]!;
    const scale = beta * (v0 * triangle[k * width + j]! + dotOf(own, other, height));
    triangle[k * width + j]! -= scale * v0;
    for (let i = 0; i < height; i++) other[i]! -= scale * own[i]!;
  }
  triangle[k * width + k] = alpha;
}

/**
 * Triangle of the QR factorisation of [A / lengths, b], (columns + 1) wide, row-major: blocks of rows are taken in one
 * after another under the triangle so far. Its last diagonal entry is the length of the residual.
 */
function augmentedTriangle(a: Matrix, b: ArrayLike<number>, lengths: Float64Array): Float64Array {
  const { rows, columns, data } = a;
  const width = columns + 1;
  const triangle = new Float64Array(width * width);
  const most = Math.min(rows, BLOCK_ROWS);
  const block = Array.from({ length: width }, () => new Float64Array(most));
  for (let first = 0; first < rows; first += BLOCK_ROWS) {
    const height = Math.min(BLOCK_ROWS, rows - first);
    for (let column = 0; column < columns; column++) {
      const own = block[column]!;
      const scale = lengths[column]! > 0 ? 1 / lengths[column]! : 0;
      for (let i = 0, at = first * columns + column; i < height; i++, at += columns) own[i] = data[at]! * scale;
    }
    const values = block[columns]!;
    for (let i = 0; i < height; i++) values[i] = b[first + i]!;
    for (let k = 0; k < width; k++) reflectInto(triangle, block, k, height);
  }
  return triangle;
}

/** Inverse of the upper triangle R (columns x columns inside rows of `width`), row-major, columns x columns. */
function invertUpper(r: Float64Array, columns: number, width: number): Float64Array {
  const inverse = new Float64Array(columns * columns);
  for (let j = columns - 1; j >= 0; j--) {
    inverse[j * columns + j] = 1 / r[j * width + j]!;
    for (let i = j - 1; i >= 0; i--) {
      let sum = 0;
      for (let k = i + 1; k <= j; k++) sum += r[i * width + k]! * inverse[k * columns + j]!;
      inverse[i * columns + j] = -sum / r[i * width + i]!;
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
 * Source: Golub and Van Loan, Matrix Computations, Householder QR (algorithms 5.1.1 and 5.2.1), by blocks of rows, from memory.
 */
export function leastSquares(a: Matrix, b: ArrayLike<number>): Result<LeastSquaresSolution, LeastSquaresError> {
  const { rows, columns } = a;
  if (rows < columns) return fail({ kind: 'too-few-rows', got: rows, needed: columns });
  const lengths = columnLengths(a);
  const width = columns + 1;
  const triangle = augmentedTriangle(a, b, lengths);
  let largest = 0;
  for (let k = 0; k < columns; k++) largest = Math.max(largest, Math.abs(triangle[k * width + k]!));
  const tolerance = Math.max(rows, columns) * Number.EPSILON * largest;
  for (let k = 0; k < columns; k++) {
    if (Math.abs(triangle[k * width + k]!) <= tolerance) return fail({ kind: 'rank-deficient', rank: k, column: k });
  }

  const inverse = invertUpper(triangle, columns, width);
  const parameters = new Float64Array(columns);
  const inverseNormal = new Float64Array(columns * columns);
  for (let i = 0; i < columns; i++) {
    for (let k = i; k < columns; k++) parameters[i]! += inverse[i * columns + k]! * triangle[k * width + columns]!;
    parameters[i]! /= lengths[i]!;
    for (let j = 0; j < columns; j++) {
      let sum = 0;
      for (let k = Math.max(i, j); k < columns; k++) sum += inverse[i * columns + k]! * inverse[j * columns + k]!;
      inverseNormal[i * columns + j] = sum / (lengths[i]! * lengths[j]!);
    }
  }
  return ok({ parameters, inverseNormal, residualSumOfSquares: triangle[width * width - 1]! ** 2 });
}
