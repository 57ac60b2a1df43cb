import type { Affine } from '../geometry/affine';
import type { Observation } from '../reading/observation';

/**
 * Parameters of the constant error, d = C(p) - p, about the block's centre:
 * [tx, ty, Axx - 1, Axy, Ayx, Ayy - 1], so dx = tx + b2 x + b3 y and dy = ty + b4 x + b5 y.
 */
export const PARAMETER_COUNT = 6;

/** two_scales and rigid (shift and rotation) are what a machine may make of its marks; readings are never fitted by them. */
export type ModelName = 'affine' | 'two_scales' | 'similarity' | 'rigid' | 'shift';
/** Largest first: the fit takes the first that the spots support. */
export const MODELS: readonly Exclude<ModelName, 'two_scales' | 'rigid'>[] = ['affine', 'similarity', 'shift'];

/** Columns: the model's own parameters; rows: the six. two_scales: tx, ty, scales, rotation (small angle); similarity: tx, ty, scale, rotation. */
const BASIS: Readonly<Record<ModelName, readonly (readonly number[])[]>> = {
  affine: [
    [1, 0, 0, 0, 0, 0],
    [0, 1, 0, 0, 0, 0],
    [0, 0, 1, 0, 0, 0],
    [0, 0, 0, 1, 0, 0],
    [0, 0, 0, 0, 1, 0],
    [0, 0, 0, 0, 0, 1],
  ],
  two_scales: [
    [1, 0, 0, 0, 0],
    [0, 1, 0, 0, 0],
    [0, 0, 1, 0, 0],
    [0, 0, 0, 0, -1],
    [0, 0, 0, 0, 1],
    [0, 0, 0, 1, 0],
  ],
  similarity: [
    [1, 0, 0, 0],
    [0, 1, 0, 0],
    [0, 0, 1, 0],
    [0, 0, 0, -1],
    [0, 0, 0, 1],
    [0, 0, 1, 0],
  ],
  rigid: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 0],
    [0, 0, -1],
    [0, 0, 1],
    [0, 0, 0],
  ],
  shift: [
    [1, 0],
    [0, 1],
    [0, 0],
    [0, 0],
    [0, 0],
    [0, 0],
  ],
};

export const basisOf = (model: ModelName): readonly (readonly number[])[] => BASIS[model];

/** Parts of the error that a model leaves out. */
export const UNTOLD: Readonly<Record<ModelName, readonly string[]>> = {
  affine: [],
  two_scales: ['out of square'],
  similarity: ['out of square', 'scale across apart from scale along'],
  rigid: ['scale across', 'scale along', 'out of square'],
  shift: ['rotation', 'scale across', 'scale along', 'out of square'],
};

/** Row of the six-parameter design for one component at (x, y). */
export function componentRow(axis: Observation['axis'], x: number, y: number): readonly number[] {
  return axis === 'across' ? [1, 0, x, y, 0, 0] : [0, 1, 0, 0, x, y];
}

export function affineOf(beta: ArrayLike<number>): Affine {
  return { tx: beta[0]!, ty: beta[1]!, xx: 1 + beta[2]!, xy: beta[3]!, yx: beta[4]!, yy: 1 + beta[5]! };
}

export function betaOf(map: Affine): readonly number[] {
  return [map.tx, map.ty, map.xx - 1, map.xy, map.yx, map.yy - 1];
}
