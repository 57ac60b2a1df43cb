import type { Point } from '../geometry/affine';
import type { Observation } from '../reading/observation';
import { AXES } from '../target/wedge';
import { PARAMETER_COUNT, type ModelName } from './design';
import { weightedFit } from './weighted-fit';

/** Mark-reading noise per mark and axis, until known from loads. Common practice, no published source. */
export const ASSUMED_MARK_SD_MM = 0.05;

/** What a machine fits to its marks. */
export const LOAD_MODELS = [
  'affine',
  'two_scales',
  'similarity',
  'rigid',
  'shift',
] as const satisfies readonly ModelName[];
export type LoadModel = (typeof LOAD_MODELS)[number];

/** Marks as observations of both components. */
export function markObservations(
  marks: readonly Point[],
  markSdMm: number,
  misread: (axis: Observation['axis'], index: number) => number,
): readonly Observation[] {
  return marks.flatMap((at, i) =>
    AXES.map((axis) => ({
      id: `mark ${i} ${axis}`,
      axis,
      at,
      valueMm: misread(axis, i),
      standardUncertaintyMm: markSdMm,
      loadKey: 'marks',
    })),
  );
}

const ONE_MARK: readonly Point[] = [{ x: 0, y: 0 }];

/**
 * Covariance (6 x 6, order of `design`) that one load adds: the machine fits its model to marks each read with noise
 * sigma per axis, Cov = B (X^T X)^-1 B^T sigma^2. For an affine read that is per axis sigma^2 (X^T X)^-1, X = rows
 * [1, x, y]. Without marks the place itself is found again with the same noise. Throws when the marks cannot carry the
 * model: callers choose it by their number.
 */
export function loadCovariance(marks: readonly Point[], markSdMm: number, model: LoadModel = 'affine'): Float64Array {
  if (markSdMm === 0) return new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  const places = marks.length === 0 ? ONE_MARK : marks;
  const solved = weightedFit(
    markObservations(places, markSdMm, () => 0),
    model,
  );
  if (!solved.ok) throw new Error(`${marks.length} marks cannot carry a ${model} read`);
  return solved.value.covariance;
}
