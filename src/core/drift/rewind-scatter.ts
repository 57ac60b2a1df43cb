import { chiSquareQuantile, studentQuantile } from '../math/quantile';
import { fail, ok, type Result } from '../result';

/** Fewer rewinds say hardly anything of how they scatter. */
export const LEAST_REWINDS = 4;

export interface RewindScatter {
  /** Mean of the shifts: what an offset takes out. */
  readonly meanMm: number;
  readonly sdMm: number;
  /** What the scatter may be, 95 % sure (one side). */
  readonly sdUpperMm: number;
  /**
   * The scatter to reckon with for the next rewind: that of a normal distribution whose 95 % are as wide as what so few
   * rewinds foretell (Student's t, the mean taken out).
   */
  readonly nextSdMm: number;
}

const SIDE = 0.025;
/** Normal quantile of 95 %, both sides. */
const NORMAL_SIDE = 1.959964;

/**
 * How the origin shifts from one rewind to the next, from the same station read after each.
 * @param shiftsMm cut less print at that station, one direction, one a rewind.
 */
export function rewindScatter(
  shiftsMm: readonly number[],
): Result<RewindScatter, { readonly kind: 'too-few-rewinds'; readonly needed: number }> {
  const n = shiftsMm.length;
  if (n < LEAST_REWINDS) return fail({ kind: 'too-few-rewinds', needed: LEAST_REWINDS });
  const meanMm = shiftsMm.reduce((sum, d) => sum + d, 0) / n;
  const sdMm = Math.sqrt(shiftsMm.reduce((sum, d) => sum + (d - meanMm) ** 2, 0) / (n - 1));
  return ok({
    meanMm,
    sdMm,
    sdUpperMm: sdMm * Math.sqrt((n - 1) / chiSquareQuantile(2 * SIDE, n - 1)),
    nextSdMm: (sdMm * Math.sqrt(1 + 1 / n) * studentQuantile(1 - SIDE, n - 1)) / NORMAL_SIDE,
  });
}
