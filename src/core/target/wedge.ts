import type { Point } from '../geometry/affine';
import type { ReadingScale } from './reading-scale';

export type Axis = 'across' | 'along';
export const AXES: readonly Axis[] = ['across', 'along'];

/** Half-length h of the short wedge, the one that fits nine spots. */
export const SHORT_HALF_LENGTH_MM = 16;
/** The step in which the picture is moved and the reading entered. */
export const READING_STEP_MM = 0.05;
/** Beyond this the tips leave the figure. */
export const WEDGE_REACH_MM = 1;
export const STRIP_HALF_WIDTH_MM = 1;
/** Keep-out of one wedge about its middle: along the strip and to either side. */
export const WEDGE_BOX_LENGTH_MM = 36;
export const WEDGE_BOX_WIDTH_MM = 10;

/** A place in a wedge's own frame, seen from the ink: u along the strip, v the direction that is measured. */
export interface FigurePoint {
  readonly u: number;
  readonly v: number;
}

/** Where a wedge stands on the sheet: the point u = 0, v = 0 in the sheet frame, and how its ink is displaced along v. */
export interface WedgePlace {
  readonly axis: Axis;
  readonly origin: Point;
  readonly halfLengthMm: number;
  readonly ditherMm: number;
  /** Scale printed beside it; mm where absent. */
  readonly scale?: ReadingScale;
}

/** Along: u = +x, v = +y. Across: u = -y, v = +x. Both right-handed seen from the ink. */
export function figureToSheet(place: WedgePlace, p: FigurePoint): Point {
  if (place.axis === 'along') return { x: place.origin.x + p.u, y: place.origin.y + p.v };
  return { x: place.origin.x + p.v, y: place.origin.y - p.u };
}

/** The two printed wedges, tapering 1 : 20 or 1 : 16 towards each other's thick end, displaced by the dither along v. */
export function inkWedges(h: number, ditherMm: number): readonly (readonly FigurePoint[])[] {
  const upper = [
    { u: 0, v: 0 },
    { u: 0, v: 2 },
    { u: 2 * h, v: 0 },
  ];
  const lower = [
    { u: 0, v: 0 },
    { u: 2 * h, v: -2 },
    { u: 2 * h, v: 0 },
  ];
  return [upper, lower].map((wedge) => wedge.map((p) => ({ u: p.u, v: p.v + ditherMm })));
}

/** The narrow strip that is cut and weeded, as a closed outline (last point = first). */
export function cutStrip(h: number): readonly FigurePoint[] {
  const v = STRIP_HALF_WIDTH_MM;
  return [
    { u: -1, v: -v },
    { u: 2 * h + 1, v: -v },
    { u: 2 * h + 1, v },
    { u: -1, v },
    { u: -1, v: -v },
  ];
}

/** Where the tips meet for a reading, and the reading for a meeting point: reading = (h - u) / h, in mm. */
export const meetingPointMm = (h: number, readingMm: number): number => h - h * readingMm;
export const readingAt = (h: number, u: number): number => (h - u) / h;

/**
 * Known displacement of a spot's ink along v: spreads the readings over one step, so that rounding is independent from
 * spot to spot. delta_i = ((5 i mod 9) - 4) step / 9, i = spot number - 1. The reading is corrected by it.
 */
export function ditherOf(spotNo: number, stepMm: number = READING_STEP_MM): number {
  return ((((5 * (spotNo - 1)) % 9) - 4) * stepMm) / 9;
}
