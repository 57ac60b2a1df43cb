import { ok, type Result } from '@/core/result';
import { problem, type ImageProblem } from './gray-image';

export interface JpegHead {
  readonly width: number;
  readonly height: number;
}

const isFrame = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

/** Size and colours of a JPEG from its frame header. Source: ITU-T T.81, B.2.2. */
export function jpegHead(bytes: Uint8Array): Result<JpegHead, ImageProblem> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 2;
  while (at + 9 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    if (isFrame(marker)) return frameOf(view, at);
    at += 2 + view.getUint16(at + 2);
  }
  return problem('damaged', 'The JPEG breaks off before its size is stated. Save it again, or scan to PNG.');
}

function frameOf(view: DataView, at: number): Result<JpegHead, ImageProblem> {
  const [precision, components] = [view.getUint8(at + 4), view.getUint8(at + 9)];
  if (components === 4) return problem('not-supported', 'The JPEG holds printing inks (CMYK). Save it in gray or RGB.');
  if (precision !== 8) return problem('not-supported', `The JPEG has ${precision} bits a colour. Save it with 8.`);
  const [height, width] = [view.getUint16(at + 5), view.getUint16(at + 7)];
  if (width === 0 || height === 0) return problem('damaged', 'The JPEG states no size. Save it again, or scan to PNG.');
  return ok({ width, height });
}
