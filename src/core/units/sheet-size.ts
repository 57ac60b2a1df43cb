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

const inches = (width: number, length: number): SheetSize => ({
  widthMm: width * MM_PER_INCH,
  lengthMm: length * MM_PER_INCH,
});

/** Letter, ANSI/ASME Y14.1 size A: 8.5 x 11 in. */
export const LETTER: SheetSize = inches(8.5, 11);

export const SHEET_NAMES = ['A5', 'A4', 'A3', 'Letter', 'Legal', 'Tabloid', '12 x 12 in'] as const;
export type SheetName = (typeof SHEET_NAMES)[number];

/** Tabloid is ANSI/ASME Y14.1 size B; Legal and 12 x 12 in are trade sizes, common practice. */
const SHEETS: Readonly<Record<SheetName, SheetSize>> = {
  A5: isoA(5),
  A4: isoA(4),
  A3: isoA(3),
  Letter: LETTER,
  Legal: inches(8.5, 14),
  Tabloid: inches(11, 17),
  '12 x 12 in': inches(12, 12),
};

export const sheetSize = (name: SheetName): SheetSize => SHEETS[name];

export const isSheetName = (name: string): name is SheetName => SHEET_NAMES.some((n) => n === name);
