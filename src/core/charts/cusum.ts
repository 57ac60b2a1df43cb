export interface CusumDesign {
  /** Slack: half the shift that is looked for. Same unit as the values. */
  readonly slack: number;
  /** A sum beyond this signals. */
  readonly limit: number;
}

/**
 * In SDs: a false signal in about 465 points, a shift of one SD found in about 10 (two-sided).
 * Source: Lucas and Saccucci, Technometrics 32(1), 1990 (from memory, recomputed by simulation).
 */
export const USUAL_CUSUM: CusumDesign = { slack: 0.5, limit: 5 };

export interface CusumPoint {
  readonly high: number;
  readonly low: number;
}

/** Both sums after one more value, by how far it lies above the target. */
export const nextSums = ({ high, low }: CusumPoint, above: number, slack: number): CusumPoint => ({
  high: Math.max(0, high + above - slack),
  low: Math.max(0, low - above - slack),
});

/** Tabular cumulative sums above and below a target. Source: NIST/SEMATECH e-Handbook, 6.3.2.3. */
export function cusum(values: readonly number[], target: number, slack: number): readonly CusumPoint[] {
  let now: CusumPoint = { high: 0, low: 0 };
  return values.map((v) => {
    now = nextSums(now, v - target, slack);
    return now;
  });
}
