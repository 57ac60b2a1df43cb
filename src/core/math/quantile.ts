import { regularisedBeta, regularisedGamma } from './gamma';
import { normalQuantile } from './normal-quantile';

/**
 * The x at which an increasing cumulative function reaches p: brackets the root, then closes the bracket by false position
 * with Illinois halving, which cannot leave it; ends when the bracket or the step is at the last digit.
 * Source: Dowell and Jarratt 1971 for the halving, from memory.
 */
function invertIncreasing(cumulative: (x: number) => number, p: number, start: readonly [number, number]): number {
  let [low, high] = start;
  let below = cumulative(low) - p;
  let above = cumulative(high) - p;
  while (above < 0) {
    low = high;
    below = above;
    high *= 2;
    above = cumulative(high) - p;
  }
  let lastSide = 0;
  for (let i = 0; i < 200; i++) {
    const step = ((high - low) * below) / (above - below);
    const x = i % 3 === 2 ? 0.5 * (low + high) : low - step;
    const value = cumulative(x) - p;
    if (value === 0 || high - low <= 4 * Number.EPSILON * Math.abs(x)) return x;
    const side = value < 0 ? -1 : 1;
    if (side < 0) {
      low = x;
      below = value;
      if (lastSide < 0) above /= 2;
    } else {
      high = x;
      above = value;
      if (lastSide > 0) below /= 2;
    }
    lastSide = side;
  }
  return 0.5 * (low + high);
}

/** Standard normal cumulative probability. */
export function normalProbability(x: number): number {
  const tail = 0.5 * (1 - regularisedGamma(0.5, (x * x) / 2));
  return x < 0 ? tail : 1 - tail;
}

/** Student t quantile, 0 < p < 1, nu > 0 degrees of freedom; nu = Infinity gives the normal quantile. */
export function studentQuantile(p: number, degreesOfFreedom: number): number {
  if (!Number.isFinite(degreesOfFreedom)) return normalQuantile(p);
  if (p === 0.5) return 0;
  const upper = Math.max(p, 1 - p);
  const nu = degreesOfFreedom;
  const twoSided = (t: number) => regularisedBeta((t * t) / (nu + t * t), 0.5, nu / 2);
  const t = invertIncreasing(twoSided, 2 * upper - 1, [0, 2]);
  return p < 0.5 ? -t : t;
}

/** Student t cumulative probability, nu > 0 degrees of freedom. */
export function studentProbability(t: number, degreesOfFreedom: number): number {
  const tail = regularisedBeta(degreesOfFreedom / (degreesOfFreedom + t * t), degreesOfFreedom / 2, 0.5) / 2;
  return t < 0 ? tail : 1 - tail;
}

/** Chi-square quantile, 0 < p < 1. */
export function chiSquareQuantile(p: number, degreesOfFreedom: number): number {
  return invertIncreasing((x) => regularisedGamma(degreesOfFreedom / 2, x / 2), p, [0, degreesOfFreedom]);
}

/** Fisher F quantile, 0 < p < 1; an infinite second degree of freedom gives chi-square over its degrees. */
export function fisherQuantile(p: number, nu1: number, nu2: number): number {
  if (!Number.isFinite(nu2)) return chiSquareQuantile(p, nu1) / nu1;
  return invertIncreasing((x) => regularisedBeta((nu1 * x) / (nu1 * x + nu2), nu1 / 2, nu2 / 2), p, [0, 1]);
}
