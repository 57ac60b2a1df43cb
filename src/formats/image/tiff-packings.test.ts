import { deflateSync } from 'node:zlib';
import fc from 'fast-check';
import sharp from 'sharp';
import { readTiff } from './tiff';
import { DamagedPacking, inflateWithin, unpackLzw, unpackPackBits } from './tiff-packings';

/** Packs as TIFF 6.0, section 13 tells: an encoder of its own, to hold the decoder against. */
function packLzw(bytes: Uint8Array): Uint8Array {
  let bitText = '';
  let table = new Map<string, number>();
  let bits = 9;
  const put = (code: number): void => {
    bitText += code.toString(2).padStart(bits, '0');
  };
  const clear = (): void => {
    put(256);
    table = new Map(Array.from({ length: 256 }, (_, i) => [String.fromCharCode(i), i]));
    bits = 9;
  };
  let free = 258;
  const entered = (): void => {
    free++;
    if ([512, 1024, 2048].includes(free)) bits++;
  };
  clear();
  let held = '';
  for (const byte of bytes) {
    const longer = held + String.fromCharCode(byte);
    if (table.has(longer)) {
      held = longer;
      continue;
    }
    put(table.get(held) ?? 0);
    table.set(longer, free);
    entered();
    if (free === 4095) {
      clear();
      free = 258;
    }
    held = String.fromCharCode(byte);
  }
  if (held !== '') {
    put(table.get(held) ?? 0);
    entered();
  }
  put(257);
  const padded = bitText.padEnd(Math.ceil(bitText.length / 8) * 8, '0');
  return Uint8Array.from({ length: padded.length / 8 }, (_, i) => parseInt(padded.slice(8 * i, 8 * i + 8), 2));
}

/** Codes of 9 bits and wider, as a hostile file may hold them. */
function codes(list: readonly (readonly [code: number, bits: number])[]): Uint8Array {
  const text = list.map(([code, bits]) => code.toString(2).padStart(bits, '0')).join('');
  const padded = text.padEnd(Math.ceil(text.length / 8) * 8, '0');
  return Uint8Array.from({ length: padded.length / 8 }, (_, i) => parseInt(padded.slice(8 * i, 8 * i + 8), 2));
}

