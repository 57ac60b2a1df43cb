import type { GrayImage } from '@/core/scan/gray';
import { fail } from '@/core/result';
import { MOST_FILE_BYTES, problem, tooManyPixels, type ReadImage, type ReadImageOptions } from './gray-image';
import { imageFormatOf } from './image-format';
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

const HEAD_BYTES = 256 * 1024;

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
