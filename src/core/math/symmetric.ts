/** Largest eigenvalue of the symmetric matrix [[a, b], [b, c]]. */
export function largestEigenvalue(a: number, b: number, c: number): number {
  return (a + c) / 2 + Math.hypot((a - c) / 2, b);
}

/** Lower Cholesky factor of a positive semi-definite row-major matrix of order n; directions without variance give zero columns. */
export function choleskyFactor(covariance: ArrayLike<number>, n: number): Float64Array {
  const lower = new Float64Array(n * n);
  for (let j = 0; j < n; j++) {
    let pivot = covariance[j * n + j]!;
    const scale = Math.abs(pivot);
    for (let k = 0; k < j; k++) pivot -= lower[j * n + k]! ** 2;
    if (pivot <= scale * 1e-14) continue;
    const diagonal = Math.sqrt(pivot);
    lower[j * n + j] = diagonal;
    for (let i = j + 1; i < n; i++) {
      let sum = covariance[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= lower[i * n + k]! * lower[j * n + k]!;
      lower[i * n + j] = sum / diagonal;
    }
  }
  return lower;
}
