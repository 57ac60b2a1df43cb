import { MM_PER_INCH } from './length';

export interface SheetSize {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/**
 * Trimmed sheet of the A series: A0 is 841 x 1189 mm; each next halves the longer side, rounded down to whole mm.
 * Source: ISO 216.
 */
export function isoA(index: number): SheetSize {
  let size: SheetSize = { widthMm: 841, lengthMm: 1189 };
  for (let i = 0; i < index; i++) size = { widthMm: Math.floor(size.lengthMm / 2), lengthMm: size.widthMm };
  return size;
}

/** Letter, ANSI/ASME Y14.1 size A: 8.5 x 11 in. */
export const LETTER: SheetSize = { widthMm: 8.5 * MM_PER_INCH, lengthMm: 11 * MM_PER_INCH };