describe('LZW', () => {
  it('gives back what an encoder packed, whatever it was', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 600 }), fc.integer({ min: 1, max: 30 }), (bytes, times) => {
        const whole = Uint8Array.from({ length: bytes.length * times }, (_, i) => bytes[i % bytes.length] ?? 0);
        expect(unpackLzw(packLzw(whole), whole.length)).toEqual(whole);
      }),
      { numRuns: 60 },
    );
  });
  it('fills its table and begins again', () => {
    const bytes = Uint8Array.from({ length: 60_000 }, (_, i) => (i * i * 31 + (i >> 5)) & 255);
    expect(unpackLzw(packLzw(bytes), bytes.length)).toEqual(bytes);
  });
  it('gives no more than it may, and nothing past the end of its input', () => {
    const bytes = new Uint8Array(5000).fill(9);
    expect(unpackLzw(packLzw(bytes), 100)).toEqual(bytes.subarray(0, 100));
    expect(unpackLzw(packLzw(bytes).subarray(0, 20), 5000).length).toBeLessThan(5000);
    expect(unpackLzw(new Uint8Array(), 10)).toHaveLength(0);
  });
  it('a code that was not given out yet is damage', () => {
    expect(() =>
      unpackLzw(
        codes([
          [256, 9],
          [300, 9],
        ]),
        100,
      ),
    ).toThrow(DamagedPacking);
    expect(() =>
      unpackLzw(
        codes([
          [256, 9],
          [65, 9],
          [259, 9],
        ]),
        100,
      ),
    ).toThrow(DamagedPacking);
  });
  it('a table that is never cleared stays bounded: the library\u2019s own decoder never ends on this', () => {
    // 4000 strings that each grow by one letter, then codes past the end of the table over and over.
    const wide = (i: number): number => 9 + [253, 765, 1789].filter((from) => i >= from).length;
    const growing = Array.from(
      { length: 20_000 },
      (_, i) => [i === 0 ? 65 : Math.min(4095, 257 + i), wide(i)] as const,
    );
    const unpack = (): Uint8Array => unpackLzw(codes([[256, 9], ...growing]), 5e6);
    let length = 0;
    try {
      length = unpack().length;
    } catch (error) {
      expect(error).toBeInstanceOf(DamagedPacking);
    }
    expect(length).toBeLessThanOrEqual(5e6);
  });
  it('any bytes at all give at most what they may, or are damage', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 3000 }), (bytes) => {
        try {
          expect(unpackLzw(bytes, 10_000).length).toBeLessThanOrEqual(10_000);
        } catch (error) {
          expect(error).toBeInstanceOf(DamagedPacking);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('PackBits', () => {
  it('unpacks the example of TIFF 6.0 (the technical note of PackBits), and stops where it may give no more', () => {
    const packed = Uint8Array.from([
      0xfe, 0xaa, 0x02, 0x80, 0x00, 0x2a, 0xfd, 0xaa, 0x03, 0x80, 0x00, 0x2a, 0x22, 0xf7, 0xaa,
    ]);
    const whole = [
      ...[0xaa, 0xaa, 0xaa, 0x80, 0x00, 0x2a, 0xaa, 0xaa, 0xaa, 0xaa, 0x80, 0x00, 0x2a, 0x22],
      ...new Array<number>(10).fill(0xaa),
    ];
    expect([...unpackPackBits(packed, 24)]).toEqual(whole);
    expect([...unpackPackBits(packed, 5)]).toEqual(whole.slice(0, 5));
    expect([...unpackPackBits(Uint8Array.from([0x80, 0x00, 0x07]), 9)]).toEqual([7]);
  });
});

describe('deflate', () => {
  it('a block that would unpack to a gigabyte gives what it may and no more', async () => {
    const bomb = deflateSync(Buffer.alloc(200e6));
    const before = process.memoryUsage().arrayBuffers;
    expect(await inflateWithin(bomb, 1000)).toEqual(new Uint8Array(1000));
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(50e6);
  });
  it('damage is damage', async () => {
    await expect(inflateWithin(Uint8Array.from([1, 2, 3, 4]), 10)).rejects.toThrow();
  });
});

it('a TIFF whose LZW codes are all ones is refused or read, never without end', async () => {
  const width = 400;
  const plain = sharp({ create: { width, height: 300, channels: 3, background: '#777777' } });
  const bytes = await plain.toColourspace('b-w').tiff({ compression: 'lzw' }).toBuffer();
  const hostile = Buffer.from(bytes);
  hostile.fill(0xff, 20, bytes.length - 400);
  const answer = await readTiff(new Blob([hostile]), {});
  expect(answer.ok ? 'read' : answer.error.kind).toMatch(/read|damaged/);
});

it('a TIFF whose strips lie far beyond the file is damaged; the process goes on', async () => {
  const plain = sharp({ create: { width: 40, height: 30, channels: 3, background: '#777777' } });
  const bytes = await plain.toColourspace('b-w').tiff({ compression: 'none' }).toBuffer();
  // StripOffsets, tag 273 (TIFF 6.0, section 8), in the library's little-endian files.
  const tag = bytes.indexOf(Buffer.from([0x11, 0x01]));
  expect(tag).toBeGreaterThan(0);
  bytes.writeUInt32LE(0xffffffff, tag + 8);
  const lengths = bytes.indexOf(Buffer.from([0x17, 0x01]));
  bytes.writeUInt32LE(0xfffffff0, lengths + 8);
  expect(await readTiff(new Blob([new Uint8Array(bytes)]), {})).toMatchObject({
    ok: false,
    error: { kind: 'damaged' },
  });
});
