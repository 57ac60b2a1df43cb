import { displacement, type Affine, type Point } from '../geometry/affine';
import { affineOf, basisOf, componentRow, PARAMETER_COUNT, UNTOLD, type ModelName } from '../fit/design';
import { covarianceAt, largestSd } from '../fit/point-covariance';
import { leastSquares, matrix } from '../math/qr';
import { fail, ok, type Result } from '../result';
import type { Axis } from '../target/wedge';

/** A steel rule read by eye, and a caliper, between printed lines. Common practice, no published source. */
export const RULE_SD_MM = 0.3;
export const CALIPER_SD_MM = 0.05;

/** One length measured on a sheet. Places are nominal, about the middle of what was to be printed there. */
export type Measured =
  /** Where a point lies along one axis, from a nominal middle (a margin, told from it). */
  | {
      readonly kind: 'place';
      readonly name: string;
      readonly axis: Axis;
      readonly at: Point;
      readonly valueMm: number;
      readonly standardUncertaintyMm: number;
    }
  /** How far two points lie apart. */
  | {
      readonly kind: 'distance';
      readonly name: string;
      readonly from: Point;
      readonly to: Point;
      readonly valueMm: number;
      readonly standardUncertaintyMm: number;
    };

/**
 * What measured lengths can carry. Placed models need margins both ways: those of machines, and with squareness told apart
 * from turn (margins along two edges) one scale or none. A shape needs only lengths.
 */
type RuleModel = ModelName | Square | Shape;
type Square = 'scale_square' | 'rigid_square';
type Shape = 'shape' | 'shape_scales' | 'shape_scale';

type Basis = readonly (readonly number[])[];

/** Rows: the six parameters, order of `design`; columns: the model's own. */
const OWN_BASIS: Readonly<Record<Square | Shape, Basis>> = {
  scale_square: [
    [1, 0, 0, 0, 0],
    [0, 1, 0, 0, 0],
    [0, 0, 1, 0, 0],
    [0, 0, 0, 1, 0],
    [0, 0, 0, 0, 1],
    [0, 0, 1, 0, 0],
  ],
  rigid_square: [
    [1, 0, 0, 0],
    [0, 1, 0, 0],
    [0, 0, 0, 0],
    [0, 0, 1, 0],
    [0, 0, 0, 1],
    [0, 0, 0, 0],
  ],
  shape: [
    [0, 0, 0],
    [0, 0, 0],
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 0],
    [0, 0, 1],
  ],
  shape_scales: [
    [0, 0],
    [0, 0],
    [1, 0],
    [0, 0],
    [0, 0],
    [0, 1],
  ],
  shape_scale: [[0], [0], [1], [0], [0], [1]],
};
const ONE_SCALE = 'scale across apart from scale along';
const NOT_PLACED = ['shift', 'rotation'] as const;
const OWN_UNTOLD: Readonly<Record<Square | Shape, readonly string[]>> = {
  scale_square: [ONE_SCALE],
  rigid_square: ['scale across', 'scale along'],
  shape: NOT_PLACED,
  shape_scales: [...NOT_PLACED, 'out of square'],
  shape_scale: [...NOT_PLACED, 'out of square', ONE_SCALE],
};

/** Largest first. Margins place a print; lengths alone only shape it. */
const PLACED_MODELS: readonly RuleModel[] = [
  'affine',
  'two_scales',
  'scale_square',
  'similarity',
  'rigid_square',
  'rigid',
  'shift',
];
const SHAPE_MODELS: readonly RuleModel[] = ['shape', 'shape_scales', 'shape_scale'];

const isOwn = (model: RuleModel): model is Square | Shape => Object.hasOwn(OWN_BASIS, model);
const basisFor = (model: RuleModel): Basis => (isOwn(model) ? OWN_BASIS[model] : basisOf(model));

export interface RuleFit {
  readonly model: RuleModel;
  /** From the nominal to what was measured. */
  readonly map: Affine;
  /** 6 x 6, order of `design`; parts the model leaves out have none. */
  readonly covariance: Float64Array;
  readonly degreesOfFreedom: number;
  readonly chiSquare: number;
  readonly residualsMm: readonly number[];
  readonly untold: readonly string[];
  /** Lengths that the others contradict, and by how much. */
  readonly odd: readonly { readonly name: string; readonly residualMm: number }[];
}

export type RuleFitError =
  | { readonly kind: 'nothing-measured' }
  | { readonly kind: 'not-finite'; readonly name: string }
  | { readonly kind: 'coincident'; readonly name: string }
  /** Nothing of shift, turn or size follows from these lengths alone. */
  | { readonly kind: 'too-few' };

/** What the map says a length should be, less what was measured; and its slopes in the six parameters. */
function linearised(m: Measured, beta: readonly number[]): { readonly value: number; readonly row: readonly number[] } {
  const map = affineOf(beta);
  if (m.kind === 'place') {
    const d = displacement(map, m.at);
    const value = m.axis === 'across' ? m.at.x + d.x : m.at.y + d.y;
    return { value, row: componentRow(m.axis, m.at.x, m.at.y) };
  }
  const dx = m.to.x - m.from.x;
  const dy = m.to.y - m.from.y;
  const x = map.xx * dx + map.xy * dy;
  const y = map.yx * dx + map.yy * dy;
  const value = Math.hypot(x, y);
  return { value, row: [0, 0, (x * dx) / value, (x * dy) / value, (y * dx) / value, (y * dy) / value] };
}

