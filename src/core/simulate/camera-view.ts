import type { Point } from '../geometry/affine';
import type { Lens } from '../scan/lens';
import { MM_PER_INCH } from '../units/length';

/** A picture's size, where each of its pixels lies on the sheet, and the same the other way round. */
export interface PictureView {
  readonly width: number;
  readonly height: number;
  readonly toSheet: (x: number, y: number) => Point;
  readonly lens: Lens;
}

/** How far from straight above, towards which side of the picture, and the lens' radial term. */
export interface Camera {
  readonly tiltRad: number;
  readonly towardsRad: number;
  readonly radial: number;
}

interface PhotographedSheet {
  /** At the sheet's middle. */
  readonly dotsPerInch: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly turnRad?: number;
}

/** Distance of the camera over its focal length: a sheet of A4 fills most of the picture. */
const CAMERA_MM = 420;

/**
 * A camera over a flat sheet: the sheet turned about an axis in its plane, seen in perspective, bent by its lens. Pixels
 * are brought back to the sheet by undoing the bend (a few rounds) and the homography.
 */
export function cameraView(sheet: PhotographedSheet, { tiltRad, towardsRad, radial }: Camera): PictureView {
  const { turnRad = 0, widthMm, lengthMm } = sheet;
  const perMm = sheet.dotsPerInch / MM_PER_INCH;
  const reach = 1.12 * Math.hypot(widthMm, lengthMm) * perMm;
  const [width, height] = [Math.round(0.74 * reach), Math.round(0.96 * reach)];
  const [ct, st] = [Math.cos(turnRad), Math.sin(turnRad)];
  const [ca, sa] = [Math.cos(towardsRad), Math.sin(towardsRad)];
  const cosTilt = Math.cos(tiltRad);
  // Turned in its plane, then the part along `towards` foreshortened and moved away.
  const along = [ca * ct + sa * st, -ca * st + sa * ct] as const;
  const beside = [-sa * ct + ca * st, sa * st + ca * ct] as const;
  const row = (k: 0 | 1): { readonly x: number; readonly y: number } => ({
    x: ca * cosTilt * along[k] - sa * beside[k],
    y: sa * cosTilt * along[k] + ca * beside[k],
  });
  const [a, b] = [row(0), row(1)];
  const far = [(Math.sin(tiltRad) * along[0]) / CAMERA_MM, (Math.sin(tiltRad) * along[1]) / CAMERA_MM] as const;
  const middle = { x: width / 2, y: height / 2 };
  const homography = [
    ...[perMm * a.x + middle.x * far[0], perMm * b.x + middle.x * far[1], middle.x],
    ...[-perMm * a.y + middle.y * far[0], -perMm * b.y + middle.y * far[1], middle.y],
    ...[far[0], far[1], 1],
  ];
  const lens: Lens = { homography, radial, middle, halfDiagonalPx: Math.hypot(width, height) / 2 };
  const half2 = lens.halfDiagonalPx ** 2;
  const [h0, h1, h2, h3, h4, h5, h6, h7, h8] = homography as unknown as readonly [
    ...[number, number, number],
    ...[number, number, number],
    ...[number, number, number],
  ];
  const toSheet = (x: number, y: number): Point => {
    const [dx, dy] = [x - middle.x, y - middle.y];
    let bend = 1;
    const radialShare = (radial * (dx * dx + dy * dy)) / half2;
    for (let round = 0, moved = radialShare; round < 12 && Math.abs(moved) > 1e-13; round++) {
      const before = bend;
      bend = 1 + radialShare / (bend * bend);
      moved = bend - before;
    }
    const [u, v] = [middle.x + dx / bend, middle.y + dy / bend];
    // (h0 - u h6) X + (h1 - u h7) Y = u h8 - h2, and so for v.
    const [p, q, r, s] = [h0 - u * h6, h1 - u * h7, h3 - v * h6, h4 - v * h7];
    const [e, f] = [u * h8 - h2, v * h8 - h5];
    const determinant = p * s - q * r;
    return { x: (e * s - q * f) / determinant, y: (p * f - e * r) / determinant };
  };
  return { width, height, toSheet, lens };
}
