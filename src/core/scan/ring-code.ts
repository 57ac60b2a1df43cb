import { CODE_BITS, CODE_WORDS } from '../target/code-book';
import { CODE_DOT_SHARE, CODE_RING_SHARE } from '../target/disc';
import type { GrayImage } from './gray';
import { brightnessIn, type LocalView } from './local-view';

/**
 * An ellipse in a picture: the disc's middle, and where its unit vectors (one radius to the right and one up, as the picture
 * shows them) come to lie.
 */
export type SeenEllipse = LocalView;

export interface RingCode {
  readonly codeNo: number;
  /** Seen from behind. */
  readonly isMirrored: boolean;
  /** Where the sheet's right (bit 0) lies, counter-clockwise from the picture's right. */
  readonly angleRad: number;
}

const SAMPLES_PER_BIT = 8;
const SAMPLES = CODE_BITS * SAMPLES_PER_BIT;
const BIT_RAD = (2 * Math.PI) / CODE_BITS;
/** Ink and paper nearer to each other than this are not told apart. */
const LEAST_CONTRAST = 20;
/** Where the ring's dots do not stand out from the gaps between them by this share of the contrast, it is no ring. */
const LEAST_HARMONIC = 0.05;

const ALL_BITS = 2 ** CODE_BITS - 1;
const turned = (word: number, bits: number): number => ((word << bits) | (word >>> (CODE_BITS - bits))) & ALL_BITS;

function mirrored(word: number): number {
  let out = 0;
  for (let bit = 0; bit < CODE_BITS; bit++) if ((word >> bit) & 1) out |= 1 << ((CODE_BITS - bit) % CODE_BITS);
  return out;
}

/** For every pattern of 18 bits: which word, turn and side it shows with at most one bit wrong, or -1. */
function makeBook(): Int16Array {
  const book = new Int16Array(ALL_BITS + 1).fill(-1);
  CODE_WORDS.forEach((word, codeNo) => {
    for (const side of [0, 1])
      for (let turn = 0; turn < CODE_BITS; turn++) {
        const seen = turned(side === 1 ? mirrored(word) : word, turn);
        const entry = (codeNo * 2 + side) * CODE_BITS + turn;
        book[seen] = entry;
        for (let bit = 0; bit < CODE_BITS; bit++) book[seen ^ (1 << bit)] = entry;
      }
  });
  return book;
}

const BOOK = makeBook();

/** What a pattern of bits, counter-clockwise from the picture's right, shows; words lie too far apart for two answers. */
export function wordShown(
  bits: number,
): { readonly codeNo: number; readonly isMirrored: boolean; readonly turn: number } | null {
  const entry = BOOK[bits & ALL_BITS]!;
  if (entry < 0) return null;
  const side = Math.floor(entry / CODE_BITS);
  return { codeNo: side >> 1, isMirrored: side % 2 === 1, turn: entry % CODE_BITS };
}

/** Brightness of a small spot of the ring, as wide as half a dot. */
function spotBrightness(image: GrayImage, ellipse: SeenEllipse, cos: number, sin: number): number {
  let sum = 0;
  for (const share of [CODE_RING_SHARE - CODE_DOT_SHARE / 2, CODE_RING_SHARE, CODE_RING_SHARE + CODE_DOT_SHARE / 2])
    sum += brightnessIn(image, ellipse, share * cos, share * sin);
  return sum / 3;
}

/** Where both a solid disc and a ring have ink, as a share of the radius. */
const INK_SHARE = 11 / 12;

/** Brightness of the ink just inside the disc's edge: the darker half of it. */
function inkLevel(image: GrayImage, ellipse: SeenEllipse): number {
  const seen = Array.from({ length: 24 }, (_, i) =>
    brightnessIn(image, ellipse, INK_SHARE * Math.cos((i * Math.PI) / 12), INK_SHARE * Math.sin((i * Math.PI) / 12)),
  ).sort((a, b) => a - b);
  return seen[6]!;
}

/**
 * Reads the ring of dots round a disc: eight looks a bit, the phase from the eighteenth harmonic, then the nearest word over
 * all turns and both sides with at most one bit wrong. Null where there is no ring, or no word.
 */
export function readRing(image: GrayImage, ellipse: SeenEllipse): RingCode | null {
  const seen = new Float64Array(SAMPLES);
  for (let i = 0; i < SAMPLES; i++) {
    const angle = (2 * Math.PI * i) / SAMPLES;
    seen[i] = spotBrightness(image, ellipse, Math.cos(angle), Math.sin(angle));
  }
  const white = [...seen].sort((a, b) => a - b)[Math.floor(SAMPLES * 0.85)]!;
  const black = inkLevel(image, ellipse);
  if (white - black < LEAST_CONTRAST) return null;
  let [re, im] = [0, 0];
  const darkness = seen.map((level) => Math.min(1, Math.max(0, (white - level) / (white - black))));
  darkness.forEach((dark, i) => {
    const phase = (2 * Math.PI * CODE_BITS * i) / SAMPLES;
    re += dark * Math.cos(phase);
    im += dark * Math.sin(phase);
  });
  if (Math.hypot(re, im) < LEAST_HARMONIC * SAMPLES) return null;
  const firstRad = Math.atan2(im, re) / CODE_BITS;
  let bits = 0;
  for (let bit = 0; bit < CODE_BITS; bit++) {
    const middle = ((firstRad + bit * BIT_RAD) / (2 * Math.PI)) * SAMPLES;
    let sum = 0;
    for (let k = -1; k <= 1; k++) sum += darkness[(Math.round(middle) + k + SAMPLES) % SAMPLES]!;
    if (sum > 1.5) bits |= 1 << bit;
  }
  const shown = wordShown(bits);
  if (!shown) return null;
  return { codeNo: shown.codeNo, isMirrored: shown.isMirrored, angleRad: firstRad + shown.turn * BIT_RAD };
}
