import type { TurnDeg } from '../geometry/load';
import type { CutShape } from '../target/coded-figure';
import { MM_PER_INCH } from '../units/length';
import type { GrayImage, Pixel } from './gray';
import type { DiscResult, ScanFigure } from './measured-figure';
import type { DecodedDisc } from './page';

/** So many pictures are kept of one measuring. */
export const MOST_SCANS = 8;

/** A picture and what is looked for in it. */
/** Another sheet that may lie on the scanner by mistake. */
export interface OtherSheet {
  readonly code: string;
  readonly figures: readonly ScanFigure[];
}

export interface ScanWork {
  readonly image: GrayImage;
  readonly figures: readonly ScanFigure[];
}

/** A scan, or a photograph of the flat sheet, whose tilt and lens were taken out. */
export const PICTURE_KINDS = ['scan', 'photo'] as const;
export type PictureKind = (typeof PICTURE_KINDS)[number];

export interface ScanResult {
  readonly kind: PictureKind;
  readonly discs: readonly DiscResult[];
  /** How far a camera looked from straight above; 0 of a scan. */
  readonly tiltRad: number;
  /** Seen from behind; of loose pieces, all of them. */
  readonly isMirrored: boolean;
  /** Some loose pieces are seen from behind and some are not. */
  readonly isMixed: boolean;
  /** Quarter turn nearest to how the sheet lies in the picture, counter-clockwise; null where loose pieces lie each its own way. */
  readonly turnDeg: TurnDeg | null;
  /** What shows the cuts of the sheet. */
  readonly cutShape: CutShape;
  readonly pixelsPerMm: number;
}

export type ScanProblem =
  | { readonly kind: 'too-coarse'; readonly dotsPerInch: number }
  /** Nothing dark and round at all, or none with a ring of dots. */
  | { readonly kind: 'no-discs' }
  /** Rings were read, but too few of this sheet's agree on where it lies. */
  | { readonly kind: 'no-page'; readonly decoded: readonly DecodedDisc[] }
  /** Another sheet than the one asked for lies there, and which. */
  | { readonly kind: 'other-sheet'; readonly code: string }
  | { readonly kind: 'two-sheets' }
  /** The printed discs lie too far from any flat view of the sheet: curled, or photographed. */
  | { readonly kind: 'not-flat'; readonly typicalMm: number }
  /** Among loose pieces lies one that is not of this check. */
  | { readonly kind: 'other-pieces' }
  /** Loose pieces are seen in different sizes: photographed. */
  | { readonly kind: 'pieces-aslant' };

/** Stages as they are told to whoever waits; places in the picture are for showing what was found. */
export type ScanProgress =
  | { readonly stage: 'found'; readonly discs: readonly Pixel[] }
  | { readonly stage: 'measured'; readonly done: number; readonly of: number; readonly disc: DiscResult };

const LEAST_DOTS_PER_INCH = 140;

/** Why a picture of so many pixels a mm is not fine enough; null where it is. */
export function coarseness(pixelsPerMm: number): ScanProblem | null {
  const dotsPerInch = pixelsPerMm * MM_PER_INCH;
  return dotsPerInch < LEAST_DOTS_PER_INCH ? { kind: 'too-coarse', dotsPerInch } : null;
}
