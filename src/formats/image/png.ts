import type { GrayImage } from '@/core/scan/gray';
import { ok } from '@/core/result';
import { grayOf, problem, type ReadImage, type ReadImageOptions } from './gray-image';
import { unfilterRow } from './png-filters';
import { COLOUR_CHANNELS, DAMAGED_PNG, type OpenedPng, type OpenPng, type PngHead } from './png-source';

type RowsHandler = Required<ReadImageOptions>['onRows'];
/** Rows are told of so many at a time. */
const ROWS_TOLD = 256;

/** Rows as they come out of the inflater, turned into gray. */
interface Rows {
  readonly take: (piece: Uint8Array) => void;
  readonly isDone: () => boolean;
  readonly image: GrayImage;
}

/** How one unfiltered row becomes gray. */
type ToGray = (row: Uint8Array, out: Uint8Array) => void;

function grayer({ colour, depth, width }: PngHead, palette: Uint8Array): ToGray {
  const bytes = depth === 16 ? 2 : 1;
  const step = (COLOUR_CHANNELS[colour] ?? 1) * bytes;
  const onWhite = (gray: number, alpha: number): number => 255 + ((gray - 255) * alpha) / 255;
  switch (colour) {
    case 2:
      return (row, out) => {
        for (let x = 0, i = 0; x < width; x++, i += step)
          out[x] = grayOf(row[i] ?? 0, row[i + bytes] ?? 0, row[i + 2 * bytes] ?? 0) + 0.5;
      };
    case 4:
      return (row, out) => {
        for (let x = 0, i = 0; x < width; x++, i += step) out[x] = onWhite(row[i] ?? 0, row[i + bytes] ?? 0) + 0.5;
      };
    case 6:
      return (row, out) => {
        for (let x = 0, i = 0; x < width; x++, i += step) {
          const gray = grayOf(row[i] ?? 0, row[i + bytes] ?? 0, row[i + 2 * bytes] ?? 0);
          out[x] = onWhite(gray, row[i + 3 * bytes] ?? 0) + 0.5;
        }
      };
    default:
      return plain({ depth, width }, colour === 3 ? paletteLevels(palette) : null);
  }
}

const paletteLevels = (palette: Uint8Array): Uint8Array =>
  Uint8Array.from(
    { length: 256 },
    (_, i) => grayOf(palette[3 * i] ?? 0, palette[3 * i + 1] ?? 0, palette[3 * i + 2] ?? 0) + 0.5,
  );

/** Gray or palette of 1 to 16 bits. */
function plain({ depth, width }: Pick<PngHead, 'depth' | 'width'>, levels: Uint8Array | null): ToGray {
  if (depth === 16)
    return (row, out) => {
      for (let x = 0; x < width; x++) out[x] = row[2 * x] ?? 0;
    };
  if (depth === 8)
    return (row, out) => {
      if (!levels) out.set(row.subarray(0, width));
      else for (let x = 0; x < width; x++) out[x] = levels[row[x] ?? 0] ?? 0;
    };
  const perByte = 8 / depth;
  const mask = 2 ** depth - 1;
  return (row, out) => {
    for (let x = 0; x < width; x++) {
      const shift = 8 - depth * ((x % perByte) + 1);
      const value = ((row[Math.floor(x / perByte)] ?? 0) >> shift) & mask;
      out[x] = levels ? (levels[value] ?? 0) : (value * 255) / mask;
    }
  };
}

/** Where rows are put together again, each from its filtered bytes, the filter's number first. */
type TakeRow = (filtered: Uint8Array, no: number) => void;

function rowTaker(head: PngHead, palette: Uint8Array, { width, data }: GrayImage): TakeRow {
  const { depth, colour } = head;
  const bits = (COLOUR_CHANNELS[colour] ?? 1) * depth;
  const back = Math.max(1, bits >> 3);
  const grayRow = (no: number): Uint8Array => data.subarray(no * width, (no + 1) * width);
  const isGrayAsItIs = colour === 0 && depth === 8;
  const toGray = grayer(head, palette);
  let row = new Uint8Array(rowBytesOf(head));
  let above = new Uint8Array(rowBytesOf(head));
  return (filtered, no) => {
    if (isGrayAsItIs) {
      if (!unfilterRow(filtered, no === 0 ? above : grayRow(no - 1), grayRow(no), back)) throw new Error(DAMAGED_PNG);
      return;
    }
    if (!unfilterRow(filtered, above, row, back)) throw new Error(DAMAGED_PNG);
    toGray(row, grayRow(no));
    [row, above] = [above, row];
  };
}

const rowBytesOf = ({ width, depth, colour }: PngHead): number =>
  Math.ceil((width * (COLOUR_CHANNELS[colour] ?? 1) * depth) / 8);

function rowsOf(head: PngHead, palette: Uint8Array, onRows: RowsHandler): Rows {
  const { width, height } = head;
  const image = { width, height, data: new Uint8Array(width * height) };
  const takeRow = rowTaker(head, palette, image);
  /** Begun by one piece and ended by another. */
  const begun = new Uint8Array(rowBytesOf(head) + 1);
  let filled = 0;
  let done = 0;
  const finish = (filtered: Uint8Array): void => {
    takeRow(filtered, done++);
    filled = 0;
    if (done % ROWS_TOLD === 0) onRows(image, done);
  };
  return {
    image,
    isDone: () => done === height,
    take: (piece) => {
      for (let at = 0; at < piece.length && done < height;) {
        const part = piece.subarray(at, at + begun.length - filled);
        at += part.length;
        if (part.length === begun.length) finish(part);
        else {
          begun.set(part, filled);
          filled += part.length;
          if (filled === begun.length) finish(begun);
        }
      }
    },
  };
}

/** Pieces are asked for so many times before the first are there, so that inflating goes on while rows are made of the last. */
const TIMES_AHEAD = 3;

/** Fills all rows; stops as soon as they are there, whatever follows. */
async function fill(rows: Rows, { next }: OpenedPng): Promise<boolean> {
  const coming = Array.from({ length: TIMES_AHEAD }, next);
  try {
    while (!rows.isDone()) {
      const pieces = (await coming.shift()) ?? [];
      if (pieces.length === 0) return false;
      coming.push(next());
      pieces.forEach(rows.take);
    }
    return true;
  } catch {
    return false;
  }
}

/**
 * Reads a PNG of any kind but interlaced, turning it to gray row by row as it is inflated: no more than the gray picture is held.
 * @param open where it is opened and inflated: here, or by a helper beside.
 */
export async function readPng(
  file: Blob,
  { onRows = () => undefined }: ReadImageOptions,
  open: OpenPng,
): Promise<ReadImage> {
  const opened = await open(file);
  if (!opened.ok) return opened;
  const { head, palette, close } = opened.value;
  const rows = rowsOf(head, palette, onRows);
  const isWhole = await fill(rows, opened.value);
  await close();
  return isWhole ? ok(rows.image) : problem('damaged', DAMAGED_PNG);
}
