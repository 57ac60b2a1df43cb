import { fail, ok, type Result } from '../result';
import { leastSquares, matrix } from '../math/qr';
import type { Observation } from '../reading/observation';
import { AXES } from '../target/wedge';
import { basisOf, PARAMETER_COUNT, type ModelName } from './design';
import { planesByMoments, type PlaneFit } from './plane-moments';

export interface WeightedFit {
  readonly beta: Float64Array;
  /** 6 x 6, row-major; from the stated uncertainties, not yet scaled. Parts the model leaves out have no variance. */
  readonly covariance: Float64Array;
  /** Sum of squared residuals over stated uncertainty squared. */
  readonly chiSquare: number;
  readonly degreesOfFreedom: number;
  /** Half of what is lost when a cutter changes direction, per axis: only where figures were cut from either side. */
  readonly backlash: Backlash;
}

export interface BacklashPart {
  readonly halfMm: number;
  readonly standardErrorMm: number;
}
export type Backlash = Readonly<Partial<Record<Observation['axis'], BacklashPart>>>;

export type UnsupportedModel = { readonly kind: 'unsupported'; readonly model: ModelName };

type Solved = Omit<WeightedFit, 'degreesOfFreedom'>;

/** Where the three parameters of one component stand among the six. */
const PLACES = { across: [0, 2, 3], along: [1, 4, 5] } as const;

/**
 * Both components as weighted rows [1, x, y] and values, in one pass: across is filled from the front of the arrays, along
 * from their back.
 */
function rowsByAxis(observations: readonly Observation[]) {
  const count = observations.length;
  const design = new Float64Array(3 * count);
  const rhs = new Float64Array(count);
  let front = 0;
  let back = count;
  for (const { axis, at, valueMm, standardUncertaintyMm } of observations) {
    const i = axis === 'across' ? front++ : --back;
    const weight = 1 / standardUncertaintyMm;
    design[3 * i] = weight;
    design[3 * i + 1] = at.x * weight;
    design[3 * i + 2] = at.y * weight;
    rhs[i] = valueMm * weight;
  }
  return {
    across: { design: design.subarray(0, 3 * front), rhs: rhs.subarray(0, front) },
    along: { design: design.subarray(3 * front), rhs: rhs.subarray(front) },
  };
}

/** Two planes, one a component, as the six parameters. */
function joined(planes: Readonly<Record<Observation['axis'], PlaneFit>>): Solved {
  const beta = new Float64Array(PARAMETER_COUNT);
  const covariance = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  let chiSquare = 0;
  for (const axis of AXES) {
    const plane = planes[axis];
    chiSquare += plane.chiSquare;
    PLACES[axis].forEach((i, k) => {
      beta[i] = plane.parameters[k]!;
      PLACES[axis].forEach((j, l) => {
        covariance[i * PARAMETER_COUNT + j] = plane.covariance[3 * k + l]!;
      });
    });
  }
  return { beta, covariance, chiSquare, backlash: {} };
}

/** One component's plane by orthogonal factors: for spots that lie almost on a line. */
function planeByFactors({ design, rhs }: { readonly design: Float64Array; readonly rhs: Float64Array }) {
  const solved = leastSquares({ rows: rhs.length, columns: 3, data: design }, rhs);
  if (!solved.ok) return null;
  const { parameters, inverseNormal, residualSumOfSquares } = solved.value;
  const [t = NaN, a = NaN, b = NaN] = parameters;
  return { parameters: [t, a, b] as const, covariance: Array.from(inverseNormal), chiSquare: residualSumOfSquares };
}

/** The affine model falls into two problems of three parameters, one a component: same minimum, a quarter of the work. */
function solveAffine(observations: readonly Observation[]): Solved | null {
  const rows = rowsByAxis(observations);
  const across = planeByFactors(rows.across);
  const along = planeByFactors(rows.along);
  return across && along ? joined({ across, along }) : null;
}

/** Axes whose figures were cut from both sides, in the order of their columns after the model's own. */
function twoSidedAxes(observations: readonly Observation[]): readonly Observation['axis'][] {
  const has = (axis: Observation['axis'], side: 1 | -1): boolean =>
    observations.some((o) => o.axis === axis && o.approach === side);
  return AXES.filter((axis) => has(axis, 1) && has(axis, -1));
}

/**
 * A model whose parameters bind the components: one problem, its columns made by the model's basis, and one more for each
 * axis along which the cutter came from either side: value = map + approach x half backlash.
 */
function solveBound(
  observations: readonly Observation[],
  model: ModelName,
  twoSided: readonly Observation['axis'][],
): Solved | null {
  const basis = basisOf(model);
  const columns = basis[0]!.length;
  const all = columns + twoSided.length;
  const design = matrix(observations.length, all, (row, column) => {
    const { axis, at, standardUncertaintyMm, approach = 0 } = observations[row]!;
    if (column >= columns) return twoSided[column - columns] === axis ? approach / standardUncertaintyMm : 0;
    const [shift, x, y] = PLACES[axis];
    return (basis[shift]![column]! + basis[x]![column]! * at.x + basis[y]![column]! * at.y) / standardUncertaintyMm;
  });
  const rhs = observations.map((o) => o.valueMm / o.standardUncertaintyMm);
  const solved = leastSquares(design, rhs);
  if (!solved.ok) return null;
  const { parameters, inverseNormal, residualSumOfSquares } = solved.value;
  const beta = new Float64Array(PARAMETER_COUNT);
  const covariance = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  for (let i = 0; i < PARAMETER_COUNT; i++) {
    for (let k = 0; k < columns; k++) beta[i]! += basis[i]![k]! * parameters[k]!;
    for (let j = 0; j < PARAMETER_COUNT; j++) {
      let sum = 0;
      for (let k = 0; k < columns; k++) {
        for (let l = 0; l < columns; l++) sum += basis[i]![k]! * inverseNormal[k * all + l]! * basis[j]![l]!;
      }
      covariance[i * PARAMETER_COUNT + j] = sum;
    }
  }
  const backlash: Backlash = Object.fromEntries(
    twoSided.map((axis, i) => {
      const k = columns + i;
      return [axis, { halfMm: parameters[k]!, standardErrorMm: Math.sqrt(inverseNormal[k * all + k]!) }];
    }),
  );
  return { beta, covariance, chiSquare: residualSumOfSquares, backlash };
}

/**
 * Weighted least squares of one model, weights 1/u^2: by sums about the means where spots are well spread, else by
 * Householder QR.
 * Minimises sum ((value - row . beta) / u)^2. @returns `unsupported` when the rows do not carry the model's parameters.
 */
export function weightedFit(
  observations: readonly Observation[],
  model: ModelName,
): Result<WeightedFit, UnsupportedModel> {
  // Well spread spots, cut from one side: the common case, and the quick one.
  const quick = model === 'affine' ? planesByMoments(observations) : null;
  if (quick) return ok({ ...joined(quick), degreesOfFreedom: observations.length - PARAMETER_COUNT });
  const twoSided = twoSidedAxes(observations);
  const isPlain = model === 'affine' && twoSided.length === 0;
  const solved = isPlain ? solveAffine(observations) : solveBound(observations, model, twoSided);
  if (!solved) return fail({ kind: 'unsupported', model });
  return ok({
    ...solved,
    degreesOfFreedom: observations.length - basisOf(model)[0]!.length - twoSided.length,
  });
}
