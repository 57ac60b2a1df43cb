import type { GrayImage } from '@/core/scan/gray';
import { fail, type Result } from '@/core/result';

export const IMAGE_FORMATS = ['png', 'jpeg', 'tiff'] as const;
export type ImageFormat = (typeof IMAGE_FORMATS)[number];

/** Why a picture was not read: words for the operator, and what to do. */
export interface ImageProblem {
  readonly kind: 'not-a-picture' | 'too-large' | 'damaged' | 'not-supported';
  readonly words: string;
}

/** PNG and TIFF are read a strip at a time; a JPEG is held in colours while it is decoded. */
export const MOST_PIXELS: Readonly<Record<ImageFormat, number>> = { png: 400e6, tiff: 400e6, jpeg: 140e6 };
/** No bytes of a file beyond this are looked at. */
export const MOST_FILE_BYTES = 1.5e9;

export interface ReadImageOptions {
  /** Called with the picture as it comes in, and how many of its rows are there. */
  readonly onRows?: (image: GrayImage, rows: number) => void;
}

export type ReadImage = Result<GrayImage, ImageProblem>;

export const problem = (kind: ImageProblem['kind'], words: string) => fail<ImageProblem>({ kind, words });

export function tooManyPixels(format: ImageFormat, width: number, height: number): ImageProblem | null {
  const most = MOST_PIXELS[format];
  if (width * height <= most) return null;
  return {
    kind: 'too-large',
    words: `The picture is ${width} x ${height} pixels: at most ${most / 1e6} million are read. Scan at 300 dpi.`,
  };
}

/** Brightness of a colour, 0 to 255. Source: ITU-R BT.601 luma weights. */
export const grayOf = (red: number, green: number, blue: number): number => 0.299 * red + 0.587 * green + 0.114 * blue;
