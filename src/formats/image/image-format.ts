import type { ImageFormat } from './gray-image';

const PNG_MAGIC = [0x89, 0x50, 0x4e, 0x47];
const JPEG_MAGIC = [0xff, 0xd8, 0xff];
/** Either order of bytes, of the usual kind and of the one for large files. */
const TIFF_MAGIC = [
  [0x49, 0x49, 0x2a, 0],
  [0x4d, 0x4d, 0, 0x2a],
  [0x49, 0x49, 0x2b, 0],
  [0x4d, 0x4d, 0, 0x2b],
];

/** What a file is by its first bytes, whatever it is called. */
export function imageFormatOf(head: Uint8Array): ImageFormat | null {
  const begins = (bytes: readonly number[]): boolean => bytes.every((byte, i) => head[i] === byte);
  if (begins(PNG_MAGIC)) return 'png';
  if (begins(JPEG_MAGIC)) return 'jpeg';
  return TIFF_MAGIC.some(begins) ? 'tiff' : null;
}
