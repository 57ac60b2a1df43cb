import { fromBlob, getDecoder, type GeoTIFFImage } from 'geotiff';
import type { GrayImage } from '@/core/scan/gray';
import { fail, ok } from '@/core/result';
import { boundPackings } from './tiff-packings';
import { grayOf, problem, tooManyPixels, type ReadImage, type ReadImageOptions } from './gray-image';

/** Rows are decoded in strips of about so many pixels. */
const STRIP_PIXELS = 4e6;
/** Photometric interpretations that are read. Source: TIFF 6.0, section 8. */
const WHITE_IS_ZERO = 0;
const BLACK_IS_ZERO = 1;
const RGB = 2;
const PALETTE = 3;
const INKS = 5;
/** None, LZW, deflate under both numbers, PackBits. Source: TIFF 6.0 and its technical notes. */
const PACKINGS: ReadonlySet<number> = new Set([1, 5, 8, 32946, 32773]);
/** Old and new numbers of JPEG inside a TIFF. */
const JPEGS: ReadonlySet<number> = new Set([6, 7]);

boundPackings();

interface Kind {
  readonly photometric: number;
  readonly samples: number;
  readonly bits: number;
  readonly palette: ArrayLike<number> | null;
  readonly packing: number;
}

async function kindOf(image: GeoTIFFImage): Promise<Kind> {
  const directory = image.getFileDirectory();
  const photometric = directory.hasTag('PhotometricInterpretation')
    ? Number(await directory.loadValue('PhotometricInterpretation'))
    : BLACK_IS_ZERO;
  const palette = photometric === PALETTE ? ((await directory.loadValue('ColorMap')) as ArrayLike<number>) : null;
  const packing = directory.hasTag('Compression') ? Number(await directory.loadValue('Compression')) : 1;
  return { photometric, samples: image.getSamplesPerPixel(), bits: image.getBitsPerSample(0), palette, packing };
}

/** How interleaved samples become gray, as many pixels as `out` takes. */
type ToGray = (samples: ArrayLike<number>, out: Uint8Array) => void;

function grayer(kind: Kind): ToGray {
  const { photometric, samples: step, bits, palette } = kind;
  if (photometric === RGB) {
    const scale = 255 / (2 ** bits - 1);
    return (samples, out) => {
      for (let x = 0, i = 0; x < out.length; x++, i += step)
        out[x] = grayOf(samples[i] ?? 0, samples[i + 1] ?? 0, samples[i + 2] ?? 0) * scale + 0.5;
    };
  }
  const levels = levelsOf(kind, palette);
  return (samples, out) => {
    for (let x = 0, i = 0; x < out.length; x++, i += step) out[x] = levels[samples[i] ?? 0] ?? 0;
  };
}

/** Brightness of every value that one sample may have. */
function levelsOf({ photometric, bits }: Kind, palette: ArrayLike<number> | null): Uint8Array {
  const count = 2 ** bits;
  const entries = (palette?.length ?? 0) / 3;
  return Uint8Array.from({ length: count }, (_, value) => {
    // A colour map holds 16 bits a colour.
    if (palette)
      return grayOf(palette[value] ?? 0, palette[entries + value] ?? 0, palette[2 * entries + value] ?? 0) / 257 + 0.5;
    const level = (255 * value) / (count - 1);
    return (photometric === WHITE_IS_ZERO ? 255 - level : level) + 0.5;
  });
}

function refusal(image: GeoTIFFImage, { photometric, bits, packing }: Kind): ReadImage | null {
  const [width, height] = [image.getWidth(), image.getHeight()];
  if (JPEGS.has(packing))
    return problem('not-supported', 'The TIFF holds a JPEG inside. Save it as PNG, or as TIFF without JPEG.');
  if (photometric === INKS)
    return problem('not-supported', 'The TIFF holds printing inks (CMYK). Save it in gray or RGB.');
  if (![WHITE_IS_ZERO, BLACK_IS_ZERO, RGB, PALETTE].includes(photometric))
    return problem('not-supported', 'The TIFF holds colours of another kind. Save it as PNG.');
  if (bits > 16 || image.getSampleFormat() !== 1)
    return problem('not-supported', `The TIFF has ${bits} bits a sample. Save it with 8 or 16.`);
  if (!PACKINGS.has(packing))
    return problem('not-supported', 'The TIFF is packed in a way that is not read here. Save it unpacked, or as PNG.');
  const large = tooManyPixels('tiff', width, height);
  if (large) return fail(large);
  const blockBytes = image.getBlockWidth() * image.getBlockHeight(0) * image.getSamplesPerPixel() * Math.ceil(bits / 8);
  if (blockBytes > MOST_BLOCK_BYTES)
    return problem(
      'too-large',
      'The TIFF is one single piece, too large to be read at once. Save it in strips, or as PNG.',
    );
  return null;
}

const MOST_BLOCK_BYTES = 150e6;

interface Opened {
  readonly image: GeoTIFFImage;
  readonly kind: Kind;
  readonly toGray: ToGray;
  readonly gray: GrayImage;
}

