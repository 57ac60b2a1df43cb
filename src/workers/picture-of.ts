import { reducedBy, type GrayImage, type Reduction } from '@/core/scan/gray';

/** A small picture of a whole one; places in the whole are `factor` times its own. */
export interface PicturePreview {
  readonly blob: Blob;
  readonly width: number;
  readonly height: number;
  readonly factor: number;
}

const PREVIEW_PX = 1500;

export async function pictureOf({ width, height, data }: GrayImage, type: 'image/jpeg' | 'image/png'): Promise<Blob> {
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
export async function previewOf({
  image: small,
  factor,
}: Pick<Reduction, 'image' | 'factor'>): Promise<PicturePreview> {
  const further = Math.max(1, Math.round(Math.max(small.width, small.height) / PREVIEW_PX));
  const { width, height, ...rest } = reducedBy(small, further);
  const blob = await pictureOf({ width, height, ...rest }, 'image/jpeg');
  return { blob, width, height, factor: factor * further };
}
