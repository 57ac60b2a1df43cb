import type { Point } from '../geometry/affine';
import type { Axis } from '../target/wedge';
import { componentRow, PARAMETER_COUNT } from './design';
import type { ErrorMapFit } from './fit-error-map';
import { covarianceAt, largestSd } from './point-covariance';

/** One component that could still be read. */
export interface OpenReading {
  readonly axis: Axis;
  readonly at: Point;
  readonly varianceMm2: number;
}

/** A spot that could still be read: what reading it would give. */
export interface Candidate {
  readonly readings: readonly OpenReading[];
}

/** The most useful of the spots that could still be read, and the worst corner's standard error without and with it. */
export interface NextBest<C extends Candidate> {
  readonly candidate: C;
  readonly beforeMm: number;
  readonly afterMm: number;
}

const N = PARAMETER_COUNT;

/** C - C a a^T C / (v + a^T C a): the covariance once one more component has been read. */
function updated(covariance: ArrayLike<number>, { axis, at, varianceMm2 }: OpenReading): ArrayLike<number> {
  const a = componentRow(axis, at.x, at.y);
  const ca = Array.from({ length: N }, (_, i) => a.reduce((sum, slope, j) => sum + covariance[i * N + j]! * slope, 0));
  const v = varianceMm2 + a.reduce((sum, slope, i) => sum + slope * ca[i]!, 0);
  return Float64Array.from({ length: N * N }, (_, k) => {
    const i = Math.floor(k / N);
    return covariance[k]! - (ca[i]! * ca[k % N]!) / v;
  });
}

/** What is taken to be known before anything was read: shifts to a mm, slopes to 10 mm in a metre. */
const VAGUE_SHIFT_MM = 1;
const VAGUE_SLOPE = 0.01;

/**
 * Covariance of the six parameters from some readings over a vague guess: for finding what to read next while the readings
 * carry no whole map. Its lengths rest on the guess and are not for telling.
 */
export function vagueCovariance(readings: readonly OpenReading[]): Float64Array {
  const guess = Float64Array.from({ length: N * N }, (_, k) => {
    const i = Math.floor(k / N);
    if (i !== k % N) return 0;
    return (i < 2 ? VAGUE_SHIFT_MM : VAGUE_SLOPE) ** 2;
  });
  return Float64Array.from(readings.reduce<ArrayLike<number>>(updated, guess));
}

const worstSd = (covariance: ArrayLike<number>, corners: readonly Point[]): number =>
  Math.max(...corners.map((p) => largestSd(covarianceAt(covariance, p))));

/**
 * Which spot next: the one that takes most doubt from the worst corner, whatever its outcome (in a linear fit a
 * reading's value does not change how well the others are known). Source: V. V. Fedorov, Theory of Optimal Experiments,
 * 1972, from memory (sequential design; here for the largest variance at the corners).
 * @param fit of the readings so far, its model carried by them. @returns null when nothing is left to be read.
 */
export function nextBest<C extends Candidate>(
  { covariance, readingCovariance }: Pick<ErrorMapFit, 'covariance' | 'readingCovariance'>,
  candidates: readonly C[],
  corners: readonly Point[],
): NextBest<C> | null {
  const other = Float64Array.from(covariance, (c, k) => c - readingCovariance[k]!);
  const beforeMm = worstSd(covariance, corners);
  let best: NextBest<C> | null = null;
  for (const candidate of candidates) {
    const reading = candidate.readings.reduce<ArrayLike<number>>(updated, readingCovariance);
    const afterMm = worstSd(
      other.map((c, k) => c + reading[k]!),
      corners,
    );
    if (!best || afterMm < best.afterMm) best = { candidate, beforeMm, afterMm };
  }
  return best;
}
