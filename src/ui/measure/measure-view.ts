import type { Point } from '@/core/geometry/affine';
import type { OwnTest } from '@/core/reading/ladder';
import type { UnitSystem } from '@/core/units/length';

interface Size {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** What the measuring tools know of a setup. */
export interface MeasureToolView {
  readonly page: Size;
  readonly frame: Size;
  readonly marks: readonly Point[];
  readonly toleranceMm: number;
  readonly system: UnitSystem;
  readonly setupId: string;
  readonly cutterName: string;
  /** The cutter's own test, where someone described it. */
  readonly ownTest: OwnTest | null;
}
