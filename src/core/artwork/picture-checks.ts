import { MM_PER_INCH } from '../units/length';

/** Fewer dots to the inch than this look soft at arm's length. Common practice, no published source. */
export const LEAST_DPI = 150;
/** Stretched by more than this much one way than the other is seen. Common practice, no published source. */
export const STRETCH_SHARE = 0.01;

export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Dots to the inch at the size it is printed, across and along. */
export function effectiveDpi({ widthPx, heightPx }: PictureSize, widthMm: number, heightMm: number) {
  return { across: (widthPx / widthMm) * MM_PER_INCH, along: (heightPx / heightMm) * MM_PER_INCH };
}

/** How much wider than its own proportion a thing is drawn: 0.1 is a tenth too wide, minus too narrow. */
export const stretchOf = (
  own: { readonly width: number; readonly height: number },
  drawn: { readonly width: number; readonly height: number },
): number => drawn.width / drawn.height / (own.width / own.height) - 1;

/** The other side of a thing that keeps its proportion. */
export const keptLength = (own: { readonly width: number; readonly height: number }, widthMm: number): number =>
  (widthMm * own.height) / own.width;
