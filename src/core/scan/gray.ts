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

/** Where a ray begins and how far apart its looks are, pixels. */
export interface RaySteps {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

const isInside = ({ width, height }: GrayImage, x: number, y: number): boolean =>
  x >= 1 && y >= 1 && x < width - 1 && y < height - 1;

/** Brightness at even steps along a ray, into the whole of `out`. */
export function brightnessAlong(image: GrayImage, { x, y, dx, dy }: RaySteps, out: Float64Array): void {
  const count = out.length;
  if (!isInside(image, x, y) || !isInside(image, x + (count - 1) * dx, y + (count - 1) * dy)) {
    for (let i = 0; i < count; i++) out[i] = brightnessAt(image, x + i * dx, y + i * dy);
    return;
  }
  const { width, data } = image;
  for (let i = 0; i < count; i++) {
    const px = x - 0.5 + i * dx;
    const py = y - 0.5 + i * dy;
    const [x0, y0] = [px | 0, py | 0];
    const fx = px - x0;
    const at = y0 * width + x0;
    const upper = data[at]! + fx * (data[at + 1]! - data[at]!);
    const lower = data[at + width]! + fx * (data[at + width + 1]! - data[at + width]!);
    out[i] = upper + (py - y0) * (lower - upper);
  }
}

/** Places of a block that are looked at: evenly spread over it, all of them where it is small. */
const looks = (factor: number, count: number): readonly number[] =>
  Array.from({ length: count }, (_, k) => Math.floor(((k + 0.5) * factor) / count));

/** A picture that is made smaller while its rows come in. */
export interface Reduction {
  readonly factor: number;
  readonly image: GrayImage;
  /** Takes in all whole blocks of the first `rows` rows that were not yet. */
  readonly upTo: (rows: number) => void;
}

/**
 * Every whole block of factor x factor pixels as the mean of eight of them, in two rows of four: enough to be looked at and for
 * finding, and as quick however large the picture is. What is left over at the right and below is dropped.
 */
export function reductionOf(image: GrayImage, factor: number): Reduction {
  const width = Math.floor(image.width / factor);
  const height = Math.floor(image.height / factor);
  const data = new Uint8Array(width * height);
  const [upper = 0, lower = 0] = looks(factor, 2);
  let done = 0;
  return {
    factor,
    image: { width, height, data },
    upTo: (rows) => {
      for (; done < height && (done + 1) * factor <= rows; done++)
        meanOfRows(
          image.data.subarray((done * factor + upper) * image.width),
          image.data.subarray((done * factor + lower) * image.width),
          factor,
          data.subarray(done * width, (done + 1) * width),
        );
    },
  };
}

/** A whole picture made smaller. */
export function reducedBy(image: GrayImage, factor: number): GrayImage {
  if (factor === 1) return image;
  const reduction = reductionOf(image, factor);
  reduction.upTo(image.height);
  return reduction.image;
}

function meanOfRows(upper: Uint8Array, lower: Uint8Array, factor: number, out: Uint8Array): void {
  const [a = 0, b = 0, c = 0, d = 0] = looks(factor, 4);
  for (let i = 0, at = 0; i < out.length; i++, at += factor) {
    const sum = upper[at + a]! + upper[at + b]! + upper[at + c]! + upper[at + d]!;
    out[i] = (sum + lower[at + a]! + lower[at + b]! + lower[at + c]! + lower[at + d]! + 4) >> 3;
  }
}
