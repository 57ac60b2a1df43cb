import { apply, then, type Affine, type Frame, type Point } from './affine';

/** Bow of a long run: displacement that grows with the square of the way along, s^2 / 2 times what is told of each direction. */
export interface Bow<F extends Frame = 'page'> {
  /** Across the run. */
  readonly perMm: number;
  /** Along the run, away from the pivot or back to it: a feed that itself changes. None where it is left out. */
  readonly alongPerMm?: number;
  /** Axis of the frame along which the run goes. */
  readonly along: 'x' | 'y';
  /** Where s is zero. */
  readonly pivot: Point<F>;
}

/**
 * A move of cut lines in one frame: the bow where there is one, then an affine map. In this order it is the inverse of an
 * error that is affine first and bows what comes out: exact across, along but for the square of what it takes out over the
 * way (below 0.1 um for 0.2 mm over 4 m). Plain data, so that workers can be told.
 */
export interface PlaneMove<F extends Frame = 'page'> {
  readonly affine: Affine<F, F>;
  readonly bow?: Bow<F>;
}

/** Where a point goes. */
export function movePoint<F extends Frame>({ affine, bow }: PlaneMove<F>, p: Point<F>): Point<F> {
  if (!bow) return apply(affine, p);
  const s = p[bow.along] - bow.pivot[bow.along];
  const [across, along] = [(bow.perMm * s * s) / 2, ((bow.alongPerMm ?? 0) * s * s) / 2];
  return apply(affine, bow.along === 'y' ? { x: p.x + across, y: p.y + along } : { x: p.x + along, y: p.y + across });
}

/** Where a tangent at a point goes: the move's derivative applied to it. */
export function moveTangent<F extends Frame>({ affine, bow }: PlaneMove<F>, p: Point<F>, tangent: Point<F>): Point<F> {
  let { x, y } = tangent;
  if (bow) {
    const s = p[bow.along] - bow.pivot[bow.along];
    const [across, along] = [bow.perMm * s, (bow.alongPerMm ?? 0) * s];
    if (bow.along === 'y') [x, y] = [x + across * y, y + along * y];
    else [x, y] = [x + along * x, y + across * x];
  }
  return { x: affine.xx * x + affine.xy * y, y: affine.yx * x + affine.yy * y };
}

/** How far a straight piece leaves its chord under the move's bow: an eighth of the square of its length along the run. */
export function bowHeight<F extends Frame>({ bow }: PlaneMove<F>, a: Point<F>, b: Point<F>): number {
  if (!bow) return 0;
  const s = b[bow.along] - a[bow.along];
  return (Math.hypot(bow.perMm, bow.alongPerMm ?? 0) * s * s) / 8;
}

/** The same affine move written in other coordinates: first into the move's own frame, then back. */
export function affineInside<F extends Frame, G extends Frame>(
  map: Affine<F, F>,
  into: Affine<G, F>,
  back: Affine<F, G>,
): Affine<G, G> {
  return then(then(into, map), back);
}
