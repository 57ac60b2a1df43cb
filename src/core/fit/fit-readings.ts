import { identity } from '../geometry/affine';
import { observationOf, type WedgeReading } from '../reading/observation';
import type { Result } from '../result';
import { fitErrorMap, type ErrorMapFit, type FitError, type FitOptions } from './fit-error-map';

/** The place a reading belongs to depends on the map itself, at second order: two rounds move it by less than 0.1 um. */
const ROUNDS = 3;

/** Fit of wedge readings: places them by the map found so far, and fits again. */
export function fitReadings(
  readings: readonly WedgeReading[],
  options: FitOptions = {},
): Result<ErrorMapFit, FitError> {
  const place = (map: Parameters<typeof observationOf>[1]) => readings.map((r) => observationOf(r, map));
  let fit = fitErrorMap(place(identity()), options);
  for (let round = 1; round < ROUNDS; round++) {
    if (!fit.ok) return fit;
    fit = fitErrorMap(place(fit.value.map), options);
  }
  return fit;
}
