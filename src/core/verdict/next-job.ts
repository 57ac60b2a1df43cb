import type { Point } from '../geometry/affine';
import { componentRow, PARAMETER_COUNT } from '../fit/design';
import { standardNormal, type Rng } from '../math/random';
import { choleskyFactor } from '../math/symmetric';

export interface NextJob {
  /** The next job's worst corner is below this in half, and in 95 of 100, of draws. */
  readonly medianMm: number;
  readonly q95Mm: number;
  /** Share of draws beyond the tolerance. */
  readonly outShare: number;
}

export interface NextJobInput {
  readonly beta: readonly number[];
  /** 6 x 6 of the constant part. */
  readonly covariance: ArrayLike<number>;
  /** 6 x 6 of one fresh load. */
  readonly loadCovariance: ArrayLike<number>;
  readonly corners: readonly Point[];
  readonly toleranceMm: number;
}

const DRAWS = 4000;

/**
 * Worst corner of the next job, by seeded Monte Carlo: the constant part drawn from its estimate, a fresh load's noise
 * added, the largest corner taken. 4,000 draws put the 95 % point within 2 % of its value.
 */
export function nextJob(input: NextJobInput, rng: Rng): NextJob {
  const n = PARAMETER_COUNT;
  const total = Float64Array.from(input.covariance, (value, i) => value + input.loadCovariance[i]!);
  const factor = choleskyFactor(total, n);
  const rows = input.corners.map((p) => [componentRow('across', p.x, p.y), componentRow('along', p.x, p.y)] as const);
  const worst = Array.from({ length: DRAWS }, () => {
    const z = Array.from({ length: n }, () => standardNormal(rng));
    const beta = input.beta.map((b, i) => b + z.reduce((sum, value, j) => sum + factor[i * n + j]! * value, 0));
    const dot = (row: readonly number[]): number => row.reduce((sum, value, i) => sum + value * beta[i]!, 0);
    return Math.max(...rows.map(([across, along]) => Math.hypot(dot(across), dot(along))));
  }).sort((a, b) => a - b);
  const at = (share: number): number => worst[Math.min(DRAWS - 1, Math.floor(share * DRAWS))]!;
  return {
    medianMm: at(0.5),
    q95Mm: at(0.95),
    outShare: worst.filter((w) => w > input.toleranceMm).length / DRAWS,
  };
}
