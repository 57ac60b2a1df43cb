import type { Point } from '../geometry/affine';
import type { TemplateDiscNo } from '../target/template-discs';

/** Cut less print at one of the two small discs. */
export interface DiscShift {
  readonly discNo: TemplateDiscNo;
  readonly acrossMm: number;
  readonly alongMm: number;
  readonly standardUncertaintyMm: number;
}

/** What one picture leaves of its own at every disc alike, light from one side above all (`docs/scans.md`), mm. */
export const ONE_PICTURE_SD_MM = 0.02;
export interface DiscReading {
  /** Of the cut against the print, half way between the two. */
  readonly shift: Point;
  /** Of each component. */
  readonly standardUncertaintyMm: number;
  /** How far the two differ: the sheet's scale and turn, of this load at least. */
  readonly apartMm: number;
}

/** What the two discs say together: their mean, which leaves out the turn and scale of the sheet between them. */
export function readDiscs(one: DiscShift, other: DiscShift): DiscReading {
  const spread = Math.hypot(one.standardUncertaintyMm, other.standardUncertaintyMm);
  return {
    shift: { x: (one.acrossMm + other.acrossMm) / 2, y: (one.alongMm + other.alongMm) / 2 },
    standardUncertaintyMm: Math.hypot(ONE_PICTURE_SD_MM, spread / 2),
    apartMm: Math.hypot(one.acrossMm - other.acrossMm, one.alongMm - other.alongMm),
  };
}

/** The mean of several looks at the same disc; null of none. */
export function meanDisc(discNo: TemplateDiscNo, looks: readonly DiscShift[]): DiscShift | null {
  const n = looks.length;
  if (n === 0) return null;
  const sum = (of: (look: DiscShift) => number): number => looks.reduce((total, look) => total + of(look), 0);
  return {
    discNo,
    acrossMm: sum((l) => l.acrossMm) / n,
    alongMm: sum((l) => l.alongMm) / n,
    standardUncertaintyMm: Math.sqrt(sum((l) => l.standardUncertaintyMm ** 2)) / n,
  };
}
