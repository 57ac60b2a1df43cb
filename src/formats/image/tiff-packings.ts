import { addDecoder, BaseDecoder } from 'geotiff';

/** What is packed is damaged: no encoder writes such codes. */
export class DamagedPacking extends Error {}

const CLEAR = 256;
const END = 257;
const FIRST_FREE = 258;
const FEWEST_BITS = 9;
const MOST_BITS = 12;
const TABLE = 1 << MOST_BITS;

/** Codes of growing width from the high bits on; null at the end of the input. */
function codeReader(input: Uint8Array): (bits: number) => number | null {
  let at = 0;
  let held = 0;
  let heldBits = 0;
  return (bits) => {
    while (heldBits < bits) {
      if (at >= input.length) return null;
      held = ((held << 8) | input[at++]!) >>> 0;
      heldBits += 8;
    }
    heldBits -= bits;
    const code = (held >>> heldBits) & ((1 << bits) - 1);
    held &= (1 << heldBits) - 1;
    return code;
  };
}

/** Strings by their codes: each is an earlier one and one byte more, so that none leads back to itself. */
function stringTable() {
  const prefix = new Uint16Array(TABLE);
  const last = new Uint8Array(TABLE);
  const first = new Uint8Array(TABLE);
  const lengths = new Uint32Array(TABLE);
  for (let i = 0; i < CLEAR; i++) [last[i], first[i], lengths[i]] = [i, i, 1];
  return {
    /** Enters the string of `before` and the first byte of `code`, or of itself where that is the code being entered. */
    enter: (free: number, before: number, code: number): void => {
      prefix[free] = before;
      first[free] = first[before]!;
      lengths[free] = lengths[before]! + 1;
      last[free] = code === free ? first[before]! : first[code]!;
    },
    /** Writes a string into `out`, cut where that ends. @returns where the next one begins */
    writeInto: (out: Uint8Array, from: number, code: number): number => {
      const length = lengths[code]!;
      for (let c = code, at = from + length - 1; at >= from; c = prefix[c]!, at--)
        if (at < out.length) out[at] = last[c]!;
      return Math.min(out.length, from + length);
    },
  };
}

/**
 * Unpacks LZW as TIFF has it, no more than `mostBytes`: what comes after them is left. A code that was not given out yet is damage, and
 * the table never grows beyond 4096 entries.
 * Source: TIFF 6.0, section 13 (codes from the high bit on; the width grows one code early).
 * @throws DamagedPacking
 */
export function unpackLzw(input: Uint8Array, mostBytes: number): Uint8Array {
  const table = stringTable();
  const out = new Uint8Array(mostBytes);
  const next = codeReader(input);
  let [written, free, bits, before] = [0, FIRST_FREE, FEWEST_BITS, -1];
  for (let code = next(bits); code !== null && code !== END && written < mostBytes; code = next(bits)) {
    if (code === CLEAR) {
      [free, bits, before] = [FIRST_FREE, FEWEST_BITS, -1];
      continue;
    }
    if (before >= 0 && free < TABLE && code <= free) table.enter(free++, before, code);
    if (code > CLEAR && code >= free) throw new DamagedPacking();
    written = table.writeInto(out, written, code);
    before = code;
    if (free + 1 >= 1 << bits && bits < MOST_BITS) bits++;
  }
  return out.subarray(0, written);
}

/** Unpacks PackBits, no more than `mostBytes`. Source: TIFF 6.0, section 9. */
export function unpackPackBits(input: Uint8Array, mostBytes: number): Uint8Array {
  const out = new Uint8Array(mostBytes);
  let written = 0;
  for (let at = 0; at < input.length && written < mostBytes;) {
    const head = (input[at++]! << 24) >> 24;
    // Minus 128 stands for nothing.
    if (head === -128) continue;
    const count = Math.min(Math.abs(head) + 1, mostBytes - written);
    if (head < 0) out.fill(input[at++] ?? 0, written, written + count);
    else {
      out.set(input.subarray(at, at + count), written);
      at += head + 1;
    }
    written += count;
  }
  return out.subarray(0, written);
}

/** Inflates zlib data, no more than `mostBytes`: nothing further is unpacked. */
export async function inflateWithin(input: Uint8Array, mostBytes: number): Promise<Uint8Array> {
  const out = new Uint8Array(mostBytes);
  let written = 0;
  const stream = new Blob([input as Uint8Array<ArrayBuffer>]).stream().pipeThrough(new DecompressionStream('deflate'));
  const reader = stream.getReader();
  while (written < mostBytes) {
    const { value, done } = await reader.read();
    if (done) break;
    const part = value.subarray(0, mostBytes - written);
    out.set(part, written);
    written += part.length;
  }
  await reader.cancel().catch(() => undefined);
  return out.subarray(0, written);
}

type Unpack = (input: Uint8Array, mostBytes: number) => Uint8Array | Promise<Uint8Array>;

/** A decoder of the library that gives no more bytes than its strip or tile holds. */
function decoderOf(unpack: Unpack): typeof BaseDecoder {
  return class extends BaseDecoder {
    override async decodeBlock(buffer: ArrayBuffer): Promise<ArrayBuffer> {
      const { tileWidth, tileHeight, bitsPerSample, planarConfiguration } = this.parameters;
      const bits: readonly number[] = typeof bitsPerSample === 'number' ? [bitsPerSample] : Array.from(bitsPerSample);
      const pixelBits = planarConfiguration === 2 ? Math.max(...bits) : bits.reduce((sum, b) => sum + b, 0);
      const mostBytes = Math.ceil((tileWidth * pixelBits) / 8) * tileHeight;
      const bytes = await unpack(new Uint8Array(buffer), mostBytes);
      return bytes.slice().buffer;
    }
  };
}

const LZW = 5;
const PACK_BITS = 32773;
/** Under its two numbers. */
const DEFLATE = [8, 32946];

/** Puts these in the place of the library's own, which have no bound on what they give out. */
export function boundPackings(): void {
  addDecoder(LZW, () => Promise.resolve(decoderOf(unpackLzw)));
  addDecoder(PACK_BITS, () => Promise.resolve(decoderOf(unpackPackBits)));
  addDecoder(DEFLATE, () => Promise.resolve(decoderOf(inflateWithin)));
}
