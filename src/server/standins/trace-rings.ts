import 'server-only';
import sharp from 'sharp';
import type { Point } from '@/core/geometry/affine';
import { MM_PER_INCH } from '@/core/units/length';

/** Resolution at which the stand-in program traces, whatever the picture's own. */
const TRACE_DPI = 150;
const DARK_BELOW = 128;
/** The program's outline offset, as the instructions say. */
const OFFSET_MM = 2;
/** A closed figure this large is a ring; everything else on the sheet is smaller or longer. */
const RING_SIZE_MM = { least: 18, most: 23 } as const;
const OUTLINE_POINTS = 96;

interface Bitmap {
  readonly width: number;
  readonly height: number;
  readonly dark: Uint8Array;
}

async function openPicture(png: Buffer): Promise<Bitmap & { readonly mmPerPx: number }> {
  const { density, width } = await sharp(png).metadata();
  if (!density) throw new Error('the picture does not tell its density');
  const { data, info } = await sharp(png)
    .resize({ width: Math.round((width * TRACE_DPI) / density) })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const dark = new Uint8Array(info.width * info.height);
  for (let i = 0; i < dark.length; i++) dark[i] = (data[i * info.channels] ?? 255) < DARK_BELOW ? 1 : 0;
  // The width in mm is exact; the pixel count is rounded.
  return { width: info.width, height: info.height, dark, mmPerPx: ((width / density) * MM_PER_INCH) / info.width };
}

/** Pixels of each connected dark figure, by flood fill. */
function figuresOf({ width, height, dark }: Bitmap): readonly (readonly number[])[] {
  const seen = new Uint8Array(dark.length);
  const figures: number[][] = [];
  for (let start = 0; start < dark.length; start++) {
    if (!dark[start] || seen[start]) continue;
    const figure: number[] = [];
    const open = [start];
    seen[start] = 1;
    for (let pixel = open.pop(); pixel !== undefined; pixel = open.pop()) {
      figure.push(pixel);
      const x = pixel % width;
      const next = [x > 0 ? pixel - 1 : -1, x < width - 1 ? pixel + 1 : -1, pixel - width, pixel + width];
      for (const n of next) {
        if (n < 0 || n >= width * height || seen[n] || !dark[n]) continue;
        seen[n] = 1;
        open.push(n);
      }
    }
    figures.push(figure);
  }
  return figures;
}

/** Outer outline of a round figure about its middle, moved outward: the farthest pixel in each direction. */
function outlineOf(pixels: readonly Point[], outwardMm: number, pxMm: number): readonly Point[] {
  const x = pixels.reduce((sum, p) => sum + p.x, 0) / pixels.length;
  const y = pixels.reduce((sum, p) => sum + p.y, 0) / pixels.length;
  const farthest = new Float64Array(OUTLINE_POINTS);
  for (const p of pixels) {
    const turn = Math.atan2(p.y - y, p.x - x) / (2 * Math.PI);
    const i = Math.floor((turn + 1) * OUTLINE_POINTS) % OUTLINE_POINTS;
    farthest[i] = Math.max(farthest[i] ?? 0, Math.hypot(p.x - x, p.y - y) + pxMm / 2);
  }
  const outline = Array.from({ length: OUTLINE_POINTS }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / OUTLINE_POINTS;
    const radius = (farthest[i] ?? 0) + outwardMm;
    return { x: x + radius * Math.cos(angle), y: y + radius * Math.sin(angle) };
  });
  return [...outline, outline[0] ?? { x, y }];
}

/**
 * What a program makes that only traces: the outer outline of each closed ring, offset outward by 2 mm. `growthMm` is how
 * much larger or smaller its threshold makes the trace. @returns cut lines in the sheet frame, the picture's middle at 0.
 */
export async function traceRings(
  png: Buffer,
  { growthMm }: { readonly growthMm: number },
): Promise<readonly (readonly Point[])[]> {
  const picture = await openPicture(png);
  const { width, height, mmPerPx } = picture;
  const inMm = (pixel: number): Point => ({
    x: ((pixel % width) + 0.5 - width / 2) * mmPerPx,
    y: (height / 2 - Math.floor(pixel / width) - 0.5) * mmPerPx,
  });
  return figuresOf(picture).flatMap((figure) => {
    const pixels = figure.map(inMm);
    const isRing = (['x', 'y'] as const).every((axis) => {
      const values = pixels.map((p) => p[axis]);
      const size = values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b));
      return size > RING_SIZE_MM.least && size < RING_SIZE_MM.most;
    });
    return isRing ? [outlineOf(pixels, OFFSET_MM + growthMm, mmPerPx)] : [];
  });
}
