export interface EwmaDesign {
  /** Weight of the newest value, above 0 and at most 1. */
  readonly lambda: number;
  /** Width of the limits in SDs of the average. */
  readonly width: number;
}

/**
 * A false signal in about 500 points, and a shift of one SD found in about 10.
 * Source: Lucas and Saccucci, Technometrics 32(1), 1990 (from memory, recomputed by simulation).
 */
export const USUAL_EWMA: EwmaDesign = { lambda: 0.2, width: 2.962 };

/** The average after one more value. */
export const nextAverage = (average: number, value: number, lambda: number): number =>
  lambda * value + (1 - lambda) * average;

/** Exponentially weighted moving average, one number for each value. Source: NIST/SEMATECH e-Handbook, 6.3.2.4. */
export function ewma(values: readonly number[], target: number, lambda: number): readonly number[] {
  let now = target;
  return values.map((v) => {
    now = nextAverage(now, v, lambda);
    return now;
  });
}

/** Half the distance of the limits, by the average's SD when it has run for long. Same source. */
export const ewmaHalfWidth = (sd: number, { lambda, width }: EwmaDesign): number =>
  width * sd * Math.sqrt(lambda / (2 - lambda));
