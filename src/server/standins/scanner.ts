import 'server-only';
import sharp from 'sharp';
import type { TurnDeg } from '@/core/geometry/load';
import { seededRng, standardNormal, type Rng } from '@/core/math/random';
import { brightnessAt, type GrayImage } from '@/core/scan/gray';
import { cameraView } from '@/core/simulate/camera-view';
import { MM_PER_INCH } from '@/core/units/length';
import { glassSvg, gray, type GlassOrder } from './glass';
import type { SheetPicture } from './print-and-cut';

export const SCANNER_DPI = [150, 300, 600] as const;
/** A flatbed scanner, or a camera held over the sheet by hand. */
export const DEVICES = ['scanner', 'camera'] as const;
export type Device = (typeof DEVICES)[number];

export interface ScanOrder extends GlassOrder {
  readonly device: Device;
  readonly dotsPerInch: (typeof SCANNER_DPI)[number];
  /** How the sheet lies on the glass, counter-clockwise as the picture shows it. */
  readonly turnDeg: TurnDeg;
  readonly seed: number;
}

const LID = 246;
const BLUR_MM = 0.035;
const NOISE_LEVELS = 2;
const MARGIN_MM = 6;
/** No sheet is laid down quite straight, degrees. */
const LAID_DOWN_DEG = 0.4;

/** What this scanner makes of a square: longer across its glass, and a little skew. */
const SCANNER_STRETCH = 0.001;
const SCANNER_SKEW_RAD = 0.0005;

/** Sensor noise, and rows that the carriage did not take quite where they should be. */
function roughen({ width, height, data }: GrayImage, order: ScanOrder, rng: Rng): Uint8Array {
  const perMm = order.dotsPerInch / MM_PER_INCH;
  const out = new Uint8Array(data.length);
  const noise = Float32Array.from({ length: 65_536 }, () => NOISE_LEVELS * standardNormal(rng));
  let next = 0;
  for (let y = 0; y < height; y++) {
    const off = 0.005 * perMm * (Math.sin(y / perMm / 4.1) + 0.7 * Math.sin(y / perMm / 9.7 + 1));
    const from = Math.min(Math.max(y + off, 0), height - 1.001);
    const row = Math.floor(from);
    const share = from - row;
    for (let x = 0, at = row * width; x < width; x++, at++) {
      const upper = data[at] ?? 0;
      const level = upper + share * ((data[at + width] ?? upper) - upper) + (noise[next++ & 65_535] ?? 0);
      out[y * width + x] = Math.min(255, Math.max(0, Math.round(level)));
    }
    next += Math.floor(rng() * 65_536);
  }
  return out;
}

const CAMERA = { tiltRad: 0.2, towardsRad: 0.6, radial: 0.03 };
const CAMERA_DPI = 220;
const ROWS_AT_ONCE = 64;

/** The flat picture as a hand-held camera has it; other work goes on between rows. */
async function photographed(flat: GrayImage, { turnDeg, pageMm }: ScanOrder, rng: Rng): Promise<GrayImage> {
  const turnRad = ((turnDeg + 2 * (2 * rng() - 1)) * Math.PI) / 180;
  const { width, height, toSheet } = cameraView({ dotsPerInch: CAMERA_DPI, ...pageMm, turnRad }, CAMERA);
  const data = new Uint8Array(width * height);
  const perMm = flat.width / (pageMm.widthMm + 2 * MARGIN_MM);
  for (let y = 0; y < height; y++) {
    if (y % ROWS_AT_ONCE === 0) await new Promise(setImmediate);
    for (let x = 0; x < width; x++) {
      const p = toSheet(x + 0.5, y + 0.5);
      const level = brightnessAt(flat, flat.width / 2 + p.x * perMm, flat.height / 2 - p.y * perMm);
      data[y * width + x] = Math.min(255, Math.max(0, level + 2 * NOISE_LEVELS * (rng() + rng() - 1)));
    }
  }
  return { width, height, data };
}

const shapeOf = ({ device }: ScanOrder): string =>
  device === 'scanner' ? `matrix(${1 + SCANNER_STRETCH} 0 ${SCANNER_SKEW_RAD} 1 0 0)` : '';

/** The sheet drawn on the glass by an independent renderer. */
async function drawn(picture: SheetPicture, order: ScanOrder, turnDeg: number, rng: Rng): Promise<GrayImage> {
  const { widthMm, lengthMm } = order.pageMm;
  const isAcross = Math.round(turnDeg / 90) % 2 !== 0;
  const [glassX, glassY] = isAcross ? [lengthMm, widthMm] : [widthMm, lengthMm];
  const [w, h] = [glassX + 2 * MARGIN_MM, glassY + 2 * MARGIN_MM];
  const perMm = order.dotsPerInch / MM_PER_INCH;
  const size = { width: Math.round(w * perMm), height: Math.round(h * perMm) };
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="${-w / 2} ${-h / 2} ${w} ${h}">` +
    `<rect x="${-w / 2}" y="${-h / 2}" width="${w}" height="${h}" fill="${gray(LID)}"/>` +
    `<g transform="${shapeOf(order)} rotate(${-turnDeg}) scale(1 -1)">${glassSvg(picture, order, turnDeg, rng)}</g></svg>`;
  const { data, info } = await sharp(Buffer.from(svg), { unlimited: true })
    .flatten({ background: gray(LID) })
    .blur(Math.max(0.3, BLUR_MM * perMm))
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

const rawOf = ({ width, height, data }: GrayImage) => sharp(data, { raw: { width, height, channels: 1 } });

/**
 * A stand-in for a flatbed scanner: the sheet that the stand-in printer and cutter made, weeded and laid face down, drawn
 * by an independent renderer and then made as imperfect as a real scan is; or photographed from the hand.
 * @returns a gray PNG with its resolution in it, or a camera's JPEG.
 */
export async function scanSheet(picture: SheetPicture, order: ScanOrder): Promise<Buffer> {
  const rng = seededRng(order.seed);
  if (order.device === 'camera') {
    const flat = await drawn(picture, { ...order, dotsPerInch: 300 }, 0, rng);
    return rawOf(await photographed(flat, order, rng))
      .jpeg({ quality: 88 })
      .toBuffer();
  }
  const flat = await drawn(picture, order, order.turnDeg + LAID_DOWN_DEG * (2 * rng() - 1), rng);
  return rawOf({ ...flat, data: roughen(flat, order, rng) })
    .png({ compressionLevel: 4 })
    .withMetadata({ density: order.dotsPerInch })
    .toBuffer();
}
