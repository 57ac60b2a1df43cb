import { individualsLimits } from './individuals';
import { mean, sampleSd } from '../math/mean';
import { normalQuantile } from '../math/normal-quantile';
import { studentProbability, studentQuantile } from '../math/quantile';

/**
 * So many points make a chart's usual mean and spread; until then they are still being learned. Limits from ten or twenty
 * points give a false signal within fifty more in 37 or 29 of 100 charts, where 13 are meant.
 */
export const FULL_COUNT = 50;

/**
 * What is usual: from the points that no signal stood at, the first fifty of them. While there are fewer, the sample's own
 * mean and SD; of fifty, those of an individuals chart, whose spread comes from neighbours and so holds less of a slow walk.
 */
export interface Usual {
  readonly mean: number;
  readonly sd: number;
  readonly count: number;
}

/** Null while two points are too few to know a spread. */
export function usualOf(values: readonly number[]): Usual | null {
  const first = values.slice(0, FULL_COUNT);
  if (first.length < 2) return null;
  if (first.length === FULL_COUNT) {
    const { centre, sd } = individualsLimits(first);
    return { mean: centre, sd, count: FULL_COUNT };
  }
  const sd = sampleSd(first);
  return sd > 0 ? { mean: mean(first), sd, count: first.length } : null;
}

/**
 * How far the next value lies from what is usual, as a standard normal number. While it is being learned: exactly so when all
 * come from one normal distribution, however few are known. The self-starting statistic of Hawkins (The Statistician 36, 1987) and Quesenberry
 * (Journal of Quality Technology 23, 1991), from memory; that it is standard normal is tested.
 */
export function deviation(value: number, { mean: centre, sd, count }: Usual): number {
  if (count >= FULL_COUNT) return (value - centre) / sd;
  const t = (value - centre) / (sd * Math.sqrt(1 + 1 / count));
  const tail = studentProbability(-Math.abs(t), count - 1);
  // Beyond a tail of 1e-15 the sign alone is left.
  const z = -normalQuantile(Math.max(tail, 1e-15));
  return t < 0 ? -z : z;
}

/** Limits within which the next value lies in 99.73 of 100: three sigma, wider while few points are known. */
export function usualLimits({ mean: centre, sd, count }: Usual): { readonly lower: number; readonly upper: number } {
  const isLearned = count >= FULL_COUNT;
  const half = isLearned ? 3 * sd : studentQuantile(THREE_SIGMA_TAIL, count - 1) * sd * Math.sqrt(1 + 1 / count);
  return { lower: centre - half, upper: centre + half };
}

/** Normal probability below three sigma. */
const THREE_SIGMA_TAIL = 0.9986501019683699;
