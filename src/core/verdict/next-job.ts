import type { Point } from '../geometry/affine';
import { PARAMETER_COUNT } from '../fit/design';
import { valueOfRank } from '../math/median';
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

/** Standard normal numbers for so many next jobs, six each: drawn once where many setups are looked at. */
export const normalDraws = (rng: Rng, jobs = DRAWS): Float64Array =>
  Float64Array.from({ length: jobs * PARAMETER_COUNT }, () => standardNormal(rng));

/**
 * Square of the worst corner of each of the next jobs that the draws make: the constant part drawn from its
 * estimate, a fresh load added. Plain loops over one set of buffers: every map page waits for it, and the bench for hundreds.
 */
function squaresOfJobs(input: Omit<NextJobInput, 'toleranceMm'>, draws: Float64Array): Float64Array {
  const n = PARAMETER_COUNT;
  const total = Float64Array.from(input.covariance);
  for (let i = 0; i < total.length; i++) total[i]! += input.loadCovariance[i]!;
  const l = choleskyFactor(total, n);
  const xs = Float64Array.from(input.corners, (p) => p.x);
  const ys = Float64Array.from(input.corners, (p) => p.y);
  const [b0 = 0, b1 = 0, b2 = 0, b3 = 0, b4 = 0, b5 = 0] = input.beta;
  const worst = new Float64Array(draws.length / n);
  for (let draw = 0, k = 0; draw < worst.length; draw++, k += n) {
    const z0 = draws[k]!;
    const z1 = draws[k + 1]!;
    const z2 = draws[k + 2]!;
    const z3 = draws[k + 3]!;
    const z4 = draws[k + 4]!;
    const z5 = draws[k + 5]!;
    // Each parameter: its estimate and its row of the factor, written out: loops over them cost nearly twice as much.
    const tx = b0 + l[0]! * z0;
    const ty = b1 + l[6]! * z0 + l[7]! * z1;
    const xx = b2 + l[12]! * z0 + l[13]! * z1 + l[14]! * z2;
    const xy = b3 + l[18]! * z0 + l[19]! * z1 + l[20]! * z2 + l[21]! * z3;
    const yx = b4 + l[24]! * z0 + l[25]! * z1 + l[26]! * z2 + l[27]! * z3 + l[28]! * z4;
    const yy = b5 + l[30]! * z0 + l[31]! * z1 + l[32]! * z2 + l[33]! * z3 + l[34]! * z4 + l[35]! * z5;
    let most = 0;
    for (let corner = 0; corner < xs.length; corner++) {
      const across = tx + xx * xs[corner]! + xy * ys[corner]!;
      const along = ty + yx * xs[corner]! + yy * ys[corner]!;
      const square = across * across + along * along;
      if (square > most) most = square;
    }
    worst[draw] = most;
  }
  return worst;
}

/** Root of the square that so large a share of them is not above; puts them in another order. */
const quantileOf = (squares: Float64Array, share: number): number =>
  Math.sqrt(valueOfRank(squares, Math.min(squares.length - 1, Math.floor(share * squares.length))));

function shareAbove(values: Float64Array, limit: number): number {
  let count = 0;
  for (let i = 0; i < values.length; i++) if (values[i]! > limit) count++;
  return count / values.length;
}

/**
 * Worst corner of the next job, by seeded Monte Carlo: the largest over the corners of each draw. 4,000 draws put the
 * 95 % point within 2 % of its value.
 */
export const nextJob = (input: NextJobInput, rng: Rng): NextJob => nextJobOf(input, normalDraws(rng));

/** The same from draws that were made before. */
export function nextJobOf(input: NextJobInput, draws: Float64Array): NextJob {
  const squares = squaresOfJobs(input, draws);
  return {
    medianMm: quantileOf(squares, 0.5),
    q95Mm: quantileOf(squares, 0.95),
    outShare: shareAbove(squares, input.toleranceMm ** 2),
  };
}

/**
 * White border or bleed that hides the error of so large a share of next jobs with nothing changed: that quantile of the
 * worst corner. @param yieldShare of jobs, 0 to 1; a job is good when its worst copy is.
 */
export const borderFor = (input: Omit<NextJobInput, 'toleranceMm'>, yieldShare: number, rng: Rng): number =>
  quantileOf(squaresOfJobs(input, normalDraws(rng)), yieldShare);
