import type { Point } from '../geometry/affine';
import { brightnessAt, type GrayImage, type Pixel } from './gray';

/** Where a place of the sheet near one figure lies in the picture: its middle, and one mm to the sheet's right and up. */
export interface LocalView {
  readonly centre: Pixel;
  readonly right: Pixel;
  readonly up: Pixel;
}

/** Pixels a mm, the finer of the two directions. */
export const pixelsPerMm = ({ right, up }: LocalView): number =>
  Math.max(Math.hypot(right.x, right.y), Math.hypot(up.x, up.y));

/** Pixels a mm, between the two directions: what a scanner calls its resolution. */
export const meanPixelsPerMm = ({ right, up }: LocalView): number =>
  Math.sqrt(Math.abs(right.x * up.y - right.y * up.x));

/** Where a place told in a view's mm is seen. */
export const fromView = ({ centre, right, up }: LocalView, { x, y }: Point): Pixel => ({
  x: centre.x + x * right.x + y * up.x,
  y: centre.y + x * right.y + y * up.y,
});

/** A place of a local view told in its mm. */
export function inView({ centre, right, up }: LocalView, p: Pixel): Point {
  const determinant = right.x * up.y - right.y * up.x;
  const [dx, dy] = [p.x - centre.x, p.y - centre.y];
  return { x: (dx * up.y - dy * up.x) / determinant, y: (dy * right.x - dx * right.y) / determinant };
}

/** Brightness at a place told in a view's mm; two numbers, because this is asked millions of times. */
export const brightnessIn = (image: GrayImage, { centre, right, up }: LocalView, x: number, y: number): number =>
  brightnessAt(image, centre.x + x * right.x + y * up.x, centre.y + x * right.y + y * up.y);

/** The picture's way down in the sheet frame, of length one. */
export function downOf(view: LocalView): Point {
  const { x, y } = inView(view, { x: view.centre.x, y: view.centre.y + 1 });
  const length = Math.hypot(x, y);
  return { x: x / length, y: y / length };
}
