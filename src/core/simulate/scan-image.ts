import { apply, inverseOf, type Affine, type Point } from '../geometry/affine';
import { standardNormal, type Rng } from '../math/random';
import type { GrayImage } from '../scan/gray';
import { placeOf, scannerLens, viewAt } from '../scan/lens';
import { downOf } from '../scan/local-view';
import { cameraView, type Camera, type PictureView } from './camera-view';
import { dotAngles } from '../target/code-book';
import { CODE_DOT_SHARE, CODE_RING_SHARE } from '../target/disc';
import { MM_PER_INCH } from '../units/length';

/** What became of a printed disc and the hole in it. */
export const DISC_FATES = ['whole', 'half-weeded', 'not-weeded', 'torn', 'missing', 'covered'] as const;
export type DiscFate = (typeof DISC_FATES)[number];

export interface SimulatedDisc {
  readonly centre: Point;
  readonly radiusMm: number;
  readonly holeRadiusMm: number;
  readonly codeNo: number;
  /** The cut against the print, mm. */
  readonly cutOff: Point;
  readonly fate: DiscFate;
}

export interface ScanOptions {
  readonly dotsPerInch: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** How the sheet lies on the glass, counter-clockwise as the picture shows it. */
  readonly turnRad?: number;
  readonly isMirrored?: boolean;
  /** The scanner's own scale and skew: what it makes of a mm. */
  readonly scannerScaleX?: number;
  readonly scannerSkewRad?: number;
  readonly blurMm?: number;
  readonly noiseLevels?: number;
  /** Standard deviation of an ink's or a cut's edge, and how far along it the same deviation holds, mm. */
  readonly raggedMm?: number;
  readonly raggedAlongMm?: number;
  /** How dark the lamp's shadow is inside a hole, 0 to 1. */
  readonly shadow?: number;
  /** Uneven travel of the carriage, mm. */
  readonly wobbleMm?: number;
  /** Photographed instead: how far from straight above, towards which side of the sheet, and the lens' radial term. */
  readonly camera?: Camera;
  readonly specks?: number;
  readonly hairs?: number;
}

const PAPER = 232;
const INK = 38;
const LINER = 210;
const SHADOW_DEPTH_MM = 0.08;

/** An edge's deviation by angle: white noise smoothed along the edge by a bell of the given width. */
function raggedEdge(radiusMm: number, sdMm: number, alongMm: number, rng: Rng): (angle: number) => number {
  const stepMm = 0.02;
  const n = Math.max(64, Math.round((2 * Math.PI * radiusMm) / stepMm));
  const white = Float64Array.from({ length: n }, () => standardNormal(rng));
  const reach = Math.ceil((3 * alongMm) / stepMm);
  const bell = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-(((k - reach) * stepMm) ** 2) / (2 * alongMm ** 2)),
  );
  const norm = sdMm / Math.sqrt(bell.reduce((sum, b) => sum + b * b, 0));
  const values = Float64Array.from({ length: n }, (_, i) => {
    let sum = 0;
    for (let k = -reach; k <= reach; k++) sum += bell[k + reach]! * white[(i + k + n) % n]!;
    return norm * sum;
  });
  return (angle) => {
    const at = ((angle / (2 * Math.PI)) * n + 2 * n) % n;
    const i = Math.floor(at);
    return values[i]! + (at - i) * (values[(i + 1) % n]! - values[i]!);
  };
}

/** Share of a blurred edge's inside at a signed distance (positive inside): the normal distribution, Abramowitz and Stegun 26.2.17, from memory. */
function insideShare(distanceMm: number, blurMm: number): number {
  const z = Math.abs(distanceMm) / blurMm;
  if (z > 5) return distanceMm > 0 ? 1 : 0;
  const t = 1 / (1 + 0.2316419 * z);
  const tail =
    Math.exp((-z * z) / 2) *
    0.3989422804 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return distanceMm > 0 ? 1 - tail : tail;
}

/** Brightness of one figure at a place told from its middle, mm; null where it prints nothing. */
type Shade = (x: number, y: number) => number | null;

interface Look {
  readonly blurMm: number;
  readonly raggedMm: number;
  readonly raggedAlongMm: number;
  readonly shadow: number;
  /** Unit vector of the carriage's travel, sheet frame. */
  readonly travel: Point;
  readonly rng: Rng;
}

