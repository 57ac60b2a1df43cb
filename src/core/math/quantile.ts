import { regularisedBeta, regularisedGamma } from './gamma';

/**
 * The x at which an increasing cumulative function reaches p, by bracketing and bisection.
 * Bisection is slow but cannot wander off; about 100 evaluations to the last digit.
 */
function invertIncreasing(cumulative: (x: number) => number, p: number, start: readonly [number, number]): number {
  let [low, high] = start;
  while (cumulative(high) < p) {
    low = high;
    high *= 2;
  }
  for (let i = 0; i < 200; i++) {
    const middle = 0.5 * (low + high);
    if (middle === low || middle === high) break;
    if (cumulative(middle) < p) low = middle;
    else high = middle;
  }
  return 0.5 * (low + high);
}

/** Standard normal cumulative probability. */
export function normalProbability(x: number): number {
  const tail = 0.5 * (1 - regularisedGamma(0.5, (x * x) / 2));
  return x < 0 ? tail : 1 - tail;
}

/** Standard normal quantile, 0 < p < 1. */
export function normalQuantile(p: number): number {
  if (p === 0.5) return 0;
  const upper = Math.max(p, 1 - p);
  const x = Math.sqrt(invertIncreasing((q) => regularisedGamma(0.5, q / 2), 2 * upper - 1, [0, 4]));
  return p < 0.5 ? -x : x;
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

/** Chi-square quantile, 0 < p < 1. */
export function chiSquareQuantile(p: number, degreesOfFreedom: number): number {
  return invertIncreasing((x) => regularisedGamma(degreesOfFreedom / 2, x / 2), p, [0, degreesOfFreedom]);
}

/** Fisher F quantile, 0 < p < 1; an infinite second degree of freedom gives chi-square over its degrees. */
export function fisherQuantile(p: number, nu1: number, nu2: number): number {
  if (!Number.isFinite(nu2)) return chiSquareQuantile(p, nu1) / nu1;
  return invertIncreasing((x) => regularisedBeta((nu1 * x) / (nu1 * x + nu2), nu1 / 2, nu2 / 2), p, [0, 1]);
}
