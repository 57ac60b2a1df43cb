import { apply, inverseOf, type Affine, type Point } from '../geometry/affine';
import { standardNormal, type Rng } from '../math/random';
import type { GrayImage } from '../scan/gray';
import { placeOf, scannerLens, viewAt } from '../scan/lens';
import { downOf } from '../scan/local-view';
import { cameraView, type Camera, type PictureView } from './camera-view';
import { MM_PER_INCH } from '../units/length';
import { CARD, PAPER, shadeOf, shadeReachMm, type Look, type Shade, type SimulatedDisc } from './disc-shade';
import { withSensorNoise, type Brightness } from './sensor-noise';

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
  readonly inkGainMm?: number;
  readonly lineWidthMm?: number;
  /** How dark the lamp's shadow is inside a hole, 0 to 1. */
  readonly shadow?: number;
  /** Uneven travel of the carriage, mm. */
  readonly wobbleMm?: number;
  /** Photographed instead: how far from straight above, towards which side of the sheet, and the lens' radial term. */
  readonly camera?: Camera;
  readonly specks?: number;
  readonly hairs?: number;
}

type Canvas = PictureView & Brightness;

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
    levels: new Float32Array(width * height),
    toSheet: (x, y) => apply(back, { x, y: y + wobble(y) }),
    lens: scannerLens(toPicture, { width, height }),
  };
}

const canvasOf = (options: ScanOptions): Canvas =>
  options.camera ? blank(cameraView(options, options.camera)) : scannerCanvas(options);

const blank = (view: PictureView): Canvas => ({
  ...view,
  levels: new Float32Array(view.width * view.height),
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

type Direct = (x: number, y: number) => Point;

/** What lies some way on the glass in the piece's own frame: turned and, face down, seen from behind. */
function inOwnFrame(lying: SimulatedDisc['lying']): Direct {
  if (!lying) return (x, y) => ({ x, y });
  const [cos, sin] = [Math.cos(lying.turnRad), Math.sin(lying.turnRad)];
  const side = lying.isMirrored ? -1 : 1;
  return (x, y) => ({ x: side * (cos * x + sin * y), y: cos * y - sin * x });
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

const USUAL = {
  ...{ blurMm: 0.035, raggedMm: 0.01, raggedAlongMm: 0.055, inkGainMm: 0, lineWidthMm: 0.3 },
  ...{ shadow: 0, noiseLevels: 2 },
};

/**
 * A picture of a sheet of coded discs as a flatbed scanner would take it, by formulas: signed distances to ragged edges through
 * a blur, and the scanner's own faults. Its truth is what it was given.
 */
export function renderScan(discs: readonly SimulatedDisc[], options: ScanOptions, rng: Rng): GrayImage {
  const canvas = canvasOf(options);
  const { blurMm, raggedMm, raggedAlongMm, inkGainMm, lineWidthMm, shadow, noiseLevels } = { ...USUAL, ...options };
  canvas.levels.fill(discs.some(({ lying, cutShape }) => lying && cutShape === 'edge') ? CARD : PAPER);
  const travel = downOf(viewAt(canvas.lens, { x: 0, y: 0 }));
  // A pixel takes in its own width.
  const pixelBlurMm = MM_PER_INCH / options.dotsPerInch / Math.sqrt(12);
  const edges = { blurMm: Math.hypot(blurMm, pixelBlurMm), raggedMm, raggedAlongMm, inkGainMm, lineWidthMm };
  const look: Look = { ...edges, shadow, travel, rng };
  for (const disc of discs) {
    const reachMm = shadeReachMm(disc);
    const centre = disc.lying?.at ?? disc.centre;
    const own = inOwnFrame(disc.lying);
    const shade = shadeOf(disc, { ...look, travel: own(travel.x, travel.y) });
    paint(canvas, centre, reachMm, (x, y) => {
      const p = own(x, y);
      return shade(p.x, p.y);
    });
    if (disc.fate !== 'covered') continue;
    const angle = 2 * Math.PI * rng();
    const off = { x: 0.7 * disc.radiusMm * Math.cos(angle), y: 0.7 * disc.radiusMm * Math.sin(angle) };
    paint(canvas, centre, reachMm, (x, y) => (Math.hypot(x - off.x, y - off.y) < 0.8 * disc.radiusMm ? 120 : null));
  }
  litter(canvas, options, rng);
  return { width: canvas.width, height: canvas.height, data: withSensorNoise(canvas, noiseLevels, rng) };
}
