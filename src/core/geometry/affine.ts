import { fail, ok, type Result } from '../result';

/**
 * Frames, all in mm and right-handed seen from the top unless said otherwise.
 * sheet: printed arrow up, printed face towards you, x right, y up, origin at the block's centre.
 * machine: y towards the leading edge (the way the material is fed), x to the right of one who looks that way.
 * file: as the cutter's file wants it, origin at the lower left, never negative.
 * view: as the sheet lies in the hand, x right, y away from the reader.
 * picture: pixels of a scan from its upper left corner, y down; left-handed.
 */
export type Frame = 'sheet' | 'machine' | 'file' | 'view' | 'page' | 'picture';

export interface Point<F extends Frame = 'sheet'> {
  readonly x: number;
  readonly y: number;
  readonly frame?: F;
}

/** x' = xx x + xy y + tx, y' = yx x + yy y + ty. */
export interface Affine<A extends Frame = 'sheet', B extends Frame = 'sheet'> {
  readonly xx: number;
  readonly xy: number;
  readonly yx: number;
  readonly yy: number;
  readonly tx: number;
  readonly ty: number;
  readonly from?: A;
  readonly to?: B;
}

export const point = <F extends Frame>(x: number, y: number): Point<F> => ({ x, y });

export const identity = <F extends Frame = 'sheet'>(): Affine<F, F> => ({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 });

export const translation = <F extends Frame = 'sheet'>(tx: number, ty: number): Affine<F, F> => ({
  xx: 1,
  xy: 0,
  yx: 0,
  yy: 1,
  tx,
  ty,
});

export function apply<A extends Frame, B extends Frame>(map: Affine<A, B>, p: Point<NoInfer<A>>): Point<B> {
  return { x: map.xx * p.x + map.xy * p.y + map.tx, y: map.yx * p.x + map.yy * p.y + map.ty };
}

/** The map that does `first` and then `second`. */
export function then<A extends Frame, B extends Frame, C extends Frame>(
  first: Affine<A, B>,
  second: Affine<NoInfer<B>, C>,
): Affine<A, C> {
  return {
    xx: second.xx * first.xx + second.xy * first.yx,
    xy: second.xx * first.xy + second.xy * first.yy,
    yx: second.yx * first.xx + second.yy * first.yx,
    yy: second.yx * first.xy + second.yy * first.yy,
    tx: second.xx * first.tx + second.xy * first.ty + second.tx,
    ty: second.yx * first.tx + second.yy * first.ty + second.ty,
  };
}

export type SingularMap = { readonly kind: 'singular-map'; readonly determinant: number };

export function invert<A extends Frame, B extends Frame>(map: Affine<A, B>): Result<Affine<B, A>, SingularMap> {
  const determinant = map.xx * map.yy - map.xy * map.yx;
  const size = Math.max(Math.abs(map.xx), Math.abs(map.xy), Math.abs(map.yx), Math.abs(map.yy));
  if (!(Math.abs(determinant) > size * size * 1e-12)) return fail({ kind: 'singular-map', determinant });
  const xx = map.yy / determinant;
  const xy = -map.xy / determinant;
  const yx = -map.yx / determinant;
  const yy = map.xx / determinant;
  return ok({ xx, xy, yx, yy, tx: -(xx * map.tx + xy * map.ty), ty: -(yx * map.tx + yy * map.ty) });
}

/** Inverse of a map known to be near the identity or a rigid turn; throws when that contract is broken. */
export function inverseOf<A extends Frame, B extends Frame>(map: Affine<A, B>): Affine<B, A> {
  const inverse = invert(map);
  if (!inverse.ok) throw new Error(`a ${inverse.error.kind} was inverted, determinant ${inverse.error.determinant}`);
  return inverse.value;
}

/** map(p) - p: for a map from nominal to actual, the error at p. */
export function displacement<F extends Frame>(map: Affine<F, F>, p: Point<F>): Point<F> {
  const moved = apply(map, p);
  return { x: moved.x - p.x, y: moved.y - p.y };
}

/** Largest displacement length over the given points; for an affine map over a convex area the corners suffice. */
export function largestDisplacement<F extends Frame>(map: Affine<F, F>, points: readonly Point<F>[]): number {
  return points.reduce((largest, p) => {
    const d = displacement(map, p);
    return Math.max(largest, Math.hypot(d.x, d.y));
  }, 0);
}

/** Corners of a width x length rectangle about the origin: lower left, lower right, upper right, upper left. */
export function cornersOf<F extends Frame = 'sheet'>(widthMm: number, lengthMm: number): readonly Point<F>[] {
  const x = widthMm / 2;
  const y = lengthMm / 2;
  return [
    { x: -x, y: -y },
    { x, y: -y },
    { x, y },
    { x: -x, y },
  ];
}
