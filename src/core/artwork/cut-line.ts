import type { Point } from '../geometry/affine';
import type { Box } from '../target/block';

/** A line that is to be cut, in the drawing's own box, mm. */
export interface CutLine {
  readonly points: readonly Point<'page'>[];
  readonly isClosed: boolean;
  /** Where it stands in the file, in words. */
  readonly place: string;
}

/** A line's points with its first again at the end where it is closed. */
export const closedPoints = ({ points, isClosed }: CutLine): readonly Point<'page'>[] =>
  isClosed && points[0] ? [...points, points[0]] : points;

export function lineLength(line: CutLine): number {
  const points = closedPoints(line);
  return points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i]!.x, p.y - points[i]!.y), 0);
}

export function lineBox({ points }: Pick<CutLine, 'points'>): Box {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const left = xs.reduce((a, b) => Math.min(a, b), Infinity);
  const bottom = ys.reduce((a, b) => Math.min(a, b), Infinity);
  return {
    left,
    bottom,
    width: xs.reduce((a, b) => Math.max(a, b), -Infinity) - left,
    height: ys.reduce((a, b) => Math.max(a, b), -Infinity) - bottom,
  };
}

/** Places along a line, so many mm apart and not more than `most`. */
export function samplesOf(line: CutLine, everyMm: number, most = 2000): readonly Point<'page'>[] {
  const points = closedPoints(line);
  const step = Math.max(everyMm, lineLength(line) / most);
  const samples: Point<'page'>[] = points[0] ? [points[0]] : [];
  let left = step;
  for (const [i, to] of points.slice(1).entries()) {
    const from = points[i]!;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    let at = left;
    for (; at <= length; at += step)
      samples.push({ x: from.x + ((to.x - from.x) * at) / length, y: from.y + ((to.y - from.y) * at) / length });
    left = at - length;
  }
  return samples;
}

/** Distance of a place from a straight piece. */
export function distanceToPiece(p: Point<'page'>, a: Point<'page'>, b: Point<'page'>): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / square)) : 0;
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}
