import type { GrayImage } from './gray';

/** Levels that tell ink from what it is printed on, for every block of a reduced picture. */
export interface DarkLevels {
  readonly blockPx: number;
  readonly columns: number;
  readonly rows: number;
  /** Brightness half way from black to the white thereabouts, per block. */
  readonly thresholds: Float64Array;
  readonly blackLevel: number;
  readonly whiteLevel: number;
}

const BLOCKS_ACROSS = 20;
const WHITE_SHARE = 0.8;
/** A block darker than this share of the picture's white holds no white at all: a dark card, not a shaded sheet. */
const LEAST_WHITE = 0.4;

/** The level below which a share of the counted pixels lies. */
function levelAt(histogram: Uint32Array, count: number, share: number): number {
  let seen = 0;
  for (let level = 0; level < 256; level++) {
    seen += histogram[level]!;
    if (seen > share * count) return level;
  }
  return 255;
}

function histogramOf(image: GrayImage, x0: number, y0: number, blockPx: number): readonly [Uint32Array, number] {
  const histogram = new Uint32Array(256);
  const x1 = Math.min(image.width, x0 + blockPx);
  const y1 = Math.min(image.height, y0 + blockPx);
  for (let y = y0; y < y1; y++)
    for (let x = x0, at = y * image.width + x0; x < x1; x++, at++) histogram[image.data[at]!]! += 1;
  return [histogram, Math.max(0, x1 - x0) * Math.max(0, y1 - y0)];
}

/**
 * Where ink begins to be dark: half way between the picture's black and the white of a block and its neighbours (80th
 * percentile, then the highest of three by three), so that a shaded or yellowed sheet is told from its ink everywhere.
 */
export function darkLevels(image: GrayImage): DarkLevels {
  const blockPx = Math.max(8, Math.ceil(Math.max(image.width, image.height) / BLOCKS_ACROSS));
  const columns = Math.ceil(image.width / blockPx);
  const rows = Math.ceil(image.height / blockPx);
  const whites = new Float64Array(columns * rows);
  const all = new Uint32Array(256);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [histogram, count] = histogramOf(image, column * blockPx, row * blockPx, blockPx);
      histogram.forEach((n, level) => (all[level]! += n));
      whites[row * columns + column] = levelAt(histogram, count, WHITE_SHARE);
    }
  const count = image.width * image.height;
  const blackLevel = levelAt(all, count, 0.005);
  const whiteLevel = levelAt(all, count, 0.98);
  const thresholds = new Float64Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      let white = LEAST_WHITE * whiteLevel;
      for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++)
        for (let c = Math.max(0, column - 1); c <= Math.min(columns - 1, column + 1); c++)
          white = Math.max(white, whites[r * columns + c]!);
      thresholds[row * columns + column] = (white + blackLevel) / 2;
    }
  return { blockPx, columns, rows, thresholds, blackLevel, whiteLevel };
}

/** The threshold for every pixel of one row: from the middles of the blocks, straight in between. */
export function thresholdRow(levels: DarkLevels, y: number, out: Float64Array): void {
  const { blockPx, columns, rows, thresholds } = levels;
  const v = Math.min(Math.max((y + 0.5) / blockPx - 0.5, 0), rows - 1);
  const upper = Math.floor(v);
  const lower = Math.min(upper + 1, rows - 1);
  for (let x = 0; x < out.length; x++) {
    const u = Math.min(Math.max((x + 0.5) / blockPx - 0.5, 0), columns - 1);
    const left = Math.floor(u);
    const right = Math.min(left + 1, columns - 1);
    const top =
      thresholds[upper * columns + left]! * (1 - u + left) + thresholds[upper * columns + right]! * (u - left);
    const low =
      thresholds[lower * columns + left]! * (1 - u + left) + thresholds[lower * columns + right]! * (u - left);
    out[x] = top + (v - upper) * (low - top);
  }
}
