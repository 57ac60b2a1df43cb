import { apply, then, type Affine, type Frame, type Point } from './affine';

/** Sideways bow of a long run: displacement across that grows with the square of the way along, perMm x s^2 / 2. */
export interface Bow<F extends Frame = 'page'> {
  readonly perMm: number;
  /** Axis of the frame along which the run goes. */
  readonly along: 'x' | 'y';
  /** Where s is zero. */
  readonly pivot: Point<F>;
}

/**
 * A move of cut lines in one frame: the bow where there is one, then an affine map. In this order it is the exact inverse
 * of an error that is affine first and bows what comes out. Plain data, so that workers can be told.
 */
export interface PlaneMove<F extends Frame = 'page'> {
  readonly affine: Affine<F, F>;
  readonly bow?: Bow<F>;
}

/** Where a point goes. */
export function movePoint<F extends Frame>({ affine, bow }: PlaneMove<F>, p: Point<F>): Point<F> {
  if (!bow) return apply(affine, p);
  const s = p[bow.along] - bow.pivot[bow.along];
  const shift = (bow.perMm * s * s) / 2;
  return apply(affine, bow.along === 'y' ? { x: p.x + shift, y: p.y } : { x: p.x, y: p.y + shift });
}

/** Where a tangent at a point goes: the move's derivative applied to it. */
export function moveTangent<F extends Frame>({ affine, bow }: PlaneMove<F>, p: Point<F>, tangent: Point<F>): Point<F> {
  let { x, y } = tangent;
  if (bow) {
    const slope = bow.perMm * (p[bow.along] - bow.pivot[bow.along]);
    if (bow.along === 'y') x += slope * y;
    else y += slope * x;
  }
  return { x: affine.xx * x + affine.xy * y, y: affine.yx * x + affine.yy * y };
}

/** How far a straight piece leaves its chord under the move's bow: an eighth of the square of its length along the run. */
export function bowHeight<F extends Frame>({ bow }: PlaneMove<F>, a: Point<F>, b: Point<F>): number {
  if (!bow) return 0;
  const s = b[bow.along] - a[bow.along];
  return (Math.abs(bow.perMm) * s * s) / 8;
}

/** The same affine move written in other coordinates: first into the move's own frame, then back. */
export function affineInside<F extends Frame, G extends Frame>(
  map: Affine<F, F>,
  into: Affine<G, F>,
  back: Affine<F, G>,
): Affine<G, G> {
  return then(then(into, map), back);
}
