import { then, type Affine, type Point } from '@/core/geometry/affine';
import { sheetToView, type TurnDeg } from '@/core/geometry/load';
import { LIFT_OFF_REACH_MM, LIFT_OFF_RIM_MM } from '@/core/target/lift-off';

/** How a disc is looked at: turned in the hand, and through the film where the print is on the far side. */
export interface DiscView {
  readonly turnDeg: TurnDeg;
  readonly isSeenThrough: boolean;
}

/** Sheet to what the eye sees, x right and y away from the reader; through the film left and right change places. */
export function sheetToEye({ turnDeg, isSeenThrough }: DiscView): Affine<'sheet', 'view'> {
  const turned = sheetToView(turnDeg);
  if (!isSeenThrough) return turned;
  return then(turned, { xx: -1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 });
}

/** A direction seen, told on the sheet: the map is a turn or a mirror image, so its inverse is its transpose. */
export function onSheet(view: DiscView, seen: { readonly x: number; readonly y: number }): Point {
  const m = sheetToEye(view);
  return { x: m.xx * seen.x + m.yx * seen.y, y: m.xy * seen.x + m.yy * seen.y };
}

const STEPS_PER_MM = 20;

/** Nearest step of 0.05 mm within the disc's reach. */
export function clampRim(mm: number): number {
  const most = LIFT_OFF_REACH_MM * STEPS_PER_MM;
  return Math.max(-most, Math.min(most, Math.round(mm * STEPS_PER_MM))) / STEPS_PER_MM + 0;
}

export interface Rims {
  readonly left: number;
  readonly right: number;
  readonly near: number;
  readonly far: number;
}

/** Rims as the eye sees them for a displacement of the cut on the sheet. */
export function rimsSeen(view: DiscView, displacement: Point): Rims {
  const m = sheetToEye(view);
  const x = m.xx * displacement.x + m.xy * displacement.y;
  const y = m.yx * displacement.x + m.yy * displacement.y;
  return { left: LIFT_OFF_RIM_MM - x, right: LIFT_OFF_RIM_MM + x, near: LIFT_OFF_RIM_MM - y, far: LIFT_OFF_RIM_MM + y };
}

/** A displacement with one direction, as the eye sees it, set anew; the other stays. */
export function withSeen(view: DiscView, now: Point, axis: 'sideways' | 'lengthways', seenMm: number): Point {
  const m = sheetToEye(view);
  const seen = { x: m.xx * now.x + m.xy * now.y, y: m.yx * now.x + m.yy * now.y };
  return onSheet(view, axis === 'sideways' ? { x: seenMm, y: seen.y } : { x: seen.x, y: seenMm });
}

const ARROWS: Readonly<Record<string, { readonly x: number; readonly y: number }>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: 1 },
  ArrowDown: { x: 0, y: -1 },
};

/** The cut moved the way an arrow key points, in mm on the sheet; null for any other key. */
export function rimKey(view: DiscView, key: string, stepMm: number): Point | null {
  const arrow = ARROWS[key];
  return arrow ? onSheet(view, { x: arrow.x * stepMm, y: arrow.y * stepMm }) : null;
}
