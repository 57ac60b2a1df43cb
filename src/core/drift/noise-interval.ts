import { chiSquareQuantile } from '../math/quantile';
import type { SlipBelief } from './slip-belief';

/** Each ratio of slip to noise is told by so many of its quantiles. */
const LEVELS = 50;
/** Ratios that are held for less likely than this change nothing. */
const LEAST_WEIGHT = 1e-3;
const SIDE = 0.025;

/**
 * Between what one reading's own scatter lies, 95 % sure: under each ratio of slip to noise its variance times degrees over
 * it is chi-square; ratios count by their weights.
 * @returns standard deviations, mm.
 */
export function noiseInterval({ beliefs }: Pick<SlipBelief, 'beliefs'>): {
  readonly lowMm: number;
  readonly highMm: number;
} {
  const told = beliefs
    .filter(({ weight }) => weight > LEAST_WEIGHT)
    .flatMap(({ fit: { noiseVariance, degrees }, weight }) =>
      Array.from({ length: LEVELS }, (_, i) => ({
        sdMm: Math.sqrt((noiseVariance * degrees) / chiSquareQuantile((i + 0.5) / LEVELS, degrees)),
        weight,
      })),
    )
    .sort((a, b) => a.sdMm - b.sdMm);
  const all = told.reduce((sum, { weight }) => sum + weight, 0);
  const at = (share: number): number => {
    let seen = 0;
    for (const { sdMm, weight } of told) {
      seen += weight;
      if (seen >= share * all) return sdMm;
    }
    return told.at(-1)?.sdMm ?? NaN;
  };
  return { lowMm: at(SIDE), highMm: at(1 - SIDE) };
}
