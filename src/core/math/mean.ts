/** Arithmetic mean; NaN of nothing. */
export const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/** SD of a sample about its own mean, n - 1 degrees of freedom; two passes, so that a large common part costs no digits. */
export function sampleSd(values: readonly number[]): number {
  const centre = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - centre) ** 2, 0) / (values.length - 1));
}
