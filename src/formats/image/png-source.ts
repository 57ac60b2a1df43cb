import { fail, ok, type Result } from '@/core/result';
import { problem, tooManyPixels, type ImageProblem } from './gray-image';

/** Source for all of this: Portable Network Graphics (PNG) Specification, second edition (ISO/IEC 15948). */
const SIGNATURE_BYTES = 8;
const MOST_PALETTE = 256 * 3;

/** Inflated data is given out about so many bytes at a time. */
const GATHERED_BYTES = 1 << 20;

/** How many values a pixel of each kind of colour has. */
export const COLOUR_CHANNELS: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
const DEPTHS: Readonly<Record<number, readonly number[]>> = {
  0: [1, 2, 4, 8, 16],
  2: [8, 16],
  3: [1, 2, 4, 8],
  4: [8, 16],
  6: [8, 16],
};

export interface PngHead {
  readonly width: number;
  readonly height: number;
  readonly depth: number;
  readonly colour: number;
}

export const DAMAGED_PNG = 'The PNG is damaged or was not copied whole. Save it again.';

function headOf(data: Uint8Array): Result<PngHead, ImageProblem> {
  if (data.length !== 13) return problem('damaged', DAMAGED_PNG);
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const head = { width: view.getUint32(0), height: view.getUint32(4), depth: data[8] ?? 0, colour: data[9] ?? 0 };
  if (head.width === 0 || head.height === 0 || !DEPTHS[head.colour]?.includes(head.depth))
    return problem('damaged', DAMAGED_PNG);
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

/** So much of the file goes into the inflater at once: what comes out of it is at most a thousand times as long. */
const FED_BYTES = 1 << 16;
/** Check sum of a chunk, then length and name of the next. */
const BETWEEN_BYTES = 12;

/** Takes the image data out of the file's bytes as they come in, from the first image chunk's data on. */
interface ImageData {
  readonly take: (piece: Uint8Array) => Uint8Array<ArrayBuffer>;
  readonly isOver: () => boolean;
}

function imageDataFrom(first: Chunk): ImageData {
  const between = new Uint8Array(BETWEEN_BYTES);
  let left = first.length;
  let held = 0;
  let isOver = false;
  const readBetween = (byte: number): void => {
    between[held++] = byte;
    if (held < BETWEEN_BYTES) return;
    held = 0;
    left = new DataView(between.buffer).getUint32(4);
    isOver = String.fromCharCode(...between.subarray(8)) !== 'IDAT';
  };
  return {
    isOver: () => isOver,
    take: (piece) => {
      const out = new Uint8Array(piece.length);
      let length = 0;
      for (let at = 0; at < piece.length && !isOver;) {
        if (left === 0) readBetween(piece[at++] ?? 0);
        else {
          const part = piece.subarray(at, at + left);
          out.set(part, length);
          length += part.length;
          at += part.length;
          left -= part.length;
        }
      }
      return out.subarray(0, length);
    },
  };
}

/** Feeds the image's data to the inflater until it ends, or the file does. */
async function feed(bytes: Bytes, first: Chunk, writer: WritableStreamDefaultWriter<BufferSource>): Promise<void> {
  const image = imageDataFrom(first);
  for (let piece = await bytes.upTo(FED_BYTES); piece && !image.isOver(); piece = await bytes.upTo(FED_BYTES))
    await writer.write(image.take(piece));
  await writer.close();
}

interface BeforeImage {
  readonly head: PngHead;
  readonly palette: Uint8Array;
  readonly first: Chunk;
}

export type OpenedPieces = readonly Uint8Array<ArrayBuffer>[];

/** A PNG whose head was found good, and its image data on the way out of the inflater. */
export interface OpenedPng {
  readonly head: PngHead;
  readonly palette: Uint8Array;
  /** Gives the next pieces of it; none at its end, and where the file is damaged or breaks off. */
  readonly next: () => Promise<OpenedPieces>;
  /** Lets go of file and inflater, whether or not all was read. */
  readonly close: () => Promise<void>;
}

export type OpenPng = (file: Blob) => Promise<Result<OpenedPng, ImageProblem>>;

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

/** Gathers what comes out of the inflater, in order also when it is asked several times at once. */
function piecesOf(reader: ReadableStreamDefaultReader<Uint8Array<ArrayBuffer>>): OpenedPng['next'] {
  let last: Promise<unknown> = Promise.resolve();
  const gather = async (): Promise<OpenedPieces> => {
    const pieces: Uint8Array<ArrayBuffer>[] = [];
    for (let length = 0; length < GATHERED_BYTES;) {
      const { done, value } = await reader.read();
      if (done) break;
      pieces.push(value);
      length += value.length;
    }
    return pieces;
  };
  return () => {
    const next = last.then(gather).catch(() => []);
    last = next;
    return next;
  };
}

/** Opens a PNG of any kind but interlaced. The image is inflated as it is asked for. */
export const openPng: OpenPng = async (file) => {
  const bytes = new Bytes(file.stream().getReader());
  const before = (await beforeImage(bytes)) ?? problem('damaged', DAMAGED_PNG);
  if (!before.ok) {
    await bytes.close();
    return before;
  }
  const { head, palette, first } = before.value;
  const inflater = new DecompressionStream('deflate');
  const fed = feed(bytes, first, inflater.writable.getWriter()).catch(() => undefined);
  const reader = inflater.readable.getReader();
  const close = async (): Promise<void> => {
    await reader.cancel().catch(() => undefined);
    await bytes.close().catch(() => undefined);
    await fed;
  };
  return ok({ head, palette, next: piecesOf(reader), close });
};
