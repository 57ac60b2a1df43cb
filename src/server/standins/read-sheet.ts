import 'server-only';
import type { Point } from '@/core/geometry/affine';
import { standardNormal, type Rng } from '@/core/math/random';
import { combStrokes, readCombPicture, readWedgePicture } from '@/core/simulate/read-picture';
import { COMB_REACH_MM, combAnswers, nearestAnswer } from '@/core/target/comb';
import type { SheetDefinition, WedgeFigure } from '@/core/target/sheet-definition';
import { rimDisplacement } from '@/core/reading/observation';
import { LIFT_OFF_REACH_MM, LIFT_OFF_RING_OUTER_MM } from '@/core/target/lift-off';
import { divisionOf, nearestWedgeReading } from '@/core/target/reading-scale';
import { figureToSheet, READING_STEP_MM } from '@/core/target/wedge';

/** How steady an eye is, and where its noise comes from. */
export interface Eye {
  readonly sdMm: number;
  readonly rng: Rng;
}

export interface SeenFigure {
  readonly spotNo: number;
  readonly axis: WedgeFigure['axis'];
  /** Null when the cut is not within the figure's reach. */
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
  eye: Eye,
): readonly SeenFigure[] {
  return definition.wedges
    .filter((w) => w.setNo === setNo)
    .map((figure) => {
      const strip = stripOver(figure, cuts);
      const seen = strip ? readWedgePicture(figure, strip) : null;
      const noisy = seen === null ? null : seen + eye.sdMm * standardNormal(eye.rng);
      const { wedgeReachMm, wedgeStepMm } = divisionOf(figure.scale);
      const isInside = noisy !== null && Math.abs(noisy) <= wedgeReachMm + wedgeStepMm / 2;
      const readingMm = isInside ? nearestWedgeReading(noisy, figure.scale) : null;
      return { spotNo: figure.spotNo, axis: figure.axis, readingMm };
    });
}

/** A stand-in for the operator: finds the tick in line on every comb, with the eye's noise and the comb's own steps. */
export function readCombs(
  definition: SheetDefinition,
  cuts: readonly (readonly Point[])[],
  eye: Eye,
): readonly SeenFigure[] {
  return definition.combs.map((comb) => {
    const { spotNo, axis } = comb;
    const seen = readCombPicture(comb, combStrokes(comb, cuts));
    if (seen === null || Math.abs(seen) > COMB_REACH_MM) return { spotNo, axis, readingMm: null };
    const noisy = seen + eye.sdMm * standardNormal(eye.rng);
    return { spotNo, axis, readingMm: nearestAnswer(combAnswers(comb), noisy).readingMm };
  });
}

export interface SeenRims {
  readonly spotNo: number;
  /** Half the difference of opposite rims, across and along; null when the cut is out of the disc's reach. */
  readonly acrossMm: number | null;
  readonly alongMm: number | null;
}

/** The closed cut round a disc, its middle within the disc's reach of the printed one. */
function ringOver(centre: Point, cuts: readonly (readonly Point[])[]): readonly Point[] | undefined {
  const rings = cuts.filter((c) => c.length > 40);
  const middleOf = (ring: readonly Point[]): Point => ({
    x: (Math.min(...ring.map((p) => p.x)) + Math.max(...ring.map((p) => p.x))) / 2,
    y: (Math.min(...ring.map((p) => p.y)) + Math.max(...ring.map((p) => p.y))) / 2,
  });
  return rings
    .map((ring) => ({ ring, gap: Math.hypot(middleOf(ring).x - centre.x, middleOf(ring).y - centre.y) }))
    .filter((r) => r.gap < LIFT_OFF_REACH_MM + 1)
    .sort((a, b) => a.gap - b.gap)[0]?.ring;
}

/** A stand-in for the operator with lifted discs: evens out opposite rims, with the eye's noise and the entered step. */
export function readRims(
  definition: SheetDefinition,
  cuts: readonly (readonly Point[])[],
  eye: Eye,
): readonly SeenRims[] {
  const entered = (mm: number): number | null => {
    const seen = Number(
      (Math.round((mm + eye.sdMm * standardNormal(eye.rng)) / READING_STEP_MM) * READING_STEP_MM).toFixed(2),
    );
    return Math.abs(seen) <= LIFT_OFF_REACH_MM ? seen : null;
  };
  return definition.liftOffs.map(({ spotNo, centre }) => {
    const ring = ringOver(centre, cuts);
    if (!ring) return { spotNo, acrossMm: null, alongMm: null };
    const rim = (component: 'x' | 'y'): number => {
      const values = ring.map((p) => p[component] - centre[component]);
      const minus = -Math.min(...values) - LIFT_OFF_RING_OUTER_MM;
      const plus = Math.max(...values) - LIFT_OFF_RING_OUTER_MM;
      return rimDisplacement(minus, plus);
    };
    return { spotNo, acrossMm: entered(rim('x')), alongMm: entered(rim('y')) };
  });
}