function firstProblem(measured: readonly Measured[]): RuleFitError | null {
  if (measured.length === 0) return { kind: 'nothing-measured' };
  for (const m of measured) {
    const places = m.kind === 'place' ? [m.at] : [m.from, m.to];
    const numbers = [m.valueMm, m.standardUncertaintyMm, ...places.flatMap((p) => [p.x, p.y])];
    if (!numbers.every((v) => Number.isFinite(v)) || m.standardUncertaintyMm <= 0)
      return { kind: 'not-finite', name: m.name };
    if (m.kind === 'distance' && Math.hypot(m.to.x - m.from.x, m.to.y - m.from.y) === 0)
      return { kind: 'coincident', name: m.name };
  }
  return null;
}

interface Solved {
  readonly beta: readonly number[];
  readonly covariance: Float64Array;
  readonly chiSquare: number;
  readonly degreesOfFreedom: number;
}

const ROUNDS = 6;

/** Gauss-Newton of one model; the problem is so nearly linear that six rounds end at rounding. Null: not carried. */
function solve(measured: readonly Measured[], model: RuleModel): Solved | null {
  const basis = basisFor(model);
  const columns = basis[0]!.length;
  let beta: readonly number[] = new Array<number>(PARAMETER_COUNT).fill(0);
  for (let round = 1; ; round++) {
    const rows = measured.map((m) => ({ ...linearised(m, beta), m }));
    const design = matrix(measured.length, columns, (i, j) => {
      const { row, m } = rows[i]!;
      return row.reduce((sum, slope, k) => sum + slope * basis[k]![j]!, 0) / m.standardUncertaintyMm;
    });
    const rhs = rows.map(({ value, m }) => (m.valueMm - value) / m.standardUncertaintyMm);
    const step = leastSquares(design, rhs);
    if (!step.ok) return null;
    const { parameters, inverseNormal } = step.value;
    if (round > ROUNDS) {
      const chiSquare = rhs.reduce((sum, r) => sum + r * r, 0);
      return { beta, covariance: spread(basis, inverseNormal), chiSquare, degreesOfFreedom: measured.length - columns };
    }
    beta = beta.map((b, k) => b + basis[k]!.reduce((sum, weight, j) => sum + weight * parameters[j]!, 0));
  }
}

/** B C B^T: the model's covariance in the six parameters. */
function spread(basis: readonly (readonly number[])[], inner: Float64Array): Float64Array {
  const n = basis[0]!.length;
  const full = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  for (let i = 0; i < PARAMETER_COUNT; i++)
    for (let j = 0; j < PARAMETER_COUNT; j++)
      for (let k = 0; k < n; k++)
        for (let l = 0; l < n; l++) full[i * PARAMETER_COUNT + j]! += basis[i]![k]! * inner[k * n + l]! * basis[j]![l]!;
  return full;
}

/** A corner known this many times worse than one length is not known: the lengths all lie one way. */
const LARGEST_EXTRAPOLATION = 8;
/** A length off by more than so many of its own uncertainties does not belong. */
const ODD_AT = 4;

/** The largest of some models that the lengths carry to the corners. */
function largest(
  measured: readonly Measured[],
  corners: readonly Point[],
  models: readonly RuleModel[],
): RuleFit | null {
  const typical = Math.max(...measured.map((m) => m.standardUncertaintyMm));
  for (const model of models) {
    const solved = solve(measured, model);
    if (!solved) continue;
    const worst = Math.max(...corners.map((p) => largestSd(covarianceAt(solved.covariance, p))));
    if (worst > LARGEST_EXTRAPOLATION * typical) continue;
    const residualsMm = measured.map((m) => m.valueMm - linearised(m, solved.beta).value);
    return {
      model,
      map: affineOf(solved.beta),
      covariance: solved.covariance,
      degreesOfFreedom: solved.degreesOfFreedom,
      chiSquare: solved.chiSquare,
      residualsMm,
      untold: isOwn(model) ? OWN_UNTOLD[model] : UNTOLD[model],
      odd: measured
        .map((m, i) => ({ name: m.name, residualMm: residualsMm[i]!, limitMm: ODD_AT * m.standardUncertaintyMm }))
        .filter((m) => Math.abs(m.residualMm) > m.limitMm)
        .map(({ name, residualMm }) => ({ name, residualMm })),
    };
  }
  return null;
}

/**
 * Where and how large something came out, from lengths measured on it: weighted least squares of the largest model that
 * the lengths carry to the corners. Margins both ways tell shift and turn too; else the distances among the lengths tell
 * scales and squareness alone. Minimises sum ((what the map says - measured) / u)^2.
 * @param measured finite lengths, mm. @param corners of what was measured, about the same middle.
 * @returns the fit with what it cannot tell and which lengths the others contradict, or the named reason.
 */
export function fitMeasured(measured: readonly Measured[], corners: readonly Point[]): Result<RuleFit, RuleFitError> {
  const problem = firstProblem(measured);
  if (problem) return fail(problem);
  const distances = measured.filter((m) => m.kind === 'distance');
  const placed = distances.length < measured.length ? largest(measured, corners, PLACED_MODELS) : null;
  const found = placed ?? (distances.length > 0 ? largest(distances, corners, SHAPE_MODELS) : null);
  return found ? ok(found) : fail({ kind: 'too-few' });
}
