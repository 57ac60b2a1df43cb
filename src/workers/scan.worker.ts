import { expose } from 'comlink';
import { fail, ok, type Result } from '@/core/result';
import { reducedBy, type GrayImage } from '@/core/scan/gray';
import {
  measureScan,
  type DiscResult,
  type ScanFigure,
  type ScanProblem,
  type ScanResult,
} from '@/core/scan/measure-scan';
import { CROP_RADII, uprightCrop } from '@/core/scan/upright-crop';
import type { ImageProblem } from '@/formats/image/gray-image';
import { readImage } from '@/formats/image/read-image';
import { decodeJpeg } from './decode-jpeg';

/** A small picture of the whole scan; places in the scan are `factor` times its own. */
export interface ScanPreview {
  readonly blob: Blob;
  readonly width: number;
  readonly height: number;
  readonly factor: number;
}

/** What is told while it goes on. */
export type ScanTold =
  | { readonly stage: 'reading'; readonly share: number }
  | { readonly stage: 'read'; readonly preview: ScanPreview }
  | { readonly stage: 'found'; readonly discs: readonly { readonly x: number; readonly y: number }[] }
  | { readonly stage: 'measured'; readonly done: number; readonly of: number; readonly disc: DiscResult };

export interface MeasuredScan {
  readonly result: ScanResult;
  /** Every disc by its key, upright. */
  readonly crops: Readonly<Record<string, Blob>>;
}

export type ScanFailure = ImageProblem | ScanProblem;

const CROP_PX = 420;
const PREVIEW_PX = 1500;

async function pictureOf({ width, height, data }: GrayImage, type: 'image/jpeg' | 'image/png'): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no canvas');
  const pixels = new ImageData(width, height);
  for (let i = 0, at = 0; i < data.length; i++, at += 4) {
    pixels.data.fill(data[i] ?? 0, at, at + 3);
    pixels.data[at + 3] = 255;
  }
  context.putImageData(pixels, 0, 0);
  return canvas.convertToBlob({ type, quality: 0.7 });
}

async function previewOf(image: GrayImage): Promise<ScanPreview> {
  const factor = Math.max(1, Math.ceil(Math.max(image.width, image.height) / PREVIEW_PX));
  const small = reducedBy(image, factor);
  return { blob: await pictureOf(small, 'image/jpeg'), width: small.width, height: small.height, factor };
}

async function cropsOf(image: GrayImage, { discs }: ScanResult, figures: readonly ScanFigure[]) {
  const crops = await Promise.all(
    discs.map(async ({ key, view }): Promise<readonly [string, Blob]> => {
      const radiusMm = figures.find((f) => f.key === key)?.radiusMm ?? 0;
      return [key, await pictureOf(uprightCrop(image, view, CROP_RADII * radiusMm, CROP_PX), 'image/png')];
    }),
  );
  return Object.fromEntries(crops);
}

/** Reads and measures one scan off the page's own thread, telling what it has found so far. */
const api = {
  async measure(
    file: Blob,
    figures: readonly ScanFigure[],
    tell: (told: ScanTold) => void,
  ): Promise<Result<MeasuredScan, ScanFailure>> {
    const read = await readImage(file, decodeJpeg, {
      onProgress: (share) => {
        tell({ stage: 'reading', share });
      },
    });
    if (!read.ok) return read;
    const image = read.value;
    tell({ stage: 'read', preview: await previewOf(image) });
    const work = measureScan(image, figures);
    let step = work.next();
    while (!step.done) {
      tell(step.value);
      step = work.next();
    }
    if (!step.value.ok) return fail(step.value.error);
    const result = step.value.value;
    return ok({ result, crops: await cropsOf(image, result, figures) });
  },
};
export type ScanApi = typeof api;

expose(api);
