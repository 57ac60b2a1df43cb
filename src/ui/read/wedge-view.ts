import { sheetToView, type TurnDeg } from '@/core/geometry/load';
import { nearestWedgeReading } from '@/core/target/reading-scale';
import { meetingPointMm, type Axis, type WedgePlace } from '@/core/target/wedge';

/** 2 x 2 turn from a wedge's own frame (u, v) to the screen (x right, y down), for a sheet turned in the hand. */
export interface FigureTurn {
  readonly ux: number;
  readonly uy: number;
  readonly vx: number;
  readonly vy: number;
}

/** Along: u = +x, v = +y on the sheet. Across: v = +x, u = -y. Then the view's turn, then y down. */
export function figureTurn(axis: Axis, viewTurnDeg: TurnDeg): FigureTurn {
  const t = sheetToView(viewTurnDeg);
  const u = axis === 'along' ? { x: 1, y: 0 } : { x: 0, y: -1 };
  const v = axis === 'along' ? { x: 0, y: 1 } : { x: 1, y: 0 };
  const onScreen = (p: { x: number; y: number }): { x: number; y: number } => ({
    x: t.xx * p.x + t.xy * p.y,
    y: -(t.yx * p.x + t.yy * p.y),
  });
  const us = onScreen(u);
  const vs = onScreen(v);
  return { ux: us.x, uy: us.y, vx: vs.x, vy: vs.y };
}

/** The reading's step for an arrow key: the cut moves the way the key points; keys along the strip do nothing. */
export function keyStep(key: string, turn: FigureTurn): -1 | 0 | 1 {
  const direction = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[key];
  if (!direction) return 0;
  const along = Math.round((direction[0] ?? 0) * turn.vx + (direction[1] ?? 0) * turn.vy);
  if (along > 0) return 1;
  return along < 0 ? -1 : 0;
}

/** The two arrow keys that move the cut in this view, the one that makes the reading smaller first. */
export function keysFor(turn: FigureTurn): readonly [string, string] {
  if (Math.abs(turn.vx) > 0.5) return turn.vx > 0 ? ['\u2190', '\u2192'] : ['\u2192', '\u2190'];
  return turn.vy > 0 ? ['\u2191', '\u2193'] : ['\u2193', '\u2191'];
}

/** The reading whose tips meet where the screen was touched, as near as the figure can tell it. */
export function readingFromTouch(
  touch: { readonly x: number; readonly y: number },
  turn: FigureTurn,
  { halfLengthMm, scale }: Pick<WedgePlace, 'halfLengthMm' | 'scale'>,
): number {
  const u = touch.x * turn.ux + touch.y * turn.uy + halfLengthMm;
  return nearestWedgeReading((halfLengthMm - u) / halfLengthMm, scale);
}

/** Where the tips meet on the screen, mm from the figure's middle. */
export function tipOnScreen(readingMm: number, turn: FigureTurn, halfLengthMm: number): { x: number; y: number } {
  const along = meetingPointMm(halfLengthMm, readingMm) - halfLengthMm;
  return { x: along * turn.ux, y: along * turn.uy };
}
