import type { Point } from '../geometry/affine';
import type { Rng } from '../math/random';
import type { GrayImage } from '../scan/gray';
import { cameraView, type Camera } from './camera-view';
import { withSensorNoise } from './sensor-noise';

/** A print's outline about its own middle. */
export type PrintShape =
  | { readonly kind: 'rectangle'; readonly widthMm: number; readonly heightMm: number }
  | { readonly kind: 'ellipse'; readonly widthMm: number; readonly heightMm: number }
  /** A wavy round: so many waves, so deep as a share of its radius. */
  | { readonly kind: 'waves'; readonly radiusMm: number; readonly waves: number; readonly share: number };

/** A finished piece: its print, and the cut round it by a border, shifted and turned against it. */
export interface SimulatedPiece {
  readonly print: PrintShape;
  readonly borderMm: number;
  readonly shift: Point;
  readonly turnRad: number;
  /** How round the corners of a rectangle's cut are; the offset of its border where left out. */
  readonly cornerMm?: number;
}

export interface PiecePhoto {
  /** At the piece's middle. */
  readonly dotsPerInch: number;
  /** How the piece lies in the picture, counter-clockwise as it shows it. */
  readonly lyingRad?: number;
  readonly camera?: Camera;
  readonly groundLevel?: number;
  readonly paperLevel?: number;
  readonly inkLevel?: number;
  readonly blurMm?: number;
  readonly noiseLevels?: number;
  /** The light falls off by so much over the picture. */
  readonly fallOff?: number;
  /** Lighter figures inside the print begin so far from its edge, mm; left out: plain ink. */
  readonly patternMm?: number;
  /** Standard deviation of the print's edge, alike over a mm. */
  readonly raggedMm?: number;
}

/** A steady hand in good light: what is not asked otherwise. */
const PLAIN = {
  ...{ lyingRad: 0, camera: { tiltRad: 0, towardsRad: 0, radial: 0 }, groundLevel: 42, paperLevel: 226, inkLevel: 74 },
  ...{ blurMm: 0.05, noiseLevels: 2, fallOff: 0, patternMm: Infinity, raggedMm: 0 },
};

/** Ground round the piece on every side, mm. */
const ROOM_MM = 14;

/** Signed distance to a rectangle's edge with round corners, negative inside. */
function toRectangle({ x, y }: Point, width: number, height: number, corner: number): number {
  const dx = Math.abs(x) - width / 2 + corner;
  const dy = Math.abs(y) - height / 2 + corner;
  return Math.hypot(Math.max(dx, 0), Math.max(dy, 0)) + Math.min(Math.max(dx, dy), 0) - corner;
}

/** To a curve r(angle): exact on it, and to first order beside it. */
function toRound({ x, y }: Point, radiusAt: (angle: number) => number): number {
  const angle = Math.atan2(y, x);
  const step = 1e-4;
  const slope = (radiusAt(angle + step) - radiusAt(angle - step)) / (2 * step);
  const radius = radiusAt(angle);
  return (Math.hypot(x, y) - radius) / Math.hypot(1, slope / radius);
}

/** Signed distance to a print's edge grown by a border. */
function distanceTo(shape: PrintShape, grownMm: number, cornerMm: number, p: Point): number {
  if (shape.kind === 'rectangle')
    return toRectangle(p, shape.widthMm + 2 * grownMm, shape.heightMm + 2 * grownMm, cornerMm);
  if (shape.kind === 'ellipse') {
    const [a, b] = [shape.widthMm / 2, shape.heightMm / 2];
    return toRound(p, (t) => (a * b) / Math.hypot(b * Math.cos(t), a * Math.sin(t))) - grownMm;
  }
  const { radiusMm, waves, share } = shape;
  return toRound(p, (t) => radiusMm * (1 + share * Math.cos(waves * t))) - grownMm;
}

const sizeOf = (shape: PrintShape): { readonly widthMm: number; readonly heightMm: number } =>
  shape.kind === 'waves'
    ? { widthMm: 2 * shape.radiusMm * (1 + shape.share), heightMm: 2 * shape.radiusMm * (1 + shape.share) }
    : shape;

/** Share of a pixel on the far side of an edge that is blurred. */
const beyond = (distanceMm: number, blurMm: number): number => {
  const t = Math.min(1, Math.max(0, 0.5 + distanceMm / (4 * blurMm)));
  return t * t * (3 - 2 * t);
};

/** A photograph of a finished piece that lies on a dark ground; a stand-in for a camera. */
export function renderPiece(piece: SimulatedPiece, photo: PiecePhoto, rng: Rng): GrayImage {
  const { print, borderMm, shift, turnRad, cornerMm = borderMm } = piece;
  const { dotsPerInch, lyingRad, camera, groundLevel, paperLevel, inkLevel, blurMm } = { ...PLAIN, ...photo };
  const { noiseLevels, fallOff, patternMm, raggedMm } = { ...PLAIN, ...photo };
  const { widthMm, heightMm } = sizeOf(print);
  const room = { widthMm: widthMm + 2 * ROOM_MM, lengthMm: heightMm + 2 * ROOM_MM };
  const { width, height, toSheet } = cameraView({ dotsPerInch, turnRad: lyingRad, ...room }, camera);
  const phase = Array.from({ length: 4 }, () => 2 * Math.PI * rng());
  const ragged = (p: Point): number =>
    raggedMm * Math.SQRT1_2 * (Math.sin(3.1 * p.x + phase[0]!) + Math.sin(2.7 * p.y + phase[1]!));
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  const levelAt = (p: Point): number => {
    const q = { x: p.x - shift.x, y: p.y - shift.y };
    const fromCut = distanceTo(print, borderMm, cornerMm, { x: cos * q.x + sin * q.y, y: cos * q.y - sin * q.x });
    if (fromCut > 4 * blurMm) return groundLevel;
    const fromPrint = distanceTo(print, 0, 0, p) + ragged(p);
    const deep = -fromPrint > patternMm;
    const ink = deep
      ? inkLevel + 60 * (1 + Math.sin(p.x / 1.3 + phase[2]!) * Math.sin(p.y / 1.7 + phase[3]!))
      : inkLevel;
    const inside = ink + (paperLevel - ink) * beyond(fromPrint, blurMm);
    return inside + (groundLevel - inside) * beyond(fromCut, blurMm);
  };
  const levels = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const light = 1 - fallOff * ((x / width + y / height) / 2);
      levels[y * width + x] = light * levelAt(toSheet(x + 0.5, y + 0.5));
    }
  return { width, height, data: withSensorNoise({ width, height, levels }, noiseLevels, rng) };
}
