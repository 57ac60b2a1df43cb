import 'server-only';
import sharp from 'sharp';
import { POINTS_PER_INCH } from '@/core/units/length';
import { writeSvg } from '@/formats/svg/write-svg';
import type { VectorDrawing } from '@/formats/vector-drawing';

/** Resolution of the pictures we give out: four dots of a 2400 dpi printer, 42 um. */
export const PICTURE_DPI = 600;

/**
 * PNG of a drawing, gray on white, at exact size: the density is stored, so that a program which heeds it has the true
 * width, and the size printed on the border serves one that does not. Edges lie within half a pixel.
 */
export async function writePng(drawing: VectorDrawing, dpi: number = PICTURE_DPI): Promise<Buffer> {
  // The renderer takes plain numbers as points at this density; a width in mm it would scale twice.
  const svg = writeSvg(drawing, { unitsPerInch: POINTS_PER_INCH }).replace(
    /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d.]+) ([\d.]+)"/,
    'width="$3" height="$4" viewBox="0 0 $3 $4"',
  );
  return sharp(Buffer.from(svg), { density: dpi })
    .flatten({ background: '#ffffff' })
    .greyscale()
    .withMetadata({ density: dpi })
    .png({ compressionLevel: 9 })
    .toBuffer();
}
