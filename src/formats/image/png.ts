import type { GrayImage } from '@/core/scan/gray';
import { fail, ok, type Result } from '@/core/result';
import { grayOf, problem, tooManyPixels, type ImageProblem, type ReadImage, type ReadImageOptions } from './gray-image';
import { unfilterRow } from './png-filters';

/** Source for all of this: Portable Network Graphics (PNG) Specification, second edition (ISO/IEC 15948). */
const SIGNATURE_BYTES = 8;
const MOST_PALETTE = 256 * 3;

const COLOUR_CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
const DEPTHS: Readonly<Record<number, readonly number[]>> = {
  0: [1, 2, 4, 8, 16],
  2: [8, 16],
  3: [1, 2, 4, 8],
  4: [8, 16],
  6: [8, 16],
};

interface PngHead {
  readonly width: number;
  readonly height: number;
  readonly depth: number;
  readonly colour: number;
}

const DAMAGED = 'The PNG is damaged or was not copied whole. Save it again.';

function headOf(data: Uint8Array): Result<PngHead, ImageProblem> {
  if (data.length !== 13) return problem('damaged', DAMAGED);
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const head = { width: view.getUint32(0), height: view.getUint32(4), depth: data[8] ?? 0, colour: data[9] ?? 0 };
  if (head.width === 0 || head.height === 0 || !DEPTHS[head.colour]?.includes(head.depth))
    return problem('damaged', DAMAGED);
  if (data[12] !== 0) return problem('not-supported', 'The PNG is interlaced. Save it without interlacing.');
  const large = tooManyPixels('png', head.width, head.height);
  return large ? fail(large) : ok(head);
}

/** Pieces of a file's stream given out in the lengths asked for. */
class Bytes {
  private held: Uint8Array = new Uint8Array(0);
  constructor(private readonly reader: ReadableStreamDefaultReader<Uint8Array>) {}

  /** The next piece, at most so long; null at the end. */
  async upTo(most: number): Promise<Uint8Array | null> {
    while (this.held.length === 0) {
      const { done, value } = await this.reader.read();
      if (done) return null;
      this.held = value;
    }
    const piece = this.held.subarray(0, most);
    this.held = this.held.subarray(piece.length);
    return piece;
  }

  async exactly(length: number): Promise<Uint8Array | null> {
    const out = new Uint8Array(length);
    for (let at = 0; at < length;) {
      const piece = await this.upTo(length - at);
      if (!piece) return null;
      out.set(piece, at);
      at += piece.length;
    }
    return out;
  }

  async skip(length: number): Promise<boolean> {
    for (let left = length; left > 0;) {
      const piece = await this.upTo(left);
      if (!piece) return false;
      left -= piece.length;
    }
    return true;
  }

  close(): Promise<void> {
    return this.reader.cancel();
  }
}

interface Chunk {
  readonly type: string;
  readonly length: number;
}

async function nextChunk(bytes: Bytes): Promise<Chunk | null> {
  const head = await bytes.exactly(8);
  if (!head) return null;
  const length = new DataView(head.buffer).getUint32(0);
  return { type: String.fromCharCode(...head.subarray(4)), length };
}

