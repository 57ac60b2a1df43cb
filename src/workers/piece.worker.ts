import { expose } from 'comlink';
import type { Result } from '@/core/result';
import { fail, ok } from '@/core/result';
import { measurePiece, pieceFactor } from '@/core/piece/measure-piece';
import type { PieceProblem, PieceReading, PieceSought } from '@/core/piece/piece-reading';
import { reducedBy } from '@/core/scan/gray';
import type { ImageProblem } from '@/formats/image/gray-image';
import { readImage } from '@/formats/image/read-image';
import { decodeJpeg } from './decode-jpeg';
import { previewOf, type PicturePreview } from './picture-of';
import { openPngBeside } from './png.client';

/** Told while it goes on: so much is read, and then the picture itself. */
export type PieceTold =
  { readonly stage: 'reading'; readonly share: number } | { readonly stage: 'read'; readonly preview: PicturePreview };

export type PieceFailure = ImageProblem | PieceProblem;

/** Reads a photograph and measures the piece on it, off the page's own thread. */
const api = {
  async measure(
    file: Blob,
    sought: PieceSought,
    tell: (told: PieceTold) => void,
  ): Promise<Result<PieceReading, PieceFailure>> {
    const read = await readImage(
      file,
      { decodeJpeg, openPng: openPngBeside },
      {
        onRows: (image, rows) => {
          tell({ stage: 'reading', share: rows / image.height });
        },
      },
    );
    if (!read.ok) return read;
    const image = read.value;
    const factor = pieceFactor(image);
    const small = reducedBy(image, factor);
    tell({ stage: 'read', preview: await previewOf({ image: small, factor }) });
    const told = measurePiece(image, sought, small);
    return told.ok ? ok(told.value) : fail(told.error);
  },
};
export type PieceApi = typeof api;

expose(api);
