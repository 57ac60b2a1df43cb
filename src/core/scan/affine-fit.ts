import type { Affine, Point } from '../geometry/affine';
import { leastSquares, matrix } from '../math/qr';
import type { Pixel } from './gray';

/** A place of the sheet and where it was seen. */
export interface SeenPlace {
  readonly at: Point;
  readonly seen: Pixel;
}

export interface AffineFit {
  readonly map: Affine<'sheet', 'picture'>;
  /** Sum of the squares of what is left, both ways, pixels. */
  readonly squares: number;
  /** Inverse of the normal matrix of 1, x and y, row by row: the same for both ways. */
  readonly inverseNormal: Float64Array;
}

/** The affine map through places seen, by least squares; null when they lie on a line. */
export function affineThrough(places: readonly SeenPlace[]): AffineFit | null {
  const design = matrix(places.length, 3, (row, column) => {
    const { x, y } = places[row]!.at;
    return column === 0 ? 1 : column === 1 ? x : y;
  });
  const [across, down] = (['x', 'y'] as const).map((axis) =>
    leastSquares(
      design,
      places.map(({ seen }) => seen[axis]),
    ),
  );
  if (!across?.ok || !down?.ok) return null;
  const [tx = NaN, xx = NaN, xy = NaN] = across.value.parameters;
  const [ty = NaN, yx = NaN, yy = NaN] = down.value.parameters;
  const squares = across.value.residualSumOfSquares + down.value.residualSumOfSquares;
  return { map: { xx, xy, yx, yy, tx, ty }, squares, inverseNormal: across.value.inverseNormal };
}
