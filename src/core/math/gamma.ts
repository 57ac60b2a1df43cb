/** Lanczos coefficients, g = 7, n = 9 (about 15 digits). Source: Numerical Recipes style table, from memory; checked by tests. */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

/** ln Gamma(x) for x > 0. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  let sum: number = LANCZOS[0];
  for (let i = 1; i < LANCZOS.length; i++) sum += LANCZOS[i]! / (z + i);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const TINY = 1e-300;

/** Continued fraction of the incomplete beta function by Lentz's method (Abramowitz and Stegun 26.5.8). */
function betaFraction(x: number, a: number, b: number): number {
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < TINY ? TINY : d);
  let h = d;
  for (let m = 1; m <= 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 + even * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + even / c;
    if (Math.abs(c) < TINY) c = TINY;
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 + odd * d;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = 1 + odd / c;
    if (Math.abs(c) < TINY) c = TINY;
    const step = d * c;
    h *= step;
    if (Math.abs(step - 1) < 1e-15) break;
  }
  return h;
}

/** Regularised incomplete beta function I_x(a, b), a, b > 0, x in [0, 1]. */
export function regularisedBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  if (x < (a + 1) / (a + b + 2)) return (front * betaFraction(x, a, b)) / a;
  return 1 - (front * betaFraction(1 - x, b, a)) / b;
}

/** Regularised lower incomplete gamma function P(a, x), a > 0, x >= 0 (Abramowitz and Stegun 6.5.29, 6.5.31). */
export function regularisedGamma(a: number, x: number): number {
  if (x <= 0) return 0;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < 1000 && Math.abs(term) > Math.abs(sum) * 1e-16; n++) {
      term *= x / (a + n);
      sum += term;
    }
    return front * sum;
  }
  let b = x + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i < 1000; i++) {
    const an = -i * (i - a);
    b += 2;
    d = an * d + b;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    c = b + an / c;
    if (Math.abs(c) < TINY) c = TINY;
    const step = d * c;
    h *= step;
    if (Math.abs(step - 1) < 1e-15) break;
  }
  return 1 - front * h;
}
