import type { Frame, Point } from './affine';
import type { Cubic } from './cubic';

/** An elliptical arc by its centre; angles in the ellipse's own parameter, sweep signed. */
export interface Arc<F extends Frame> {
  readonly centre: Point<F>;
  readonly radiusX: number;
  readonly radiusY: number;
  readonly turnRad: number;
  readonly startRad: number;
  readonly sweepRad: number;
}

export interface EndpointArc<F extends Frame> {
  readonly from: Point<F>;
  readonly to: Point<F>;
  readonly radiusX: number;
  readonly radiusY: number;
  readonly turnRad: number;
  readonly isLarge: boolean;
  readonly isCounterClockwise: boolean;
}

const angleBetween = (ux: number, uy: number, vx: number, vy: number): number =>
  Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);

/**
 * Centre of an arc given by its ends. Radii too small to reach are enlarged. Null where the arc is a straight line (a
 * radius of nothing) or nothing at all (both ends the same).
 * Source: W3C SVG 1.1 (second edition), appendix F.6.5 and F.6.6, with the sweep flag counted with growing angle.
 */
export function arcByCentre<F extends Frame>(arc: EndpointArc<F>): Arc<F> | null {
  const { from, to, turnRad } = arc;
  let rx = Math.abs(arc.radiusX);
  let ry = Math.abs(arc.radiusY);
  if (rx === 0 || ry === 0 || (from.x === to.x && from.y === to.y)) return null;
  const c = Math.cos(turnRad);
  const s = Math.sin(turnRad);
  const dx = (from.x - to.x) / 2;
  const dy = (from.y - to.y) / 2;
  const x = c * dx + s * dy;
  const y = c * dy - s * dx;
  const lack = (x / rx) ** 2 + (y / ry) ** 2;
  if (lack > 1) {
    rx *= Math.sqrt(lack);
    ry *= Math.sqrt(lack);
  }
  const under = (rx * ry) ** 2 - (rx * y) ** 2 - (ry * x) ** 2;
  const size = Math.sqrt(Math.max(0, under) / ((rx * y) ** 2 + (ry * x) ** 2));
  const k = arc.isLarge === arc.isCounterClockwise ? -size : size;
  const cx = (k * rx * y) / ry;
  const cy = (-k * ry * x) / rx;
  const startRad = Math.atan2((y - cy) / ry, (x - cx) / rx);
  let sweepRad = angleBetween((x - cx) / rx, (y - cy) / ry, (-x - cx) / rx, (-y - cy) / ry);
  if (arc.isCounterClockwise && sweepRad < 0) sweepRad += 2 * Math.PI;
  if (!arc.isCounterClockwise && sweepRad > 0) sweepRad -= 2 * Math.PI;
  const centre = {
    x: c * cx - s * cy + (from.x + to.x) / 2,
    y: s * cx + c * cy + (from.y + to.y) / 2,
  };
  return { centre, radiusX: rx, radiusY: ry, turnRad, startRad, sweepRad };
}

/** Point of an arc at a parameter angle. */
export function arcPoint<F extends Frame>(arc: Arc<F>, angleRad: number): Point<F> {
  const x = arc.radiusX * Math.cos(angleRad);
  const y = arc.radiusY * Math.sin(angleRad);
  const c = Math.cos(arc.turnRad);
  const s = Math.sin(arc.turnRad);
  return { x: arc.centre.x + c * x - s * y, y: arc.centre.y + s * x + c * y };
}

/** Pieces of at most 30 degrees: the cubic then errs by 4e-7 of the radius. */
const LARGEST_PIECE_RAD = Math.PI / 6;

/**
 * An arc as cubics, with the usual tangent length 4/3 tan(angle/4) on each piece.
 * Source: standard construction; the error of a 30 degree piece is below 4e-7 of the radius, checked in the tests.
 */
export function arcAsCubics<F extends Frame>(arc: Arc<F>): readonly Cubic<F>[] {
  const count = Math.max(1, Math.ceil(Math.abs(arc.sweepRad) / LARGEST_PIECE_RAD - 1e-9));
  const step = arc.sweepRad / count;
  const k = (4 / 3) * Math.tan(step / 4);
  const quarter = Math.PI / 2;
  const tangent = (angle: number): Point<F> => {
    const p = arcPoint(arc, angle + quarter);
    return { x: k * (p.x - arc.centre.x), y: k * (p.y - arc.centre.y) };
  };
  return Array.from({ length: count }, (_, i): Cubic<F> => {
    const a = arc.startRad + i * step;
    const b = a + step;
    const start = arcPoint(arc, a);
    const end = arcPoint(arc, b);
    const out = tangent(a);
    const back = tangent(b);
    return [start, { x: start.x + out.x, y: start.y + out.y }, { x: end.x - back.x, y: end.y - back.y }, end];
  });
}
