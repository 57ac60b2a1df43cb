import { MAD_TO_SD, medianOf } from '../math/median';
import { leastSquares, matrix } from '../math/qr';

export interface RobustFit {
  readonly parameters: readonly number[];
  /** Of each row, 0 (left out) to 1. */
  readonly weights: readonly number[];
  /** Of what is left of a row that counts. */
  readonly residualSd: number;
  /** (A^T W A)^-1, its diagonal. */
  readonly inverseNormalDiagonal: readonly number[];
}

/** Bisquare weights reach so many SDs. Beaton and Tukey 1974, from memory. */
const BISQUARE = 4.685;
const ROUNDS = 12;

/**
 * Least squares that rows far off say less and less in (bisquare, its spread by the median). Null where what is left does
 * not tell the parameters.
 * @param leastSd rows nearer than this to the rest are never called far off.
 */
export function robustFit(
  rows: readonly (readonly number[])[],
  values: readonly number[],
  leastSd: number,
): RobustFit | null {
  const columns = rows[0]?.length ?? 0;
  let weights: readonly number[] = values.map(() => 1);
  for (let round = 1; ; round++) {
    const roots = weights.map(Math.sqrt);
    const design = matrix(rows.length, columns, (row, column) => roots[row]! * rows[row]![column]!);
    const solved = leastSquares(
      design,
      values.map((v, i) => roots[i]! * v),
    );
    if (!solved.ok) return null;
    const parameters = [...solved.value.parameters];
    const residuals = values.map((v, i) => v - rows[i]!.reduce((sum, a, k) => sum + a * parameters[k]!, 0));
    const sd = Math.max(leastSd, MAD_TO_SD * medianOf(residuals.map(Math.abs)));
    if (round === ROUNDS)
      return {
        ...{ parameters, weights },
        residualSd: MAD_TO_SD * medianOf(residuals.filter((_, i) => weights[i]! > 0).map(Math.abs)),
        inverseNormalDiagonal: parameters.map((_, k) => solved.value.inverseNormal[k * columns + k]!),
      };
    weights = residuals.map((r) => {
      const u = r / (BISQUARE * sd);
      return Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
    });
  }
}
