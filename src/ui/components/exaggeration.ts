/** A move of a tenth of a mm would not be seen on a whole sheet: it is drawn larger, and said so. */
const SHOWN_SHARE = 0.03;

/** How many times a move of so many mm is drawn too large on a page of so many: 1, 2, 5, 10 and so on. */
export function exaggerationFor(farthestMm: number, pageMm: number): number {
  if (farthestMm <= 0) return 1;
  const wanted = (SHOWN_SHARE * pageMm) / farthestMm;
  const power = 10 ** Math.floor(Math.log10(Math.max(1, wanted)));
  const step = [5, 2, 1].find((n) => n * power <= wanted) ?? 1;
  return Math.max(1, step * power);
}
