/** Two-sided 95 % of a normal distribution. */
const Z_95 = 1.959963984540054;

export interface Proportion {
  readonly share: number;
  readonly lower: number;
  readonly upper: number;
}

/**
 * A share with its 95 % interval by Wilson's score (Wilson 1927): right for few trials, and at none and all, where the usual
 * formula gives a width of zero.
 * @param hits whole number from 0 to trials. @param trials at least 1.
 */
export function wilsonInterval(hits: number, trials: number): Proportion {
  const share = hits / trials;
  const square = Z_95 * Z_95;
  const middle = (share + square / (2 * trials)) / (1 + square / trials);
  const half =
    (Z_95 / (1 + square / trials)) * Math.sqrt((share * (1 - share)) / trials + square / (4 * trials * trials));
  return { share, lower: Math.max(0, middle - half), upper: Math.min(1, middle + half) };
}

/** ln n! for whole n, by its sum: the counts here are those of a shop. */
function lnFactorials(most: number): Float64Array {
  const table = new Float64Array(most + 1);
  for (let n = 2; n <= most; n++) table[n] = table[n - 1]! + Math.log(n);
  return table;
}

/** Tables as likely as the one seen count as extreme as it, whatever the last digits are. */
const TIE = 1 + 1e-7;

/**
 * How likely two shares are to differ by this much or more where they are truly the same: Fisher's exact test, two-sided
 * (Fisher 1935; the sum of all tables no likelier than the one seen). Right for any counts, and never too sure of few.
 */
export function fisherExact(
  a: { readonly hits: number; readonly trials: number },
  b: { readonly hits: number; readonly trials: number },
): number {
  const [all, hits] = [a.trials + b.trials, a.hits + b.hits];
  const ln = lnFactorials(all);
  const choose = (n: number, k: number): number => ln[n]! - ln[k]! - ln[n - k]!;
  const chance = (k: number): number => Math.exp(choose(a.trials, k) + choose(b.trials, hits - k) - choose(all, hits));
  const seen = chance(a.hits) * TIE;
  let sum = 0;
  for (let k = Math.max(0, hits - b.trials); k <= Math.min(a.trials, hits); k++) {
    const p = chance(k);
    if (p <= seen) sum += p;
  }
  return Math.min(1, sum);
}
