import { expose } from 'comlink';
import { fail, ok, type Result } from '@/core/result';
import { findingFactor } from '@/core/scan/find-discs';
import { reducedBy, reductionOf, type GrayImage, type Reduction } from '@/core/scan/gray';
import { measurePieces } from '@/core/scan/measure-pieces';
import { measureScan } from '@/core/scan/measure-scan';
import type { DiscResult, ScanFigure } from '@/core/scan/measured-figure';
import type { ScanProblem, ScanResult } from '@/core/scan/scan-result';
import { cropHalfMm, uprightCrop } from '@/core/scan/upright-crop';
import type { ImageProblem } from '@/formats/image/gray-image';
import { readImage } from '@/formats/image/read-image';
import { decodeJpeg } from './decode-jpeg';
import { openPngBeside } from './png.client';

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

/** A whole sheet, or pieces cut off a roll, in any number. */
export type ScanLay = 'sheet' | 'pieces';

const MEASURES = { sheet: measureScan, pieces: measurePieces } as const;

/** What is looked for, and how it lies in the picture. */
export interface ScanSought {
  readonly figures: readonly ScanFigure[];
  readonly lay: ScanLay;
}

export type ScanFailure = ImageProblem | ScanProblem;

const CROP_PX = 420;
const PREVIEW_PX = 1500;
/** So often the picture that is being made beside gets its turn. */
const BREATHING_MS = 80;

const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

async function pictureOf({ width, height, data }: GrayImage, type: 'image/jpeg' | 'image/png'): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no canvas');
  const pixels = new ImageData(width, height);
  // A pixel at a time: three equal colours that cover wholly.
  const words = new Uint32Array(pixels.data.buffer);
  for (let i = 0; i < words.length; i++) words[i] = 0xff000000 | ((data[i] ?? 0) * 0x010101);
  context.putImageData(pixels, 0, 0);
  return canvas.convertToBlob({ type, quality: 0.7 });
}

/** @param small the picture reduced by `factor`: it is reduced further where that is still too large to look at. */
async function previewOf({ image: small, factor }: Reduction): Promise<ScanPreview> {
  const further = Math.max(1, Math.round(Math.max(small.width, small.height) / PREVIEW_PX));
  const { width, height, ...rest } = reducedBy(small, further);
  const blob = await pictureOf({ width, height, ...rest }, 'image/jpeg');
  return { blob, width, height, factor: factor * further };
}

async function cropsOf(image: GrayImage, { discs }: ScanResult, { figures, lay }: ScanSought) {
  // Pieces have keys of their own, and are all of one size.
  const figureOf = (key: string): ScanFigure | undefined =>
    lay === 'pieces' ? figures[0] : figures.find((f) => f.key === key);
  const crops = await Promise.all(
    discs.map(async ({ key, view }): Promise<readonly (readonly [string, Blob])[]> => {
      const figure = figureOf(key);
      if (!view || !figure) return [];
      return [[key, await pictureOf(uprightCrop(image, view, cropHalfMm(figure), CROP_PX), 'image/png')]];
    }),
  );
  return Object.fromEntries(crops.flat());
}

/** Reads and measures one scan off the page's own thread, telling what it has found so far. */
const api = {
  async measure(
    file: Blob,
    sought: ScanSought,
    tell: (told: ScanTold) => void,
  ): Promise<Result<MeasuredScan, ScanFailure>> {
    let kept: Reduction | undefined;
    const reductionFor = (image: GrayImage): Reduction => (kept ??= reductionOf(image, findingFactor(image)));
    const read = await readImage(
      file,
      { decodeJpeg, openPng: openPngBeside },
      {
        onRows: (image, rows) => {
          reductionFor(image).upTo(rows);
          tell({ stage: 'reading', share: rows / image.height });
        },
      },
    );
    if (!read.ok) return read;
    const image = read.value;
    const reduced = reductionFor(image);
    reduced.upTo(image.height);
    const shown = previewOf(reduced).then((preview) => {
      tell({ stage: 'read', preview });
    });
    const work = MEASURES[sought.lay](image, sought.figures, reduced.image);
    let step = work.next();
    for (let since = performance.now(); !step.done; step = work.next()) {
      tell(step.value);
      if (performance.now() - since < BREATHING_MS) continue;
      await breath();
      since = performance.now();
    }
    await shown;
    if (!step.value.ok) return fail(step.value.error);
    const result = step.value.value;
    return ok({ result, crops: await cropsOf(image, result, sought) });
  },
};
export type ScanApi = typeof api;

expose(api);
