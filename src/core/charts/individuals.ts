import { mean } from '../math/mean';

/** Mean moving range of two over the SD of a normal: 2 / sqrt(pi). The handbooks print 1.128. */
export const RANGE_TO_SD = 2 / Math.sqrt(Math.PI);

export interface Limits {
  readonly centre: number;
  readonly sd: number;
  readonly lower: number;
  readonly upper: number;
}

/** Differences of each value from the one before it, without their signs. */
export const movingRanges = (values: readonly number[]): readonly number[] =>
  values.slice(1).map((v, i) => Math.abs(v - (values[i] ?? v)));

/**
 * Individuals chart with three-sigma limits from the mean moving range: a slow walk widens them less than it widens the
 * sample's own SD. @param values at least two. Source: NIST/SEMATECH e-Handbook, 6.3.2.2.
 */
export function individualsLimits(values: readonly number[], rangeToSd = RANGE_TO_SD): Limits {
  const centre = mean(values);
  const sd = mean(movingRanges(values)) / rangeToSd;
  return { centre, sd, lower: centre - 3 * sd, upper: centre + 3 * sd };
}
