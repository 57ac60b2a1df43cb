import { Clipper, EndType, JoinType } from 'clipper2-ts';
import type { Frame, Point } from '@/core/geometry/affine';
import type { LineShape } from '@/formats/vector-drawing';
import { ARC_UNITS, ringArea, toMm, toUnits, UNITS_PER_MM, type Ring } from './outline';

/** A tip that stands out no farther than this is not drawn: flattened curves have thousands of them. */
const LEAST_TIP_MM = 0.002;

const ENDS = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square };
const CORNERS = { miter: JoinType.Bevel, round: JoinType.Round, bevel: JoinType.Bevel };

const isSame = (a: Point<Frame>, b: Point<Frame>): boolean => a.x === b.x && a.y === b.y;

function direction<F extends Frame>(from: Point<F>, to: Point<F>): Point<F> {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
}

/**
 * The tip that a mitred corner adds to a bevelled one: corner, outer ends of both edges, point where they meet. Null where
 * the corner is too sharp for its limit, or so blunt that nothing stands out. Miter length over width: 1 / sin(angle / 2),
 * SVG 1.1 (11.4).
 */
function miterTip<F extends Frame>(
  [before, at, after]: readonly [Point<F>, Point<F>, Point<F>],
  halfMm: number,
  miterLimit: number,
): Ring<F> | null {
  const one = direction(before, at);
  const two = direction(at, after);
  const turn = Math.atan2(one.x * two.y - one.y * two.x, one.x * two.x + one.y * two.y);
  const ratio = 1 / Math.cos(turn / 2);
  if (ratio > miterLimit || halfMm * (ratio - Math.cos(turn / 2)) < LEAST_TIP_MM) return null;
  // The outer side is the right one of a turn to the left.
  const side = turn > 0 ? halfMm : -halfMm;
  const outer = (d: Point<F>): Point<F> => ({ x: at.x + side * d.y, y: at.y - side * d.x });
  const [a, b] = [outer(one), outer(two)];
  const reach = ratio ** 2 / 2;
  const tip = { x: at.x + (a.x + b.x - 2 * at.x) * reach, y: at.y + (a.y + b.y - 2 * at.y) * reach };
  const ring = [at, a, tip, b];
  return ringArea(ring) > 0 ? ring : [...ring].reverse();
}

function miterTips<F extends Frame>(points: Ring<F>, isClosed: boolean, halfMm: number, miterLimit: number) {
  return points.flatMap((at, i) => {
    const before = points[i - 1] ?? (isClosed ? points.at(-1) : undefined);
    const after = points[i + 1] ?? (isClosed ? points[0] : undefined);
    const tip = before && after && miterTip([before, at, after], halfMm, miterLimit);
    return tip ? [tip] : [];
  });
}

/** Points that follow each other at no distance are one; a closed path does not end where it began. */
function distinctPoints<F extends Frame>(points: Ring<F>, isClosed: boolean): Ring<F> {
  const distinct = points.filter((p, i) => i === 0 || !isSame(p, points[i - 1] ?? p));
  const [first] = distinct;
  const last = distinct.at(-1);
  const isRepeated = isClosed && distinct.length > 1 && first && last && isSame(first, last);
  return isRepeated ? distinct.slice(0, -1) : distinct;
}

/** There and back is no ring: it turns about at its ends, which no miter limit allows. */
function endOf(count: number, isClosed: boolean, { ends, corners }: LineShape): EndType {
  if (!isClosed || count === 1) return ENDS[ends];
  if (count > 2) return EndType.Joined;
  return corners === 'round' ? EndType.Round : EndType.Butt;
}

/**
 * What a drawn line covers, as rings that may overlap (fill rule nonzero). A path of one point shows its ends where they are
 * round or square, and nothing where they are not (SVG 1.1, 11.4).
 */
export function strokeArea<F extends Frame>(
  points: Ring<F>,
  isClosed: boolean,
  line: LineShape & { readonly widthMm: number },
): readonly Ring<F>[] {
  const path = distinctPoints(points, isClosed);
  const isDot = path.length <= 1;
  if (path.length === 0 || (isDot && line.ends === 'butt')) return [];
  const corner = isDot && line.ends === 'round' ? JoinType.Round : CORNERS[line.corners];
  const end = endOf(path.length, isClosed, line);
  const halfMm = line.widthMm / 2;
  const body = toMm<F>(Clipper.inflatePaths(toUnits([path]), halfMm * UNITS_PER_MM, corner, end, 2, ARC_UNITS));
  const hasTips = line.corners === 'miter' && path.length > 2;
  return hasTips ? [...body, ...miterTips(path, isClosed, halfMm, line.miterLimit)] : body;
}