function holeShade(
  disc: SimulatedDisc,
  look: Look,
): (x: number, y: number) => { readonly open: number; readonly level: number } {
  const { holeRadiusMm, cutOff, fate } = disc;
  const edge = raggedEdge(holeRadiusMm, look.raggedMm, look.raggedAlongMm, look.rng);
  const halfAt = 2 * Math.PI * look.rng();
  return (px, py) => {
    const [x, y] = [px - cutOff.x, py - cutOff.y];
    const angle = Math.atan2(y, x);
    const depth = holeRadiusMm + edge(angle) - Math.hypot(x, y);
    let open = insideShare(depth, look.blurMm);
    if (fate === 'not-weeded') open = 0;
    if (fate === 'half-weeded') open *= insideShare(x * Math.cos(halfAt) + y * Math.sin(halfAt), look.blurMm);
    const facing = Math.max(0, -(x * look.travel.x + y * look.travel.y) / (Math.hypot(x, y) + 1e-9));
    const level = LINER * (1 - look.shadow * facing * Math.exp(-Math.max(0, depth) / SHADOW_DEPTH_MM));
    return { open, level };
  };
}

function shadeOf(disc: SimulatedDisc, look: Look): Shade {
  const { radiusMm, codeNo, fate } = disc;
  const edge = raggedEdge(radiusMm, look.raggedMm, look.raggedAlongMm, look.rng);
  const hole = holeShade(disc, look);
  const ringMm = radiusMm * CODE_RING_SHARE;
  const dots = dotAngles(codeNo).map((angle) => ({ x: ringMm * Math.cos(angle), y: ringMm * Math.sin(angle) }));
  const dotMm = radiusMm * CODE_DOT_SHARE;
  const torn = { angle: 2 * Math.PI * look.rng(), at: radiusMm * (0.2 + 0.5 * look.rng()) };
  return (x, y) => {
    if (fate === 'missing') return null;
    if (fate === 'torn' && x * Math.cos(torn.angle) + y * Math.sin(torn.angle) > torn.at) return PAPER;
    const r = Math.hypot(x, y);
    if (r > radiusMm + 0.4) {
      const near = dots.reduce((least, dot) => Math.min(least, Math.hypot(x - dot.x, y - dot.y)), Infinity);
      return near > dotMm + 0.4 ? null : PAPER + (INK - PAPER) * insideShare(dotMm - near, look.blurMm);
    }
    const printed = insideShare(radiusMm + edge(Math.atan2(y, x)) - r, look.blurMm);
    const { open, level } = hole(x, y);
    return (PAPER + (INK - PAPER) * printed) * (1 - open) + level * open;
  };
}

interface Canvas extends PictureView {
  readonly levels: Float32Array;
}

function scannerCanvas(options: ScanOptions): Canvas {
  const { dotsPerInch, widthMm, lengthMm, turnRad = 0, isMirrored = false } = options;
  const perMm = dotsPerInch / MM_PER_INCH;
  const [cos, sin] = [Math.cos(turnRad), Math.sin(turnRad)];
  const width = Math.round((Math.abs(widthMm * cos) + Math.abs(lengthMm * sin)) * perMm);
  const height = Math.round((Math.abs(widthMm * sin) + Math.abs(lengthMm * cos)) * perMm);
  const side = isMirrored ? -1 : 1;
  const { scannerScaleX = 1, scannerSkewRad = 0 } = options;
  // Sheet to glass (y up), then the scanner's own scale and skew, then pixels with y down.
  const glass = { xx: cos * side, xy: -sin, yx: sin * side, yy: cos };
  const toPicture: Affine<'sheet', 'picture'> = {
    xx: perMm * (scannerScaleX * glass.xx + scannerSkewRad * glass.yx),
    xy: perMm * (scannerScaleX * glass.xy + scannerSkewRad * glass.yy),
    yx: -perMm * glass.yx,
    yy: -perMm * glass.yy,
    tx: width / 2,
    ty: height / 2,
  };
  const back = inverseOf(toPicture);
  const { wobbleMm = 0 } = options;
  const wobble = (y: number): number =>
    wobbleMm * perMm * (Math.sin(y / perMm / 4.1) + 0.7 * Math.sin(y / perMm / 9.7 + 1));
  return {
    width,
    height,
    levels: new Float32Array(width * height).fill(PAPER),
    toSheet: (x, y) => apply(back, { x, y: y + wobble(y) }),
    lens: scannerLens(toPicture, { width, height }),
  };
}

const canvasOf = (options: ScanOptions): Canvas =>
  options.camera ? blank(cameraView(options, options.camera)) : scannerCanvas(options);

