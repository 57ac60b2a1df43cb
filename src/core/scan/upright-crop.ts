import type { FigureShape } from './disc-measure';
import type { GrayImage } from './gray';
import { brightnessIn, type LocalView } from './local-view';

const CROP_RADII = 1.75;
const ROUND_PIECE_MM = 2.4;

/** As much round a figure's middle as its picture shows, mm: its ring of dots, or the whole of a piece and some card. */
export const cropHalfMm = ({ radiusMm, cutShape, cutRadiusMm }: FigureShape): number =>
  cutShape === 'edge' ? cutRadiusMm + ROUND_PIECE_MM : CROP_RADII * radiusMm;

/**
 * A figure cut out of a picture as the sheet shows it: its right to the right, its up upwards, whatever way it lay.
 * @param halfMm half of its width and height. @param sizePx its width and height.
 */
export function uprightCrop(image: GrayImage, view: LocalView, halfMm: number, sizePx: number): GrayImage {
  const data = new Uint8Array(sizePx * sizePx);
  const mmPerPx = (2 * halfMm) / sizePx;
  for (let row = 0; row < sizePx; row++)
    for (let column = 0; column < sizePx; column++) {
      const x = (column + 0.5) * mmPerPx - halfMm;
      const y = halfMm - (row + 0.5) * mmPerPx;
      data[row * sizePx + column] = brightnessIn(image, view, x, y) + 0.5;
    }
  return { width: sizePx, height: sizePx, data };
}
