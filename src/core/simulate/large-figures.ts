import type { ScanFigure } from '../scan/measured-figure';

/** Four by six weeded discs of 12 mm, centres 20 mm from the edges of A4: what scans are measured by in trials. */
export const LARGE_FIGURES: readonly ScanFigure[] = Array.from({ length: 24 }, (_, i) => ({
  key: String(i),
  codeNo: i,
  centre: { x: -85 + ((i % 4) * 170) / 3, y: 128.5 - (Math.floor(i / 4) * 257) / 5 },
  ...{ radiusMm: 6, inkFromMm: 0, cutShape: 'hole', cutRadiusMm: 3 },
}));
