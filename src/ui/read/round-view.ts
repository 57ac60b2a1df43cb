import { then, type Affine, type Point } from '@/core/geometry/affine';
import { sheetToView, type TurnDeg } from '@/core/geometry/load';
import { rimDisplacement, wallDisplacement } from '@/core/reading/observation';
import { discReachMm, wallOf, type DiscFigure } from '@/core/target/disc';
import { LIFT_OFF_REACH_MM, LIFT_OFF_RIM_MM, type LiftOffFigure } from '@/core/target/lift-off';

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

/** A round figure whose edges on opposite sides are compared: rims outside a lifted disc, or walls round a hole in one. */
export type RoundFigure = LiftOffFigure | DiscFigure;

export interface Edge {
  readonly name: 'Rim' | 'Wall';
  /** Width of the edge when the cut is in its place. */
  readonly nominalMm: number;
  readonly reachMm: number;
  /** 1: the edge on the side that the cut moved to grows, as a rim does; -1: it shrinks, as a wall does. */
  readonly sense: 1 | -1;
  /** Displacement from the edges on the minus and the plus side. */
  readonly displacement: (minusMm: number, plusMm: number) => number;
}

export const edgeOf = (figure: RoundFigure): Edge =>
  figure.kind === 'lift-off'
    ? {
        name: 'Rim',
        nominalMm: LIFT_OFF_RIM_MM,
        reachMm: LIFT_OFF_REACH_MM,
        sense: 1,
        displacement: rimDisplacement,
      }
    : {
        name: 'Wall',
        nominalMm: wallOf(figure),
        reachMm: discReachMm(figure),
        sense: -1,
        displacement: wallDisplacement,
      };

/** Nearest step of 0.05 mm within the figure's reach. */
export function clampRound(mm: number, reachMm: number): number {
  const most = Math.round(reachMm * STEPS_PER_MM);
  return Math.max(-most, Math.min(most, Math.round(mm * STEPS_PER_MM))) / STEPS_PER_MM + 0;
}

export interface EdgesSeen {
  readonly left: number;
  readonly right: number;
  readonly near: number;
  readonly far: number;
}

/** Edges as the eye sees them for a displacement of the cut on the sheet. */
export function edgesSeen(view: DiscView, displacement: Point, { nominalMm, sense }: Edge): EdgesSeen {
  const m = sheetToEye(view);
  const x = m.xx * displacement.x + m.xy * displacement.y;
  const y = m.yx * displacement.x + m.yy * displacement.y;
  const edge = (towards: number): number => nominalMm + sense * towards;
  return { left: edge(-x), right: edge(x), near: edge(-y), far: edge(y) };
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
export function roundKey(view: DiscView, key: string, stepMm: number): Point | null {
  const arrow = ARROWS[key];
  return arrow ? onSheet(view, { x: arrow.x * stepMm, y: arrow.y * stepMm }) : null;
}
