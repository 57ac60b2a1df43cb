import type { Point } from '../geometry/affine';
import { PARAMETER_COUNT } from '../fit/design';
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
 * Worst corner of each of 4,000 next jobs, ascending: the constant part drawn from its estimate, a fresh load added. Plain
 * loops over one set of buffers: every map page waits for it.
 */
function worstOfJobs(input: Omit<NextJobInput, 'toleranceMm'>, rng: Rng): Float64Array {
  const n = PARAMETER_COUNT;
  const total = Float64Array.from(input.covariance, (value, i) => value + input.loadCovariance[i]!);
  const factor = choleskyFactor(total, n);
  const z = new Float64Array(n);
  const b = new Float64Array(n);
  const worst = new Float64Array(DRAWS);
  for (let draw = 0; draw < DRAWS; draw++) {
    for (let i = 0; i < n; i++) z[i] = standardNormal(rng);
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let j = 0; j < n; j++) sum += factor[i * n + j]! * z[j]!;
      b[i] = input.beta[i]! + sum;
    }
    for (const { x, y } of input.corners) {
      const across = b[0]! + b[2]! * x + b[3]! * y;
      const along = b[1]! + b[4]! * x + b[5]! * y;
      worst[draw] = Math.max(worst[draw]!, Math.hypot(across, along));
    }
  }
  return worst.sort();
}

const quantileOf = (sorted: Float64Array, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;

/**
 * Worst corner of the next job, by seeded Monte Carlo: the largest over the corners of each draw. 4,000 draws put the
 * 95 % point within 2 % of its value.
 */
export function nextJob(input: NextJobInput, rng: Rng): NextJob {
  const worst = worstOfJobs(input, rng);
  return {
    medianMm: quantileOf(worst, 0.5),
    q95Mm: quantileOf(worst, 0.95),
    outShare: worst.filter((w) => w > input.toleranceMm).length / worst.length,
  };
}

/**
 * White border or bleed that hides the error of so large a share of next jobs with nothing changed: that quantile of the
 * worst corner. @param yieldShare of jobs, 0 to 1; a job is good when its worst copy is.
 */
export const borderFor = (input: Omit<NextJobInput, 'toleranceMm'>, yieldShare: number, rng: Rng): number =>
  quantileOf(worstOfJobs(input, rng), yieldShare);
