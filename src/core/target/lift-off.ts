import type { Point } from '../geometry/affine';

/** A closed figure that a program finds by tracing and that keeps its identity when lifted onto card. */
export interface LiftOffFigure {
  readonly kind: 'lift-off';
  readonly setNo: 1;
  readonly spotNo: number;
  readonly centre: Point;
  /** Word of the code book that its ring of dots shows; sheets of the fourth generator and before count the spot in dots instead. */
  readonly codeNo?: number;
}

/** Radii in mm: dark disc and the light middle that holds its number, middle of the ring of dots, closed ring, and the clear rim's outer edge, where it is cut. */
export const LIFT_OFF_DISC_MM = 6;
export const LIFT_OFF_MIDDLE_MM = 2.5;
export const LIFT_OFF_DOT_CIRCLE_MM = 7.9;
export const LIFT_OFF_RING_INNER_MM = 9.5;
export const LIFT_OFF_RING_OUTER_MM = 10;
export const LIFT_OFF_CLEAR_MM = 12;
/** Rim of clear material that a cut in its place leaves outside the ring, all round. */
export const LIFT_OFF_RIM_MM = LIFT_OFF_CLEAR_MM - LIFT_OFF_RING_OUTER_MM;
/** Beyond this the cut runs out of the clear rim on one side, and the rims can no longer be compared. */
export const LIFT_OFF_REACH_MM = 1.9;
const DOT_RADIUS_MM = 0.6;
const DOT_STEP_RAD = (2 * Math.PI) / 14;
const ROUND_SIDES = 72;

/** Points of a circle, counter-clockwise from the right, closed (last = first). */
export function circleAbout(centre: Point, radiusMm: number, sides: number = ROUND_SIDES): readonly Point[] {
  return Array.from({ length: sides + 1 }, (_, i) => {
    const angle = (2 * Math.PI * (i % sides)) / sides;
    return { x: centre.x + radiusMm * Math.cos(angle), y: centre.y + radiusMm * Math.sin(angle) };
  });
}

/** A dark ring as one outline: out along a seam, round, back and round the other way. */
export function ringAbout(centre: Point, innerMm: number, outerMm: number): readonly Point[] {
  return [...circleAbout(centre, outerMm), ...circleAbout(centre, innerMm).toReversed()];
}

/** Centres of the counting dots: as many as the spot's number, clockwise from the pointer that shows which way is up. */
export function dotCentres(figure: Pick<LiftOffFigure, 'centre' | 'spotNo'>): readonly Point[] {
  return Array.from({ length: figure.spotNo }, (_, i) => {
    const angle = Math.PI / 2 - (i + 1) * DOT_STEP_RAD;
    return {
      x: figure.centre.x + LIFT_OFF_DOT_CIRCLE_MM * Math.cos(angle),
      y: figure.centre.y + LIFT_OFF_DOT_CIRCLE_MM * Math.sin(angle),
    };
  });
}

/** Counting dots, and the pointer at the top: a small triangle outside the disc, its tip towards the sheet's arrow. */
export function countingMarks(figure: Pick<LiftOffFigure, 'centre' | 'spotNo'>): readonly (readonly Point[])[] {
  const { x, y } = figure.centre;
  const pointer = [
    { x, y: y + 9 },
    { x: x - 1.3, y: y + 6.8 },
    { x: x + 1.3, y: y + 6.8 },
  ];
  return [pointer, ...dotCentres(figure).map((dot) => circleAbout(dot, DOT_RADIUS_MM, 24))];
}

/** The cut that a program makes by offsetting the traced ring outward: round the clear rim. */
export const liftOffCut = (figure: Pick<LiftOffFigure, 'centre'>): readonly Point[] =>
  circleAbout(figure.centre, LIFT_OFF_CLEAR_MM);
