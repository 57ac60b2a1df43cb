import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { LARGE_FIGURES } from '../../src/core/simulate/large-figures';
import { seededRng } from '../../src/core/math/random';
import type { SimulatedDisc } from '../../src/core/simulate/disc-shade';
import { renderScan } from '../../src/core/simulate/scan-image';

export const folder = mkdtempSync(join(tmpdir(), 'scan-speed-'));

const LARGEST_PX = 20_000;

function gray(dotsPerInch: number): { readonly data: Buffer; readonly width: number; readonly height: number } {
  const discs = LARGE_FIGURES.map((figure): SimulatedDisc => ({
    ...figure,
    cutOff: { x: 0.3, y: -0.2 },
    fate: 'whole',
  }));
  const options = { dotsPerInch, widthMm: 210, lengthMm: 297, turnRad: 0.01 };
  const { data, width, height } = renderScan(discs, options, seededRng(3));
  return { data: Buffer.from(data.buffer), width, height };
}

const open = ({ data, width, height }: ReturnType<typeof gray>): Sharp =>
  sharp(data, { raw: { width, height, channels: 1 }, limitInputPixels: false });

/** A4 at a resolution as scanners' programs write it: PNG with a filter chosen for every row, packed at the usual level 6. */
export async function writeScan(dotsPerInch: number, kind: 'gray' | 'colour' = 'gray'): Promise<string> {
  const path = join(folder, `a4-${dotsPerInch}-${kind}.png`);
  await open(gray(dotsPerInch))
    .toColourspace(kind === 'gray' ? 'b-w' : 'srgb')
    .png({ adaptiveFiltering: true, compressionLevel: 6 })
    .toFile(path);
  return path;
}

/** The same sheet at 1200 dpi in one corner of a picture of 400 million pixels. */
export async function writeLargest(): Promise<string> {
  const path = join(folder, 'largest.png');
  const scan = gray(1200);
  await open(scan)
    .extend({ right: LARGEST_PX - scan.width, bottom: LARGEST_PX - scan.height, background: '#e8e8e8' })
    .toColourspace('b-w')
    .png({ compressionLevel: 1 })
    .toFile(path);
  return path;
}
