import { PARAMETER_COUNT } from '../fit/design';
import { nextJobOf, type NextJob, type NextJobInput } from '../verdict/next-job';
import type { ShiftNow } from './wander';

/**
 * The next job as it would come out now: the confirmed error with what the shift may have gone since, and a fresh load.
 * Only the shift wanders: scale, rotation and squareness are held as they were confirmed. @param draws of `normalDraws`. @returns worst corner, mm.
 */
export function forecastNow(input: NextJobInput, shift: ShiftNow, draws: Float64Array): NextJob {
  const n = PARAMETER_COUNT;
  const beta = input.beta.map((b, i) => b + ([shift.acrossMm, shift.alongMm][i] ?? 0));
  const covariance = Float64Array.from(input.covariance);
  for (const shiftEntry of [0, n + 1]) covariance[shiftEntry]! += shift.sdMm ** 2;
  return nextJobOf({ ...input, beta, covariance }, draws);
}
