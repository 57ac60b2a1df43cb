import type { Point } from '../geometry/affine';
import { wallDisplacement } from '../reading/observation';
import {
  COMB_BOX_LENGTH_MM,
  COMB_BOX_WIDTH_MM,
  COMB_CUT_TICKS,
  COMB_PITCH_MM,
  COMB_READ_W,
  cutTickMm,
  type CombPlace,
} from '../target/comb';
import type { DiscFigure } from '../target/disc';
import { inkWedges, readingAt, type WedgePlace } from '../target/wedge';

/**
 * Reads one wedge off a picture, as a careful eye would: crosses the two long sides of the cut strip with the sloping
 * sides of the two printed wedges and takes the middle of the two tips. Knows nothing of what moved the cut.
 * @param outline the cut strip as found on the sheet, a closed outline of four corners, in the printed frame.
 * @returns the reading (h - u) / h before dither is taken out, or null when a tip leaves its wedge or no strip is there.
 */
export function readWedgePicture(place: WedgePlace, outline: readonly Point[]): number | null {
  const corners = outline.slice(0, 4).map((p) => toFigure(place, p));
  if (corners.length < 4) return null;
  const [upper, lower] = inkWedges(place.halfLengthMm, place.ditherMm);
  const slopes = [
    [upper![1]!, upper![2]!],
    [lower![0]!, lower![1]!],
  ] as const;
  const sides = [
    [corners[3]!, corners[2]!],
    [corners[0]!, corners[1]!],
  ] as const;
  // The strip's side at +v crosses the upper wedge; after a mirror image it would be the other one.
  const ordered = sides[0][0].v > sides[1][0].v ? sides : [sides[1], sides[0]];
  const tips = slopes.map((slope, i) => crossing(slope, ordered[i]!));
  const [a, b] = tips;
  if (a === undefined || b === undefined || a === null || b === null) return null;
  const u = (a + b) / 2;
  return u < -0.5 || u > 2 * place.halfLengthMm + 0.5 ? null : readingAt(place.halfLengthMm, u);
}

/** Two-point strokes over a comb, across its row: what an eye takes for its cut ticks. Further off than 3 mm they are not. */
export function combStrokes(
  { axis, centre }: Pick<CombPlace, 'axis' | 'centre'>,
  cuts: readonly (readonly Point[])[],
): readonly (readonly Point[])[] {
  return cuts.filter((cut) => {
    const [a, b] = cut;
    if (cut.length !== 2 || !a || !b) return false;
    const isUpright = Math.abs(b.y - a.y) > Math.abs(b.x - a.x);
    const off = { x: (a.x + b.x) / 2 - centre.x, y: (a.y + b.y) / 2 - centre.y };
    const [along, aside] = axis === 'across' ? [off.x, off.y] : [off.y, off.x];
    const isNear = Math.abs(along) < COMB_BOX_LENGTH_MM / 2 + 3 && Math.abs(aside) < COMB_BOX_WIDTH_MM / 2;
    return isUpright === (axis === 'across') && isNear;
  });
}

/**
 * Reads one comb off a picture: finds the stroke that runs on in one line with a printed tick, or most nearly so, and
 * tells the shift there. Which stroke it is, the picture shows: the middle one is the longest.
 * @param strokes the cut ticks as found on the sheet, two points each, in the printed frame.
 * @returns the shift before it is entered as one of the comb's answers; null when not all ticks are there.
 */
export function readCombPicture(place: CombPlace, strokes: readonly (readonly Point[])[]): number | null {
  const at = strokes.map((stroke) => alongRow(place, stroke)).sort((a, b) => a - b);
  if (at.length !== 2 * COMB_CUT_TICKS + 1) return null;
  const beside = (s: number): number => Math.abs(s - Math.round(s / COMB_PITCH_MM) * COMB_PITCH_MM);
  // The outermost ticks only show that the next is worse.
  const inner = at.slice(1, -1);
  const inLine = inner.reduce((best, s) => (beside(s) < beside(best) ? s : best));
  return inLine - cutTickMm(place.spotNo, at.indexOf(inLine) - COMB_CUT_TICKS, place.scale);
}

/** Where a straight stroke crosses the line on which cut and printed ticks are compared. */
function alongRow({ axis, centre }: CombPlace, [a, b]: readonly Point[]): number {
  const toFigure = (p: Point): { s: number; w: number } =>
    axis === 'across' ? { s: p.x - centre.x, w: p.y - centre.y } : { s: p.y - centre.y, w: centre.x - p.x };
  if (!a || !b) return NaN;
  const [from, to] = [toFigure(a), toFigure(b)];
  return from.s + ((COMB_READ_W - from.w) * (to.s - from.s)) / (to.w - from.w);
}

/** Shift of a hole along x and y by the walls of ink left on its four sides; null when a wall is gone. */
export function readWalls(figure: Pick<DiscFigure, 'centre' | 'radiusMm'>, hole: readonly Point[]): Point | null {
  const wallsOf = (component: 'x' | 'y'): readonly [number, number] => {
    const reach = hole.map((p) => p[component] - figure.centre[component]);
    return [figure.radiusMm + Math.min(...reach), figure.radiusMm - Math.max(...reach)];
  };
  const [x, y] = [wallsOf('x'), wallsOf('y')];
  if (Math.min(...x, ...y) <= 0) return null;
  // Thicker on the minus side: the hole lies to the plus side.
  return { x: wallDisplacement(...x), y: wallDisplacement(...y) };
}

type Vector = { readonly u: number; readonly v: number };

function toFigure(place: WedgePlace, p: Point): Vector {
  const dx = p.x - place.origin.x;
  const dy = p.y - place.origin.y;
  return place.axis === 'along' ? { u: dx, v: dy } : { u: -dy, v: dx };
}

/** u where the two lines cross; null when they are parallel. */
function crossing(a: readonly [Vector, Vector], b: readonly [Vector, Vector]): number | null {
  const au = a[1].u - a[0].u;
  const av = a[1].v - a[0].v;
  const bu = b[1].u - b[0].u;
  const bv = b[1].v - b[0].v;
  const determinant = au * bv - av * bu;
  if (Math.abs(determinant) < 1e-12) return null;
  const share = ((b[0].u - a[0].u) * bv - (b[0].v - a[0].v) * bu) / determinant;
  return a[0].u + share * au;
}
