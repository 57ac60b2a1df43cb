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

/** So little of a sheet may be ink: a few thin rings. */
const BLACK_SHARE = 0.0005;

/** Every second pixel of every second row tells how bright a block is. */
const STEP = 2;

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
  let count = 0;
  for (let y = y0; y < y1; y += STEP)
    for (let at = y * image.width + x0, end = at + x1 - x0; at < end; at += STEP, count++)
      histogram[image.data[at]!]! += 1;
  return [histogram, count];
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
  let count = 0;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [histogram, inBlock] = histogramOf(image, column * blockPx, row * blockPx, blockPx);
      for (let level = 0; level < 256; level++) all[level]! += histogram[level]!;
      whites[row * columns + column] = levelAt(histogram, inBlock, WHITE_SHARE);
      count += inBlock;
    }
  const blackLevel = levelAt(all, count, BLACK_SHARE);
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

/**
 * The threshold for every pixel of one row: from the middles of the blocks, straight in between, in whole levels (a pixel
 * below it is dark).
 */
export function thresholdRow({ blockPx, columns, rows, thresholds }: DarkLevels, y: number, out: Uint8Array): void {
  const v = Math.min(Math.max((y + 0.5) / blockPx - 0.5, 0), rows - 1);
  const upper = Math.floor(v);
  const lower = Math.min(upper + 1, rows - 1);
  const atColumn = (column: number): number => {
    const [a, b] = [thresholds[upper * columns + column]!, thresholds[lower * columns + column]!];
    return a + (v - upper) * (b - a);
  };
  for (let column = -1; column < columns; column++) {
    const left = atColumn(Math.max(0, column));
    const right = atColumn(Math.min(columns - 1, column + 1));
    const from = Math.max(0, Math.ceil((column + 0.5) * blockPx - 0.5));
    const to = Math.min(out.length, Math.ceil((column + 1.5) * blockPx - 0.5));
    const rise = (right - left) / blockPx;
    let level = left + ((from + 0.5) / blockPx - 0.5 - column) * (right - left) + 0.5;
    for (let x = from; x < to; x++, level += rise) out[x] = level;
  }
}
