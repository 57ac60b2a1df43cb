import type { Affine, Point } from '../geometry/affine';
import { leastSquares, matrix } from '../math/qr';
import type { SeenPlace } from './affine-fit';
import type { Pixel } from './gray';
import { inView, type LocalView } from './local-view';

/**
 * How a flat sheet comes to lie in a picture: a homography, then a radial term about the picture's middle. A scan is the
 * case without either: its last row is (0, 0, 1) and its radial term 0.
 */
export interface Lens {
  /** Row-major 3 x 3, last entry 1: sheet mm to pixels before the lens bends them. */
  readonly homography: readonly number[];
  /** p' = middle + (p - middle) (1 + radial r^2), r in half diagonals of the picture. */
  readonly radial: number;
  readonly middle: Pixel;
  readonly halfDiagonalPx: number;
}

export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

const lensOf = (homography: readonly number[], radial: number, { width, height }: PictureSize): Lens => ({
  homography,
  radial,
  middle: { x: width / 2, y: height / 2 },
  halfDiagonalPx: Math.hypot(width, height) / 2,
});

export const scannerLens = ({ xx, xy, yx, yy, tx, ty }: Affine<'sheet', 'picture'>, size: PictureSize): Lens =>
  lensOf([xx, xy, tx, yx, yy, ty, 0, 0, 1], 0, size);

/** Where a place of the sheet is seen. */
export function placeOf({ homography: h, radial, middle, halfDiagonalPx }: Lens, { x, y }: Point): Pixel {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  const dx = (h[0]! * x + h[1]! * y + h[2]!) / w - middle.x;
  const dy = (h[3]! * x + h[4]! * y + h[5]!) / w - middle.y;
  const bend = 1 + (radial * (dx * dx + dy * dy)) / (halfDiagonalPx * halfDiagonalPx);
  return { x: middle.x + dx * bend, y: middle.y + dy * bend };
}

/** How the sheet looks near one of its places: the derivative of the view, by differences over a mm to either side. */
export function viewAt(lens: Lens, at: Point): LocalView {
  const half = (a: Pixel, b: Pixel): Pixel => ({ x: (a.x - b.x) / 2, y: (a.y - b.y) / 2 });
  return {
    centre: placeOf(lens, at),
    right: half(placeOf(lens, { x: at.x + 1, y: at.y }), placeOf(lens, { x: at.x - 1, y: at.y })),
    up: half(placeOf(lens, { x: at.x, y: at.y + 1 }), placeOf(lens, { x: at.x, y: at.y - 1 })),
  };
}

const ROUND = 24;

/**
 * Where a circle's middle seems to lie in a local view: the middle of a circle is not seen at the middle of its image, by
 * an amount that goes with its radius squared, so that print and cut differ.
 */
export function seemingMiddle(lens: Lens, at: Point, radiusMm: number): Point {
  const view = viewAt(lens, at);
  const polar = Array.from({ length: ROUND }, (_, i) => {
    const angle = (2 * Math.PI * i) / ROUND;
    const on = { x: at.x + radiusMm * Math.cos(angle), y: at.y + radiusMm * Math.sin(angle) };
    const q = inView(view, placeOf(lens, on));
    return { angle: Math.atan2(q.y, q.x), radius: Math.hypot(q.x, q.y) };
  });
  // The same terms as a circle is fitted with.
  const design = matrix(ROUND, 5, (row, column) => {
    const { angle } = polar[row]!;
    return [1, Math.cos(angle), Math.sin(angle), Math.cos(2 * angle), Math.sin(2 * angle)][column]!;
  });
  const fit = leastSquares(
    design,
    polar.map((p) => p.radius),
  );
  return fit.ok ? { x: fit.value.parameters[1]!, y: fit.value.parameters[2]! } : { x: 0, y: 0 };
}

/** Exact for four places, least squares for more, by the linear equations of the homography with its last entry 1; null when they do not tell it. */
export function homographyThrough(places: readonly SeenPlace[]): readonly number[] | null {
  const rows = 2 * places.length;
  const design = matrix(rows, 8, (row, column) => {
    const { at, seen } = places[row >> 1]!;
    const isX = row % 2 === 0;
    const value = isX ? seen.x : seen.y;
    const own = [at.x, at.y, 1];
    if (column < 3) return isX ? own[column]! : 0;
    if (column < 6) return isX ? 0 : own[column - 3]!;
    return -value * own[column - 6]!;
  });
  const rhs = places.flatMap(({ seen }) => [seen.x, seen.y]);
  const solved = leastSquares(design, rhs);
  return solved.ok ? [...solved.value.parameters, 1] : null;
}

