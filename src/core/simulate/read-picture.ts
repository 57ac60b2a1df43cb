import type { Point } from '../geometry/affine';
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
