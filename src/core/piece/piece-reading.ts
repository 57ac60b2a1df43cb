import type { FourBorders } from '../reading/borders';
import type { Pixel } from '../scan/gray';

/** Four straight sides, corners as round as they like; or any outline that follows its print all round, held upright. */
export const PIECE_SHAPES = ['rectangle', 'other'] as const;
export type PieceShape = (typeof PIECE_SHAPES)[number];

/** A finished piece as it was cut. */
export interface PieceSought {
  readonly shape: PieceShape;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** One look across the border: where the cut is seen and where the print begins, in pixels of the picture. */
export interface BorderLook {
  readonly cut: Pixel;
  readonly print: Pixel | null;
  /** Whether it counts: not at a corner, and in keeping with the others. */
  readonly isUsed: boolean;
}

export interface PieceReading {
  readonly borders: FourBorders;
  /** Standard uncertainty of one border. */
  readonly borderSdMm: number;
  readonly looks: readonly BorderLook[];
  readonly pixelsPerMm: number;
}

export type PieceSide = 'top' | 'right' | 'bottom' | 'left';

export type PieceProblem =
  /** Nothing light on something dark. */
  | { readonly kind: 'no-contrast' }
  | { readonly kind: 'no-piece' }
  /** The largest light thing is not wholly in the picture. */
  | { readonly kind: 'reaches-rim' }
  | { readonly kind: 'too-coarse'; readonly pixelsPerMm: number }
  | { readonly kind: 'no-rectangle' }
  /** Its sides are to each other as seen, not as told; taken across, for one mm along. */
  | {
      readonly kind: 'other-size';
      readonly seenRatio: number;
      readonly toldRatio: number;
      readonly isOnItsSide: boolean;
    }
  /** No clear edge of print along most of a side, or of the outline. */
  | { readonly kind: 'no-print-edge'; readonly side: PieceSide | null }
  /** The border changes along a side by more than a turned cut would make it. */
  | { readonly kind: 'uneven'; readonly side: PieceSide | null };