const blank = (view: PictureView): Canvas => ({
  ...view,
  levels: new Float32Array(view.width * view.height).fill(PAPER),
});

function paint({ width, height, levels, toSheet, lens }: Canvas, centre: Point, reachMm: number, shade: Shade): void {
  const middle = placeOf(lens, centre);
  const { right, up } = viewAt(lens, centre);
  // A tenth more than the view says there, for what perspective adds further out.
  const rx = 1.1 * reachMm * Math.hypot(right.x, up.x);
  const ry = 1.1 * reachMm * Math.hypot(right.y, up.y) + 3;
  for (let y = Math.max(0, Math.floor(middle.y - ry)); y < Math.min(height, middle.y + ry); y++)
    for (let x = Math.max(0, Math.floor(middle.x - rx)); x < Math.min(width, middle.x + rx); x++) {
      const p = toSheet(x + 0.5, y + 0.5);
      const level = shade(p.x - centre.x, p.y - centre.y);
      if (level !== null) levels[y * width + x] = level;
    }
}

/** Dust, and hairs that lie across ink and paper alike. */
function litter(canvas: Canvas, { specks = 0, hairs = 0, dotsPerInch }: ScanOptions, rng: Rng): void {
  const perMm = dotsPerInch / MM_PER_INCH;
  const { width, height, levels } = canvas;
  const spot = (cx: number, cy: number, r: number, level: number): void => {
    for (let y = Math.max(0, Math.floor(cy - r)); y < Math.min(height, cy + r); y++)
      for (let x = Math.max(0, Math.floor(cx - r)); x < Math.min(width, cx + r); x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 <= r * r) levels[y * width + x] = level;
  };
  for (let i = 0; i < specks; i++)
    spot(rng() * width, rng() * height, perMm * (0.03 + 0.12 * rng()), rng() < 0.6 ? 60 : 225);
  for (let i = 0; i < hairs; i++) {
    let [x, y, angle] = [rng() * width, rng() * height, 2 * Math.PI * rng()];
    const level = rng() < 0.7 ? 50 : 220;
    for (let step = 0; step < 20 * perMm; step++) {
      spot(x, y, Math.max(0.6, 0.05 * perMm), level);
      x += Math.cos(angle);
      y += Math.sin(angle);
      angle += 0.05 * standardNormal(rng);
    }
  }
}

/**
 * A picture of a sheet of coded discs as a flatbed scanner would take it, by formulas: signed distances to ragged edges through
 * a blur, and the scanner's own faults. Its truth is what it was given.
 */
export function renderScan(discs: readonly SimulatedDisc[], options: ScanOptions, rng: Rng): GrayImage {
  const canvas = canvasOf(options);
  const { blurMm = 0.035, raggedMm = 0.01, raggedAlongMm = 0.055, shadow = 0, noiseLevels = 2 } = options;
  const travel = downOf(viewAt(canvas.lens, { x: 0, y: 0 }));
  // A pixel takes in its own width.
  const pixelBlurMm = MM_PER_INCH / options.dotsPerInch / Math.sqrt(12);
  const look: Look = { blurMm: Math.hypot(blurMm, pixelBlurMm), raggedMm, raggedAlongMm, shadow, travel, rng };
  for (const disc of discs) {
    const reachMm = disc.radiusMm * (CODE_RING_SHARE + CODE_DOT_SHARE) + 0.6;
    paint(canvas, disc.centre, reachMm, shadeOf(disc, look));
    if (disc.fate !== 'covered') continue;
    const angle = 2 * Math.PI * rng();
    const off = { x: 0.7 * disc.radiusMm * Math.cos(angle), y: 0.7 * disc.radiusMm * Math.sin(angle) };
    paint(canvas, disc.centre, reachMm, (x, y) =>
      Math.hypot(x - off.x, y - off.y) < 0.8 * disc.radiusMm ? 120 : null,
    );
  }
  litter(canvas, options, rng);
  const data = new Uint8Array(canvas.levels.length);
  const noise = Float32Array.from({ length: NOISE_LENGTH }, () => noiseLevels * standardNormal(rng));
  for (let i = 0, next = 0; i < data.length; i++, next++) {
    // Every row begins at another place of the same long list.
    if (i % canvas.width === 0) next = Math.floor(rng() * NOISE_LENGTH);
    data[i] = Math.min(255, Math.max(0, Math.round(canvas.levels[i]! + noise[next % NOISE_LENGTH]!)));
  }
  return { width: canvas.width, height: canvas.height, data };
}

const NOISE_LENGTH = 65_536;
