import type { GrayImage } from '@/core/scan/gray';
import { grayOf } from '@/formats/image/gray-image';

const STRIP_ROWS = 256;

/** A JPEG by the browser's own decoder, turned to gray a strip at a time: no second copy in colours is held. */
export async function decodeJpeg(file: Blob): Promise<GrayImage> {
  const bitmap = await createImageBitmap(file, { colorSpaceConversion: 'none', premultiplyAlpha: 'none' });
  const { width, height } = bitmap;
  const data = new Uint8Array(width * height);
  const canvas = new OffscreenCanvas(width, Math.min(height, STRIP_ROWS));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  for (let top = 0; top < height; top += STRIP_ROWS) {
    const rows = Math.min(STRIP_ROWS, height - top);
    context.drawImage(bitmap, 0, top, width, rows, 0, 0, width, rows);
    const strip = context.getImageData(0, 0, width, rows).data;
    const out = data.subarray(top * width, (top + rows) * width);
    for (let i = 0, at = 0; i < out.length; i++, at += 4)
      out[i] = grayOf(strip[at] ?? 0, strip[at + 1] ?? 0, strip[at + 2] ?? 0) + 0.5;
  }
  bitmap.close();
  return { width, height, data };
}