const PARAMETERS = 9;
const ROUNDS = 12;

const withStep = (lens: Lens, step: ArrayLike<number>): Lens => ({
  ...lens,
  homography: lens.homography.map((h, i) => (i < 8 ? h + step[i]! : h)),
  radial: lens.radial + step[8]!,
});

const squaresOf = (lens: Lens, places: readonly SeenPlace[]): number =>
  places.reduce((sum, { at, seen }) => {
    const p = placeOf(lens, at);
    return sum + (p.x - seen.x) ** 2 + (p.y - seen.y) ** 2;
  }, 0);

/** One step of Levenberg and Marquardt; null when it does not help. Derivatives by differences. */
function improved(lens: Lens, places: readonly SeenPlace[], damping: number): Lens | null {
  const scales = [...lens.homography.slice(0, 8).map((h, i) => (i > 5 ? 1e-5 : Math.max(1, Math.abs(h)))), 0.1];
  const columns = scales.map((scale, k) => {
    const delta = 1e-6 * scale;
    const moved = withStep(
      lens,
      scales.map((_, i) => (i === k ? delta : 0)),
    );
    return places.flatMap(({ at }) => {
      const [a, b] = [placeOf(moved, at), placeOf(lens, at)];
      return [(a.x - b.x) / delta, (a.y - b.y) / delta];
    });
  });
  const n = 2 * places.length;
  const lengths = columns.map((c) => Math.sqrt(c.reduce((sum, v) => sum + v * v, 0)));
  const design = matrix(n + PARAMETERS, PARAMETERS, (row, column) =>
    row < n ? columns[column]![row]! : row - n === column ? damping * lengths[column]! : 0,
  );
  const rhs = new Float64Array(n + PARAMETERS);
  places.forEach(({ at, seen }, i) => {
    const p = placeOf(lens, at);
    rhs[2 * i] = seen.x - p.x;
    rhs[2 * i + 1] = seen.y - p.y;
  });
  const solved = leastSquares(design, rhs);
  if (!solved.ok) return null;
  const next = withStep(lens, solved.value.parameters);
  return squaresOf(next, places) < squaresOf(lens, places) ? next : null;
}

/**
 * A camera's view of a flat sheet through places seen: homography and radial term by Levenberg and Marquardt from the
 * homography alone. @param places eight or more, not on a line. Null when they tell no homography.
 */
export function cameraLens(places: readonly SeenPlace[], size: PictureSize): Lens | null {
  const start = homographyThrough(places);
  if (!start) return null;
  let lens = lensOf(start, 0, size);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS; round++) {
    const next = improved(lens, places, damping);
    damping *= next ? 0.2 : 8;
    lens = next ?? lens;
  }
  return lens;
}

/** How a picture is tilted against the sheet at its middle, and which way on the sheet leads away from the camera. */
export function tiltOf(lens: Lens): { readonly tiltRad: number; readonly away: Point } {
  const { right, up } = viewAt(lens, { x: 0, y: 0 });
  // Eigenvalues of J^T J: squares of the largest and least magnification.
  const [a, b, c] = [right.x ** 2 + right.y ** 2, right.x * up.x + right.y * up.y, up.x ** 2 + up.y ** 2];
  const spread = Math.hypot((a - c) / 2, b);
  const [most, least] = [(a + c) / 2 + spread, (a + c) / 2 - spread];
  const angle = Math.atan2(2 * b, a - c) / 2 + Math.PI / 2;
  const way = { x: Math.cos(angle), y: Math.sin(angle) };
  const size = (at: Point): number => {
    const view = viewAt(lens, at);
    return Math.abs(view.right.x * view.up.y - view.right.y * view.up.x);
  };
  const isAway = size({ x: 50 * way.x, y: 50 * way.y }) < size({ x: -50 * way.x, y: -50 * way.y });
  const sign = isAway ? 1 : -1;
  return { tiltRad: Math.acos(Math.min(1, Math.sqrt(least / most))), away: { x: sign * way.x, y: sign * way.y } };
}