/** Rows as they come out of the inflater, turned into gray. */
interface Rows {
  readonly head: PngHead;
  readonly take: (piece: Uint8Array) => void;
  readonly rowsDone: () => number;
  readonly data: Uint8Array;
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

function rowsOf(head: PngHead, palette: Uint8Array, onProgress: (share: number) => void): Rows {
  const { width, height, depth, colour } = head;
  const bits = (COLOUR_CHANNELS[colour] ?? 1) * depth;
  const rowBytes = Math.ceil((width * bits) / 8);
  const back = Math.max(1, bits >> 3);
  const data = new Uint8Array(width * height);
  const toGray = grayer(head, palette);
  let row = new Uint8Array(rowBytes + 1);
  let above = new Uint8Array(rowBytes + 1);
  let filled = 0;
  let done = 0;
  return {
    head,
    data,
    rowsDone: () => done,
    take: (piece) => {
      for (let at = 0; at < piece.length && done < height;) {
        const part = piece.subarray(at, at + row.length - filled);
        row.set(part, filled);
        filled += part.length;
        at += part.length;
        if (filled < row.length) return;
        if (!unfilterRow(row, above, back)) throw new Error(DAMAGED);
        toGray(row.subarray(1), data.subarray(done * width, (done + 1) * width));
        [row, above] = [above, row];
        filled = 0;
        done += 1;
        if (done % 256 === 0) onProgress(done / height);
      }
    },
  };
}

/** Feeds the image's chunks to the inflater until they end. @returns false when the file breaks off. */
async function feed(bytes: Bytes, first: Chunk, writer: WritableStreamDefaultWriter<BufferSource>): Promise<boolean> {
  let chunk: Chunk | null = first;
  while (chunk?.type === 'IDAT') {
    for (let left = chunk.length; left > 0;) {
      const piece: Uint8Array | null = await bytes.upTo(left);
      if (!piece) {
        await writer.abort();
        return false;
      }
      left -= piece.length;
      await writer.write(piece as Uint8Array<ArrayBuffer>);
    }
    if (!(await bytes.skip(4))) break;
    chunk = await nextChunk(bytes);
  }
  await writer.close();
  return true;
}

/** Inflates and turns to gray row by row; stops as soon as all rows are there, whatever follows. */
async function inflate(bytes: Bytes, first: Chunk, rows: Rows): Promise<boolean> {
  const inflater = new DecompressionStream('deflate');
  const fed = feed(bytes, first, inflater.writable.getWriter()).catch(() => false);
  const reader = inflater.readable.getReader();
  try {
    while (rows.rowsDone() < rows.head.height) {
      const { done, value } = await reader.read();
      if (done) break;
      rows.take(value);
    }
  } catch {
    return false;
  } finally {
    await reader.cancel().catch(() => undefined);
    await bytes.close().catch(() => undefined);
    await fed;
  }
  return rows.rowsDone() === rows.head.height;
}

interface BeforeImage {
  readonly head: PngHead;
  readonly palette: Uint8Array;
  readonly first: Chunk;
}

/** The whole data of a small chunk, its check sum passed over; null when the file breaks off. */
async function dataOf(bytes: Bytes, { length }: Chunk): Promise<Uint8Array | null> {
  const data = await bytes.exactly(length);
  return data && (await bytes.skip(4)) ? data : null;
}

const isKept = ({ type, length }: Chunk): boolean =>
  (type === 'IHDR' && length === 13) || (type === 'PLTE' && length <= MOST_PALETTE);

/** Head and palette, up to the first chunk of the image; null when the file breaks off before it. */
async function beforeImage(bytes: Bytes): Promise<Result<BeforeImage, ImageProblem> | null> {
  await bytes.skip(SIGNATURE_BYTES);
  const kept = new Map<string, Uint8Array>();
  let chunk = await nextChunk(bytes);
  while (chunk && chunk.type !== 'IDAT') {
    if (isKept(chunk)) {
      const data = await dataOf(bytes, chunk);
      if (!data) return null;
      kept.set(chunk.type, data);
    } else if (!(await bytes.skip(chunk.length + 4))) return null;
    chunk = await nextChunk(bytes);
  }
  const data = kept.get('IHDR');
  if (!chunk || !data) return null;
  const head = headOf(data);
  return head.ok ? ok({ head: head.value, palette: kept.get('PLTE') ?? new Uint8Array(0), first: chunk }) : head;
}

/** Reads a PNG of any kind but interlaced, inflating it as it comes in: no more than the gray picture is held. */
export async function readPng(file: Blob, { onProgress = () => undefined }: ReadImageOptions): Promise<ReadImage> {
  const bytes = new Bytes(file.stream().getReader());
  const before = (await beforeImage(bytes)) ?? problem('damaged', DAMAGED);
  if (!before.ok) {
    await bytes.close();
    return before;
  }
  const { head, palette, first } = before.value;
  const rows = rowsOf(head, palette, onProgress);
  if (!(await inflate(bytes, first, rows))) return problem('damaged', DAMAGED);
  const image: GrayImage = { width: head.width, height: head.height, data: rows.data };
  return ok(image);
}
