import { expose } from 'comlink';
import { fail, ok, type Result } from '@/core/result';
import { findingFactor } from '@/core/scan/find-discs';
import { reductionOf, type GrayImage, type Reduction } from '@/core/scan/gray';
import { measurePieces } from '@/core/scan/measure-pieces';
import { measureScan } from '@/core/scan/measure-scan';
import { measureTemplateDiscs } from '@/core/scan/measure-template-discs';
import type { DiscResult, ScanFigure } from '@/core/scan/measured-figure';
import type { OtherSheet, ScanProblem, ScanResult } from '@/core/scan/scan-result';
import { cropHalfMm, uprightCrop } from '@/core/scan/upright-crop';
import type { ImageProblem } from '@/formats/image/gray-image';
import { readImage } from '@/formats/image/read-image';
import { decodeJpeg } from './decode-jpeg';
import { pictureOf, previewOf, type PicturePreview } from './picture-of';
import { openPngBeside } from './png.client';

/** What is told while it goes on. */
export type ScanTold =
  | { readonly stage: 'reading'; readonly share: number }
  | { readonly stage: 'read'; readonly preview: PicturePreview }
  | { readonly stage: 'found'; readonly discs: readonly { readonly x: number; readonly y: number }[] }
  | { readonly stage: 'measured'; readonly done: number; readonly of: number; readonly disc: DiscResult };

export interface MeasuredScan {
  readonly result: ScanResult;
  /** Every disc by its key, upright. */
  readonly crops: Readonly<Record<string, Blob>>;
}

/** A whole sheet, pieces cut off a roll in any number, or the small discs of a job's template. */
export type ScanLay = 'sheet' | 'pieces' | 'template';

const MEASURES = { sheet: measureScan, pieces: measurePieces, template: measureTemplateDiscs } as const;

/** What is looked for, and how it lies in the picture. */
export interface ScanSought {
  readonly figures: readonly ScanFigure[];
  readonly lay: ScanLay;
  /** Sheets that the picture may show by mistake. */
  readonly others?: readonly OtherSheet[];
}

export type ScanFailure = ImageProblem | ScanProblem;

const CROP_PX = 420;
/** So often the picture that is being made beside gets its turn. */
const BREATHING_MS = 80;

const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

async function cropsOf(image: GrayImage, { discs }: ScanResult, { figures, lay }: ScanSought) {
  // Pieces have keys of their own, and are all of one size.
  const figureOf = (key: string): ScanFigure | undefined =>
    lay === 'sheet' ? figures.find((f) => f.key === key) : figures[0];
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
    const work = MEASURES[sought.lay](image, sought.figures, reduced.image, sought.others);
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
