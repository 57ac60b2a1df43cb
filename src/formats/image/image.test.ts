import sharp, { type Sharp } from 'sharp';
import { deflateSync } from 'node:zlib';
import type { GrayImage } from '@/core/scan/gray';
import { readImage, type DecodeJpeg } from './read-image';
import { openPng } from './png-source';

/** The library that scans are written with here: an independent encoder, and the platform's place for JPEG. */
const decodeJpeg: DecodeJpeg = async (file) => {
  const { data, info } = await sharp(Buffer.from(await file.arrayBuffer()))
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
};

/** A browser has one; here it reads a Blob's own bytes. */
class FileReaderHere {
  result: ArrayBuffer | null = null;
  onload: () => void = () => undefined;
  readAsArrayBuffer(blob: Blob): void {
    void blob.arrayBuffer().then((bytes) => {
      this.result = bytes;
      this.onload();
    });
  }
}
beforeAll(() => {
  Object.assign(globalThis, { FileReader: FileReaderHere });
});

const WIDTH = 97;
const HEIGHT = 61;
/** Ramps and steps in three colours, so that no filter or packing is without work. */
const level = (x: number, y: number, band: number): number => (x * 3 + y * 5 * (band + 1) + ((x >> 3) % 2) * 40) % 256;
const colour = (): Sharp =>
  sharp(
    Buffer.from(
      Array.from({ length: WIDTH * HEIGHT * 3 }, (_, i) => {
        const pixel = Math.floor(i / 3);
        return level(pixel % WIDTH, Math.floor(pixel / WIDTH), i % 3);
      }),
    ),
    { raw: { width: WIDTH, height: HEIGHT, channels: 3 } },
  );
const gray = (): Sharp =>
  sharp(Buffer.from(Array.from({ length: WIDTH * HEIGHT }, (_, i) => level(i % WIDTH, Math.floor(i / WIDTH), 0))), {
    raw: { width: WIDTH, height: HEIGHT, channels: 1 },
  });

const wantedColour = (x: number, y: number): number =>
  (299 * level(x, y, 0) + 587 * level(x, y, 1) + 114 * level(x, y, 2)) / 1000;
const wantedGray = (x: number, y: number): number => level(x, y, 0);

async function read(bytes: Uint8Array): Promise<GrayImage> {
  const result = await readImage(new Blob([new Uint8Array(bytes)]), { decodeJpeg, openPng });
  if (!result.ok) throw new Error(result.error.words);
  return result.value;
}

function farthest({ width, height, data }: GrayImage, wanted: (x: number, y: number) => number): number {
  expect([width, height]).toEqual([WIDTH, HEIGHT]);
  return data.reduce((most, v, i) => Math.max(most, Math.abs(v - wanted(i % width, Math.floor(i / width)))), 0);
}

describe('pictures of every kind that scanners write', () => {
  const filters = { compressionLevel: 9, adaptiveFiltering: true };
  it.each<[string, () => Promise<Buffer>, (x: number, y: number) => number, number]>([
    ['PNG, colour, every filter', () => colour().png(filters).toBuffer(), wantedColour, 1],
    ['PNG, gray', () => gray().toColourspace('b-w').png(filters).toBuffer(), wantedGray, 0],
    ['PNG, colour with alpha', () => colour().ensureAlpha().png(filters).toBuffer(), wantedColour, 1],
    ['PNG, 16 bits', () => gray().toColourspace('grey16').png(filters).toBuffer(), wantedGray, 0],
    ['PNG, palette of 256', () => gray().png({ palette: true, dither: 0, quality: 100 }).toBuffer(), wantedGray, 3],
    ['TIFF, unpacked', () => colour().tiff({ compression: 'none' }).toBuffer(), wantedColour, 1],
    ['TIFF, LZW', () => gray().toColourspace('b-w').tiff({ compression: 'lzw' }).toBuffer(), wantedGray, 0],
    [
      'TIFF, deflate with predictor',
      () => colour().tiff({ compression: 'deflate', predictor: 'horizontal' }).toBuffer(),
      wantedColour,
      1,
    ],
    ['TIFF, PackBits', () => gray().toColourspace('b-w').tiff({ compression: 'packbits' }).toBuffer(), wantedGray, 0],
    ['TIFF, 16 bits', () => gray().toColourspace('grey16').tiff({ compression: 'lzw' }).toBuffer(), wantedGray, 1],
    [
      'TIFF in tiles',
      () =>
        gray().toColourspace('b-w').tiff({ tile: true, tileWidth: 32, tileHeight: 32, compression: 'lzw' }).toBuffer(),
      wantedGray,
      0,
    ],
    ['JPEG, gray', () => gray().toColourspace('b-w').jpeg({ quality: 100 }).toBuffer(), wantedGray, 6],
  ])('%s', async (_name, write, wanted, tolerance) => {
    expect(farthest(await read(await write()), wanted)).toBeLessThanOrEqual(tolerance);
  });

  it.each([1, 2, 4] as const)('PNG of %i bits', async (bitdepth) => {
    const levels = 2 ** bitdepth - 1;
    const whole = (x: number, y: number): number => Math.round((((x >> 2) + y) % (levels + 1)) * (255 / levels));
    const bytes = await sharp(
      Buffer.from(Array.from({ length: WIDTH * HEIGHT }, (_, i) => whole(i % WIDTH, Math.floor(i / WIDTH)))),
      { raw: { width: WIDTH, height: HEIGHT, channels: 1 } },
    )
      .toColourspace('b-w')
      .png({ palette: true, colours: levels + 1, dither: 0 })
      .toBuffer();
    expect(bytes[24]).toBe(bitdepth);
    expect(farthest(await read(bytes), whole)).toBeLessThanOrEqual(1);
  });
});

