import type { Frame, Point } from './affine';

/** A circular piece to `to`; bulge = tan(quarter of its angle), positive counter-clockwise, 0 straight. */
export interface BulgePiece<F extends Frame> {
  readonly to: Point<F>;
  readonly bulge: number;
}

type Curve<F extends Frame> = (t: number) => Point<F>;

const MOST_HALVINGS = 16;

/** Bulge of the circle through three points: the outer angle at the middle one is half the arc's. */
export function bulgeThrough<F extends Frame>(a: Point<F>, b: Point<F>, c: Point<F>): number {
  const ux = b.x - a.x;
  const uy = b.y - a.y;
  const vx = c.x - b.x;
  const vy = c.y - b.y;
  return Math.tan(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) / 2);
}

/** Centre and radius of a circular piece; null for a straight one. */
export function circleOf<F extends Frame>(
  from: Point<F>,
  { to, bulge }: BulgePiece<F>,
): { readonly centre: Point<F>; readonly radius: number } | null {
  if (Math.abs(bulge) < 1e-12) return null;
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const k = (1 - bulge * bulge) / (4 * bulge);
  const centre = { x: (from.x + to.x) / 2 - k * dy, y: (from.y + to.y) / 2 + k * dx };
  return { centre, radius: Math.hypot(from.x - centre.x, from.y - centre.y) };
}

/** How far a point lies off a circular (or straight) piece's line. */
function gapTo<F extends Frame>(from: Point<F>, piece: BulgePiece<F>, p: Point<F>): number {
  const circle = circleOf(from, piece);
  if (circle) return Math.abs(Math.hypot(p.x - circle.centre.x, p.y - circle.centre.y) - circle.radius);
  const dx = piece.to.x - from.x;
  const dy = piece.to.y - from.y;
  const length = Math.hypot(dx, dy);
  if (length === 0) return Math.hypot(p.x - from.x, p.y - from.y);
  return Math.abs((p.x - from.x) * dy - (p.y - from.y) * dx) / length;
}

interface Halving<F extends Frame> {
  readonly curve: Curve<F>;
  readonly toleranceMm: number;
  /** The one piece through three points of the curve. */
  readonly through: (from: Point<F>, middle: Point<F>, to: Point<F>) => BulgePiece<F>;
  readonly isFlat: (piece: BulgePiece<F>) => boolean;
  readonly out: BulgePiece<F>[];
}

/** One stretch of a curve from t = low to high, its ends and middle known, halved until the quarter points lie near enough. */
function halve<F extends Frame>(
  work: Halving<F>,
  [low, high]: readonly [number, number],
  [from, middle, to]: readonly [Point<F>, Point<F>, Point<F>],
  halvings: number,
): void {
  const half = (low + high) / 2;
  const first = work.curve((low + half) / 2);
  const second = work.curve((half + high) / 2);
  const piece = work.through(from, middle, to);
  const isNear = (p: Point<F>): boolean => gapTo(from, piece, p) <= work.toleranceMm;
  if (halvings === 0 || (work.isFlat(piece) && isNear(middle) && isNear(first) && isNear(second))) {
    work.out.push(piece);
    return;
  }
  halve(work, [low, half], [from, first, middle], halvings - 1);
  halve(work, [half, high], [middle, second, to], halvings - 1);
}

/**
 * A smooth curve as circular pieces, each through its ends and its middle, halved until the quarter points lie within the
 * tolerance. @param curve t from 0 to 1.
 */
export function asBulges<F extends Frame>(curve: Curve<F>, toleranceMm: number): readonly BulgePiece<F>[] {
  const out: BulgePiece<F>[] = [];
  const through = (a: Point<F>, b: Point<F>, c: Point<F>): BulgePiece<F> => ({ to: c, bulge: bulgeThrough(a, b, c) });
  const isFlat = ({ bulge }: BulgePiece<F>): boolean => Math.abs(bulge) <= 1;
  halve({ curve, toleranceMm, through, isFlat, out }, [0, 1], [curve(0), curve(0.5), curve(1)], MOST_HALVINGS);
  return out;
}

/** Point at a share t of a circular piece. */
export function bulgePoint<F extends Frame>(from: Point<F>, piece: BulgePiece<F>, t: number): Point<F> {
  const circle = circleOf(from, piece);
  if (!circle) return { x: from.x + t * (piece.to.x - from.x), y: from.y + t * (piece.to.y - from.y) };
  const { centre, radius } = circle;
  const start = Math.atan2(from.y - centre.y, from.x - centre.x);
  const angle = start + t * 4 * Math.atan(piece.bulge);
  return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
}

/** A part of a smooth curve as chords within the tolerance; its start left out. */
export function asChords<F extends Frame>(
  curve: Curve<F>,
  toleranceMm: number,
  [low, high]: readonly [number, number] = [0, 1],
): readonly Point<F>[] {
  const out: BulgePiece<F>[] = [];
  const through = (_a: Point<F>, _b: Point<F>, to: Point<F>): BulgePiece<F> => ({ to, bulge: 0 });
  const isFlat = (): boolean => true;
  const ends = [curve(low), curve((low + high) / 2), curve(high)] as const;
  halve({ curve, toleranceMm, through, isFlat, out }, [low, high], ends, MOST_HALVINGS);
  return out.map(({ to }) => to);
}
