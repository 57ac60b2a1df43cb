import type { Point } from '../geometry/affine';
import { PLOTTER_UNITS_PER_MM } from '../units/length';
import { ROUGH_EYE_SD_MM, ROUGH_STEP_MM } from '../reading/uncertainty';
import { WEDGE_REACH_MM } from '../target/wedge';

export interface RoughReading {
  readonly spotNo: number;
  readonly acrossMm: number;
  readonly alongMm: number;
}

/** Mean of the rough spots, or null below one. */
export function roughShift(readings: readonly RoughReading[]): Point | null {
  if (readings.length === 0) return null;
  const mean = (pick: (r: RoughReading) => number): number =>
    readings.reduce((sum, r) => sum + pick(r), 0) / readings.length;
  return { x: mean((r) => r.acrossMm), y: mean((r) => r.alongMm) };
}

/** Shift for a set's file that brings it back over its print: minus the rough shift, on whole plotter units. */
export function fileShiftFor(shift: Point): Point {
  const whole = (mm: number): number => Math.round(-mm * PLOTTER_UNITS_PER_MM) / PLOTTER_UNITS_PER_MM + 0;
  return { x: whole(shift.x), y: whole(shift.y) };
}

/** Whether the fine figures can be read: 0.2 mm of their reach is kept for rotation and scale. */
export function isInReach(shift: Point): boolean {
  return Math.max(Math.abs(shift.x), Math.abs(shift.y)) <= WEDGE_REACH_MM - 0.2;
}

/** The rough L matched over its grid: a quarter of a mm a step and the eye. */
const ROUGH_SD_MM = Math.hypot(ROUGH_STEP_MM / Math.sqrt(12), ROUGH_EYE_SD_MM);
/** Farther apart than this, one of the two was misread. */
const CONTRADICTS_AT_SD = 4;

/** Whether a rough position and the fine figures' answer at the same place cannot both be right. */
export const roughContradicts = (rough: Point, fine: Point): boolean =>
  Math.max(Math.abs(rough.x - fine.x), Math.abs(rough.y - fine.y)) > CONTRADICTS_AT_SD * ROUGH_SD_MM;
