import 'server-only';
import sharp from 'sharp';
import { fail, ok, type Result } from '@/core/result';
import type { VectorImage } from '@/formats/vector-drawing';

/** A picture larger than this is not taken: it would not fit a print file. */
export const MOST_PICTURE_PIXELS = 100_000_000;

export interface PictureFacts {
  readonly format: 'png' | 'jpeg';
  /** As it is shown: turned as its camera says. */
  readonly widthPx: number;
  readonly heightPx: number;
}

const REFUSED = 'The picture could not be read: save it anew as PNG or JPEG.';

/** What a picture's head says, before anything of it is unpacked. */
export async function pictureFacts(content: Uint8Array): Promise<Result<PictureFacts, string>> {
  try {
    const {
      format,
      width,
      height,
      orientation = 1,
    } = await sharp(content, { limitInputPixels: MOST_PICTURE_PIXELS }).metadata();
    if (format !== 'png' && format !== 'jpeg') return fail('The file is no PNG and no JPEG.');
    if (width * height > MOST_PICTURE_PIXELS)
      return fail(`The picture has ${width} x ${height} dots; at most 100 million can be printed from here.`);
    const isTurned = orientation >= 5;
    return ok({ format, widthPx: isTurned ? height : width, heightPx: isTurned ? width : height });
  } catch {
    return fail(REFUSED);
  }
}

/**
 * A picture as a print file takes it: upright as its camera says, see-through parts white, 8 bits. A plain JPEG keeps its own
 * bytes; everything else becomes a plain PNG. The same picture gives the same bytes.
 */
export async function printablePicture(
  content: Uint8Array,
): Promise<Result<Pick<VectorImage, 'format' | 'content'>, string>> {
  try {
    const image = sharp(content, { limitInputPixels: MOST_PICTURE_PIXELS });
    const { format, orientation = 1, space } = await image.metadata();
    if (format === 'jpeg' && orientation === 1 && space !== 'cmyk') return ok({ format, content });
    const png = await image
      .rotate()
      .flatten({ background: '#ffffff' })
      .toColourspace('srgb')
      .png({ compressionLevel: 9, palette: false })
      .toBuffer();
    return ok({ format: 'png', content: png });
  } catch {
    return fail(REFUSED);
  }
}
