import type { Point } from '../geometry/affine';
import { leastSquares, matrix } from '../math/qr';
import { PARAMETER_COUNT } from './design';

/** Mark-reading noise per mark and axis, until known from loads. Common practice, no published source. */
export const ASSUMED_MARK_SD_MM = 0.05;

/**
 * Covariance (6 x 6, order of `design`) that one load's mark reading adds, for a machine that reads its marks as an
 * affine map: per axis sigma^2 (X^T X)^-1, X = rows [1, x, y] of the marks. Throws with fewer than three marks or marks
 * on one line: callers state their marks.
 */
export function loadCovariance(marks: readonly Point[], markSdMm: number): Float64Array {
  const x = matrix(marks.length, 3, (row, column) => [1, marks[row]!.x, marks[row]!.y][column]!);
  const solved = leastSquares(x, new Float64Array(marks.length));
  if (!solved.ok) throw new Error(`marks cannot carry an affine read: ${solved.error.kind}`);
  const perAxis = solved.value.inverseNormal;
  const order = [
    [0, 2, 3],
    [1, 4, 5],
  ];
  const covariance = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  for (const indices of order) {
    for (let i = 0; i < 3; i++) {
      for (let j = 0; j < 3; j++) {
        covariance[indices[i]! * PARAMETER_COUNT + indices[j]!] = markSdMm ** 2 * perAxis[i * 3 + j]!;
      }
    }
  }
  return covariance;
}
