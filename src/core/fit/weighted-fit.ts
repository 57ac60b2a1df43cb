import { fail, ok, type Result } from '../result';
import { leastSquares, matrix } from '../math/qr';
import type { Observation } from '../reading/observation';
import { basisOf, componentRow, PARAMETER_COUNT, type ModelName } from './design';

export interface WeightedFit {
  readonly beta: Float64Array;
  /** 6 x 6, row-major; from the stated uncertainties, not yet scaled. Parts the model leaves out have no variance. */
  readonly covariance: Float64Array;
  /** Sum of squared residuals over stated uncertainty squared. */
  readonly chiSquare: number;
  readonly degreesOfFreedom: number;
  readonly residualsMm: readonly number[];
}

export type UnsupportedModel = { readonly kind: 'unsupported'; readonly model: ModelName };

/**
 * Weighted least squares of one model, weights 1/u^2, by Householder QR.
 * Minimises sum ((value - row . beta) / u)^2. @returns `unsupported` when the rows do not carry the model's parameters.
 */
export function weightedFit(
  observations: readonly Observation[],
  model: ModelName,
): Result<WeightedFit, UnsupportedModel> {
  const basis = basisOf(model);
  const columns = basis[0]!.length;
  const rows = observations.map((o) => componentRow(o.axis, o.at.x, o.at.y));
  const design = matrix(observations.length, columns, (row, column) => {
    let sum = 0;
    for (let k = 0; k < PARAMETER_COUNT; k++) sum += rows[row]![k]! * basis[k]![column]!;
    return sum / observations[row]!.standardUncertaintyMm;
  });
  const rhs = observations.map((o) => o.valueMm / o.standardUncertaintyMm);
  const solved = leastSquares(design, rhs);
  if (!solved.ok) return fail({ kind: 'unsupported', model });
  const { parameters, inverseNormal, residualSumOfSquares } = solved.value;

  const beta = new Float64Array(PARAMETER_COUNT);
  const covariance = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  for (let i = 0; i < PARAMETER_COUNT; i++) {
    for (let k = 0; k < columns; k++) beta[i]! += basis[i]![k]! * parameters[k]!;
    for (let j = 0; j < PARAMETER_COUNT; j++) {
      let sum = 0;
      for (let k = 0; k < columns; k++) {
        for (let l = 0; l < columns; l++) sum += basis[i]![k]! * inverseNormal[k * columns + l]! * basis[j]![l]!;
      }
      covariance[i * PARAMETER_COUNT + j] = sum;
    }
  }
  return ok({
    beta,
    covariance,
    chiSquare: residualSumOfSquares,
    degreesOfFreedom: observations.length - columns,
    residualsMm: observations.map((o, i) => o.valueMm - predicted(rows[i]!, beta)),
  });
}

function predicted(row: readonly number[], beta: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < PARAMETER_COUNT; k++) sum += row[k]! * beta[k]!;
  return sum;
}
