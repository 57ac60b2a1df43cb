/**
 * A gray picture, a byte a pixel, row by row from the top: 0 black, 255 white. Pixel (x, y) covers the square from (x, y) to
 * (x + 1, y + 1), y down: its middle is at (x + 0.5, y + 0.5).
 */
export interface GrayImage {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** A place in a picture, in pixels from its upper left corner, y down. */
export interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** Brightness at a place between pixels, by the four around it; outside the picture the nearest pixel's. */
export function brightnessAt({ width, height, data }: GrayImage, x: number, y: number): number {
  const px = Math.min(Math.max(x - 0.5, 0), width - 1);
  const py = Math.min(Math.max(y - 0.5, 0), height - 1);
  const x0 = px | 0;
  const y0 = py | 0;
  const fx = px - x0;
  const fy = py - y0;
  const at = y0 * width + x0;
  const right = x0 + 1 < width ? 1 : 0;
  const below = y0 + 1 < height ? width : 0;
  const upper = data[at]! + fx * (data[at + right]! - data[at]!);
  const lower = data[at + below]! + fx * (data[at + below + right]! - data[at + below]!);
  return upper + fy * (lower - upper);
}

/** From this factor on every second row is enough for looking and finding. */
const SPARSE_FROM = 4;

/**
 * Mean of every whole block of factor x factor pixels (of every second row of it where the factor is 4 or more): what is
 * left over at the right and below is dropped.
 */
export function reducedBy(image: GrayImage, factor: number): GrayImage {
  if (factor === 1) return image;
  const width = Math.floor(image.width / factor);
  const height = Math.floor(image.height / factor);
  const data = new Uint8Array(width * height);
  const sums = new Uint32Array(width);
  const step = factor >= SPARSE_FROM ? 2 : 1;
  const scale = 1 / (factor * Math.ceil(factor / step));
  for (let row = 0; row < height; row++) {
    sums.fill(0);
    for (let k = 0; k < factor; k += step) addBlocks(image, row * factor + k, factor, sums);
    for (let i = 0; i < width; i++) data[row * width + i] = sums[i]! * scale + 0.5;
  }
  return { width, height, data };
}

/** Adds one row's pixels to the sums of their blocks. */
function addBlocks({ width, data }: GrayImage, row: number, factor: number, sums: Uint32Array): void {
  let at = row * width;
  for (let i = 0; i < sums.length; i++) {
    let sum = 0;
    for (let k = 0; k < factor; k++) sum += data[at++]!;
    sums[i]! += sum;
  }
}
