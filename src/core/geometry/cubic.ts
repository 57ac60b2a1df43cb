import type { Frame, Point } from './affine';
import { movePoint, moveTangent, type PlaneMove } from './plane-move';

/** Start, two controls, end. */
export type Cubic<F extends Frame> = readonly [Point<F>, Point<F>, Point<F>, Point<F>];

const mix = <F extends Frame>(a: Point<F>, b: Point<F>, t: number): Point<F> => ({
  x: a.x + t * (b.x - a.x),
  y: a.y + t * (b.y - a.y),
});

/** A straight piece as a cubic with even speed. */
export const lineAsCubic = <F extends Frame>(from: Point<F>, to: Point<F>): Cubic<F> => [
  from,
  mix(from, to, 1 / 3),
  mix(from, to, 2 / 3),
  to,
];

/** A quadratic raised to a cubic: the same curve. */
export const quadraticAsCubic = <F extends Frame>(from: Point<F>, control: Point<F>, to: Point<F>): Cubic<F> => [
  from,
  mix(from, control, 2 / 3),
  mix(to, control, 2 / 3),
  to,
];

/** Both parts of a cubic divided at t, by de Casteljau. */
export function splitCubic<F extends Frame>([a, b, c, d]: Cubic<F>, t = 0.5): readonly [Cubic<F>, Cubic<F>] {
  const ab = mix(a, b, t);
  const bc = mix(b, c, t);
  const cd = mix(c, d, t);
  const abc = mix(ab, bc, t);
  const bcd = mix(bc, cd, t);
  const middle = mix(abc, bcd, t);
  return [
    [a, ab, abc, middle],
    [middle, bcd, cd, d],
  ];
}

/** Point of a cubic. */
export function cubicAt<F extends Frame>([a, b, c, d]: Cubic<F>, t: number): Point<F> {
  const s = 1 - t;
  const wa = s * s * s;
  const wb = 3 * s * s * t;
  const wc = 3 * s * t * t;
  const wd = t * t * t;
  return { x: wa * a.x + wb * b.x + wc * c.x + wd * d.x, y: wa * a.y + wb * b.y + wc * c.y + wd * d.y };
}

/** Halvings allowed: a piece of a metre comes down to a micrometre. */
const MOST_HALVINGS = 20;

/** Cubic with the moved ends and the moved end tangents. */
function movedWhole<F extends Frame>(move: PlaneMove<F>, [a, b, c, d]: Cubic<F>): Cubic<F> {
  const start = movePoint(move, a);
  const end = movePoint(move, d);
  const first = moveTangent(move, a, { x: b.x - a.x, y: b.y - a.y });
  const last = moveTangent(move, d, { x: d.x - c.x, y: d.y - c.y });
  return [start, { x: start.x + first.x, y: start.y + first.y }, { x: end.x - last.x, y: end.y - last.y }, end];
}

function largestGap<F extends Frame>(move: PlaneMove<F>, from: Cubic<F>, to: Cubic<F>): number {
  let gap = 0;
  for (const t of [0.25, 0.5, 0.75]) {
    const wanted = movePoint(move, cubicAt(from, t));
    const got = cubicAt(to, t);
    gap = Math.max(gap, Math.hypot(wanted.x - got.x, wanted.y - got.y));
  }
  return gap;
}

/**
 * A cubic under a move. An affine move takes controls to controls, exactly. Under a bow the piece is halved until the cubic
 * with the moved ends and end tangents stays within the tolerance of the moved curve (compared point by point at three
 * inner places, which is never less than the distance between the curves).
 * @param toleranceMm in the move's frame.
 */
export function moveCubic<F extends Frame>(
  move: PlaneMove<F>,
  cubic: Cubic<F>,
  toleranceMm: number,
  halvings = MOST_HALVINGS,
): readonly Cubic<F>[] {
  if (!move.bow) return [cubic.map((p) => movePoint(move, p)) as unknown as Cubic<F>];
  const whole = movedWhole(move, cubic);
  if (halvings === 0 || largestGap(move, cubic, whole) <= toleranceMm) return [whole];
  return splitCubic(cubic).flatMap((half) => moveCubic(move, half, toleranceMm, halvings - 1));
}
