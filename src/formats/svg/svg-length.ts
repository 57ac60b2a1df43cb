import { MM_PER_INCH } from '@/core/units/length';

/** Px of 1/96 inch in one of a unit. Source: W3C CSS Values and Units Level 3, 6.2 (absolute lengths). */
const PX_PER: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  in: 96,
  mm: 96 / MM_PER_INCH,
  cm: 960 / MM_PER_INCH,
  q: 24 / MM_PER_INCH,
  pt: 96 / 72,
  pc: 16,
};

const LENGTH = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(px|in|mm|cm|q|pt|pc|%)?\s*$/i;

/** A length in user units (px); percentages of `base`. Null where it is none, or in a unit that depends on a font. */
export function svgLength(words: string, base: number): number | null {
  const found = LENGTH.exec(words);
  if (!found) return null;
  const value = Number(found[1]);
  const unit = (found[2] ?? '').toLowerCase();
  const px = unit === '%' ? (value * base) / 100 : value * (PX_PER[unit] ?? NaN);
  return Number.isFinite(px) ? px : null;
}

/** True for a plain number or px: how large it comes out depends on the program that opens it. */
export const isPlainNumber = (words: string): boolean => /^\s*[+-]?[\d.]+(e[+-]?\d+)?\s*(px)?\s*$/i.test(words);