/** Samples of eight bits that lie together are taken from the decoded blocks as they are; anything else goes sample by sample. */
const isPlain = (image: GeoTIFFImage, { bits }: Kind): boolean => bits === 8 && image.planarConfiguration === 1;

async function decoderOf(image: GeoTIFFImage, { packing, samples, bits }: Kind) {
  const directory = image.getFileDirectory();
  return getDecoder(packing, {
    tileWidth: image.getTileWidth(),
    tileHeight: image.getTileHeight(),
    planarConfiguration: image.planarConfiguration,
    bitsPerSample: new Array<number>(samples).fill(bits),
    predictor: directory.hasTag('Predictor') ? Number(await directory.loadValue('Predictor')) : 1,
  });
}

/** One decoded strip or tile turned to gray where it belongs. */
function placeBlock(
  { image, kind, toGray, gray }: Opened,
  block: { x: number; y: number; data: ArrayBufferLike },
): void {
  const tileWidth = image.getTileWidth();
  const [left, top] = [block.x * tileWidth, block.y * image.getTileHeight()];
  const [width, rows] = [
    Math.min(tileWidth, gray.width - left),
    Math.min(image.getBlockHeight(block.y), gray.height - top),
  ];
  const bytes = new Uint8Array(block.data);
  const rowBytes = tileWidth * kind.samples;
  if (bytes.length < (rows - 1) * rowBytes + width * kind.samples) throw new Error(DAMAGED);
  for (let row = 0; row < rows; row++) {
    const from = (top + row) * gray.width + left;
    toGray(bytes.subarray(row * rowBytes), gray.data.subarray(from, from + width));
  }
}

/** Reads rows of blocks, those of one strip of the picture at a time. */
async function readBlocks(opened: Opened, onRows: Required<ReadImageOptions>['onRows']): Promise<void> {
  const { image, kind, gray } = opened;
  const decoder = await decoderOf(image, kind);
  const across = Math.ceil(gray.width / image.getTileWidth());
  const blockRows = blocksAtOnce(image);
  const down = Math.ceil(gray.height / image.getTileHeight());
  for (let first = 0; first < down; first += blockRows) {
    const last = Math.min(down, first + blockRows);
    const places = Array.from(
      { length: (last - first) * across },
      (_, i) => [i % across, first + Math.floor(i / across)] as const,
    );
    await Promise.all(
      places.map(async ([x, y]) => {
        placeBlock(opened, await image.getTileOrStrip(x, y, 0, decoder));
      }),
    );
    onRows(gray, Math.min(gray.height, last * image.getTileHeight()));
  }
}

/** Reads by the package's own way, one sample at a time. */
async function readSamples(
  { image, toGray, gray }: Opened,
  onRows: Required<ReadImageOptions>['onRows'],
): Promise<void> {
  const { width, height } = gray;
  const rows = stripRows(image);
  for (let top = 0; top < height; top += rows) {
    const bottom = Math.min(height, top + rows);
    const strip = await image.readRasters({ window: [0, top, width, bottom], interleave: true });
    toGray(strip, gray.data.subarray(top * width, bottom * width));
    onRows(gray, bottom);
  }
}

/**
 * A file whose pieces lie within it, whatever places a damaged TIFF names: beyond 32 bits some platforms end the whole process instead of
 * giving an empty piece.
 */
function withinItself(file: Blob): Blob {
  const place = (at = 0): number => (at > 0 ? Math.min(file.size, Math.floor(at)) : 0);
  const slice = (from?: number, to?: number): Blob => file.slice(place(from), place(to));
  return { size: file.size, type: file.type, slice } as Blob;
}

/** Reads a TIFF in strips: no more than the gray picture and one strip are held. The first picture of several counts. */
export async function readTiff(file: Blob, { onRows = () => undefined }: ReadImageOptions): Promise<ReadImage> {
  try {
    const tiff = await fromBlob(withinItself(file));
    const image = await tiff.getImage(0);
    const kind = await kindOf(image);
    const refused = refusal(image, kind);
    if (refused) return refused;
    const [width, height] = [image.getWidth(), image.getHeight()];
    if (width * height === 0) return problem('damaged', DAMAGED);
    const gray = { width, height, data: new Uint8Array(width * height) };
    const opened = { image, kind, gray, toGray: grayer(kind) };
    await (isPlain(image, kind) ? readBlocks(opened, onRows) : readSamples(opened, onRows));
    return ok(gray);
  } catch {
    return problem('damaged', DAMAGED);
  }
}

const DAMAGED = 'The TIFF is damaged or was not copied whole. Save it again.';

/** Rows of blocks in one strip of the picture. */
const blocksAtOnce = (image: GeoTIFFImage): number =>
  Math.max(1, Math.floor(STRIP_PIXELS / image.getWidth() / Math.max(1, image.getBlockHeight(0))));

/** Whole blocks of rows, so that none is decoded twice. */
const stripRows = (image: GeoTIFFImage): number => Math.max(1, image.getBlockHeight(0)) * blocksAtOnce(image);
