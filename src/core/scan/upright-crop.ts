import type { GrayImage } from './gray';
import { brightnessIn, type LocalView } from './local-view';

/** As much of a disc's surroundings as its picture shows, in its radii. */
export const CROP_RADII = 1.75;

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
