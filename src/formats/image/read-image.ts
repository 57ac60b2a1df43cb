import type { GrayImage } from '@/core/scan/gray';
import { fail } from '@/core/result';
import {
  MOST_FILE_BYTES,
  problem,
  tooManyPixels,
  type ImageFormat,
  type ReadImage,
  type ReadImageOptions,
} from './gray-image';
import { jpegHead } from './jpeg-head';
import { readPng } from './png';
import type { OpenPng } from './png-source';
import { readTiff } from './tiff';

/** Decodes a JPEG whose head was found good: the platform does it. */
export type DecodeJpeg = (file: Blob, width: number, height: number) => Promise<GrayImage>;

/** What a platform lends for reading pictures. */
export interface ImagePlatform {
  readonly decodeJpeg: DecodeJpeg;
  /** Where PNGs are inflated. */
  readonly openPng: OpenPng;
}

const PNG_MAGIC = [0x89, 0x50, 0x4e, 0x47];
const HEAD_BYTES = 256 * 1024;

/** What a file is by its first bytes, whatever it is called. */
export function imageFormatOf(head: Uint8Array): ImageFormat | null {
  const begins = (bytes: readonly number[]): boolean => bytes.every((byte, i) => head[i] === byte);
  if (begins(PNG_MAGIC)) return 'png';
  if (begins([0xff, 0xd8, 0xff])) return 'jpeg';
  const isTiff =
    begins([0x49, 0x49, 0x2a, 0]) ||
    begins([0x4d, 0x4d, 0, 0x2a]) ||
    begins([0x49, 0x49, 0x2b, 0]) ||
    begins([0x4d, 0x4d, 0, 0x2b]);
  return isTiff ? 'tiff' : null;
}

async function readJpeg(file: Blob, head: Uint8Array, decode: DecodeJpeg): Promise<ReadImage> {
  const read = jpegHead(head);
  if (!read.ok) return read;
  const { width, height } = read.value;
  const large = tooManyPixels('jpeg', width, height);
  if (large) return fail(large);
  try {
    return { ok: true, value: await decode(file, width, height) };
  } catch {
    return problem('damaged', 'The JPEG is damaged: it cannot be decoded. Save it again, or scan to PNG.');
  }
}

/**
 * Reads a scan or photograph as gray: PNG and TIFF in strips, JPEG by the platform. Sizes are checked before anything is
 * decoded; nothing is thrown for what is in the file.
 */
export async function readImage(
  file: Blob,
  { decodeJpeg, openPng }: ImagePlatform,
  options: ReadImageOptions = {},
): Promise<ReadImage> {
  if (file.size === 0) return problem('not-a-picture', 'The file is empty.');
  if (file.size > MOST_FILE_BYTES) return problem('too-large', 'The file is larger than 1500 MB. Scan at 300 dpi.');
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  switch (imageFormatOf(head)) {
    case 'png':
      return readPng(file, options, openPng);
    case 'tiff':
      return readTiff(file, options);
    case 'jpeg':
      return readJpeg(file, head, decodeJpeg);
    case null:
      return problem(
        'not-a-picture',
        'The file is no PNG, JPEG or TIFF, whatever its name says. Scan to one of these.',
      );
  }
}
