import 'server-only';
import type { Point } from '@/core/geometry/affine';
import { standardNormal, type Rng } from '@/core/math/random';
import { readWedgePicture } from '@/core/simulate/read-picture';
import type { SheetDefinition, WedgeFigure } from '@/core/target/sheet-definition';
import { figureToSheet, READING_STEP_MM, WEDGE_REACH_MM } from '@/core/target/wedge';

export interface SeenWedge {
  readonly spotNo: number;
  readonly axis: WedgeFigure['axis'];
  /** Null when the strip is not within the figure's reach. */
  readonly readingMm: number | null;
}

const middle = (points: readonly Point[]): Point => ({
  x: points.slice(0, 4).reduce((sum, p) => sum + p.x / 4, 0),
  y: points.slice(0, 4).reduce((sum, p) => sum + p.y / 4, 0),
});

/** The cut strip that lies over a figure: four corners, long the right way, its middle within 3 mm. */
function stripOver(figure: WedgeFigure, cuts: readonly (readonly Point[])[]): readonly Point[] | undefined {
  const wanted = figureToSheet(figure, { u: figure.halfLengthMm, v: 0 });
  const strips = cuts.filter((c) => c.length === 5);
  const near = strips
    .map((points) => ({ points, gap: Math.hypot(middle(points).x - wanted.x, middle(points).y - wanted.y) }))
    .filter(({ points, gap }) => gap < 3 && isLongAlong(figure, points))
    .sort((a, b) => a.gap - b.gap);
  return near[0]?.points;
}

function isLongAlong(figure: WedgeFigure, points: readonly Point[]): boolean {
  const [a, b] = points;
  if (!a || !b) return false;
  const isAcross = Math.abs(b.x - a.x) > Math.abs(b.y - a.y);
  return isAcross === (figure.axis === 'along');
}

/** A stand-in for the operator: reads every wedge of a set off a picture, with the eye's noise and the entered step. */
export function readWedges(
  definition: SheetDefinition,
  setNo: number,
  cuts: readonly (readonly Point[])[],
  eye: { readonly sdMm: number; readonly rng: Rng },
): readonly SeenWedge[] {
  return definition.wedges
    .filter((w) => w.setNo === setNo)
    .map((figure) => {
      const strip = stripOver(figure, cuts);
      const seen = strip ? readWedgePicture(figure, strip) : null;
      const noisy = seen === null ? null : seen + eye.sdMm * standardNormal(eye.rng);
      const entered =
        noisy === null ? null : Number((Math.round(noisy / READING_STEP_MM) * READING_STEP_MM).toFixed(2));
      const isInside = entered !== null && Math.abs(entered) <= WEDGE_REACH_MM;
      return { spotNo: figure.spotNo, axis: figure.axis, readingMm: isInside ? entered : null };
    });
}