/** A PNG of stated size whose image data is as given. */
function png(
  width: number,
  height: number,
  { depth = 8, colourType = 0, interlaced = 0, image = Buffer.alloc(0) } = {},
): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const head = Buffer.alloc(8);
    head.writeUInt32BE(data.length, 0);
    head.write(type, 4, 'latin1');
    return Buffer.concat([head, data, Buffer.alloc(4)]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([depth, colourType, 0, 0, interlaced], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', image),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('files that are no scan: each its own answer, nothing thrown, nothing decoded that is too large', () => {
  const answer = async (bytes: Uint8Array): Promise<string> => {
    const result = await readImage(new Blob([new Uint8Array(bytes)]), { decodeJpeg, openPng });
    return result.ok ? 'read' : `${result.error.kind}: ${result.error.words}`;
  };
  const scan = (): Promise<Buffer> => gray().toColourspace('b-w').png().toBuffer();
  const photo = (): Promise<Buffer> => colour().jpeg().toBuffer();
  const tiff = (): Promise<Buffer> => colour().tiff({ compression: 'lzw' }).toBuffer();
  it.each<[string, () => Promise<Uint8Array> | Uint8Array, RegExp]>([
    ['nothing', () => new Uint8Array(0), /^not-a-picture: .*empty/],
    ['a text named .png', () => Buffer.from('spot,axis,mm\n1,across,0.2\n'), /^not-a-picture: .*no PNG, JPEG or TIFF/],
    ['a PNG cut short', async () => (await scan()).subarray(0, 400), /^damaged: .*PNG/],
    ['a PNG of its signature alone', async () => (await scan()).subarray(0, 8), /^damaged/],
    ['a PNG with a byte changed', async () => Buffer.from(await scan()).fill(7, 200, 260), /^damaged/],
    [
      'a PNG whose check sum is another: one level changed, the stream still sound',
      () => png(4, 4, { image: deflateSync(Buffer.alloc(20), { level: 0 }).fill(1, 13, 14) }),
      /^damaged/,
    ],
    ['the same unchanged', () => png(4, 4, { image: deflateSync(Buffer.alloc(20), { level: 0 }) }), /^read/],
    ['60,000 x 60,000', () => png(60_000, 60_000), /^too-large: .*60000 x 60000.*400 million.*300 dpi/],
    ['a PNG without size', () => png(0, 10), /^damaged/],
    ['an interlaced PNG', () => png(10, 10, { interlaced: 1 }), /^not-supported: .*interlaced/],
    ['a PNG of a depth that there is not', () => png(10, 10, { depth: 7 }), /^damaged/],
    // A thousand times more rows than stated.
    ['a bomb', () => png(1000, 10, { image: deflateSync(Buffer.alloc(64e6)) }), /^read/],
    ['a bomb that says so', () => png(50_000, 50_000, { image: deflateSync(Buffer.alloc(16e6)) }), /^too-large/],
    ['a JPEG cut short before its size', async () => (await photo()).subarray(0, 20), /^damaged: .*JPEG/],
    ['a JPEG of printing inks', () => colour().toColourspace('cmyk').jpeg().toBuffer(), /^not-supported: .*CMYK/],
    [
      'a TIFF of printing inks',
      () => colour().toColourspace('cmyk').tiff({ compression: 'lzw' }).toBuffer(),
      /^not-supported: .*CMYK/,
    ],
    [
      'a TIFF with a JPEG inside',
      () => colour().tiff({ compression: 'jpeg' }).toBuffer(),
      /^not-supported: .*JPEG inside/,
    ],
    ['a TIFF of gray', () => gray().tiff({ compression: 'none' }).toColourspace('b-w').toBuffer(), /^read/],
    [
      'a TIFF packed as a fax',
      () => gray().threshold(128).toColourspace('b-w').tiff({ compression: 'ccittfax4', bitdepth: 1 }).toBuffer(),
      /^not-supported: .*packed/,
    ],
    [
      'a TIFF packed by ZSTD',
      // Tag 259, one short number: 5 (LZW) becomes 50000.
      async () => {
        const bytes = await tiff();
        const at = bytes.indexOf(Buffer.from([0x03, 0x01, 0x03, 0x00, 0x01, 0x00, 0x00, 0x00, 0x05, 0x00]));
        bytes.writeUInt16LE(50_000, at + 8);
        return bytes;
      },
      /^not-supported: .*packed/,
    ],
    ['a TIFF of WebP', () => colour().tiff({ compression: 'webp' }).toBuffer(), /^not-supported: .*packed/],
    ['a TIFF cut short', async () => (await tiff()).subarray(0, 600), /^damaged: .*TIFF/],
    ['a TIFF of four bytes', () => Uint8Array.from([0x49, 0x49, 0x2a, 0]), /^damaged/],
  ])('%s', async (_name, bytes, wanted) => {
    expect(await answer(await bytes())).toMatch(wanted);
  });

  it('a JPEG that breaks off is told or read as far as it goes, never thrown', async () => {
    const whole = await photo();
    expect(await answer(whole.subarray(0, whole.length - 900))).toMatch(/^(damaged: .*JPEG|read)/);
  });
});
