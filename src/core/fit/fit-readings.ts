import { apply, displacement, identity, inverseOf, then, type Affine } from '../geometry/affine';
import { mapInMachine, mapOnSheet, type Load } from '../geometry/load';
import { observationOf, observationUnder, type Observation, type FigureReading } from '../reading/observation';
import type { Result } from '../result';
import { fitErrorMap, type ErrorMapFit, type FitError, type FitOptions } from './fit-error-map';

/** The place a reading belongs to depends on the map itself, at second order: two rounds move it by less than 0.1 um. */
const ROUNDS = 3;

/** What would have been read had the set been cut with the reference settings: the cut moves on from where it fell. */
function withReference(o: Observation, own: Affine, move: Affine): Observation {
  const d = displacement(move, apply(own, o.at));
  return { ...o, valueMm: o.valueMm + (o.axis === 'across' ? d.x : d.y) };
}

/** The reading as an observation in the sheet frame of `frameLoad`, placed by the map found so far. */
function placed(reading: FigureReading, map: Affine, frameLoad: Load): Observation {
  const { load, toReference } = reading;
  const atReference = mapOnSheet(mapInMachine(map, frameLoad), load);
  if (!toReference) return observationUnder(observationOf(reading, atReference), load, frameLoad);
  const move = mapOnSheet(toReference, load);
  const own = then(atReference, inverseOf(move));
  return observationUnder(withReference(observationOf(reading, own), own, move), load, frameLoad);
}

/**
 * Fit of readings off a sheet’s figures, in the sheet frame of one load. Sets that lay otherwise are told in that frame: the error is
 * taken to be the machine's. Readings are placed by the map found so far, and fitted again.
 */
export function fitReadings(
  readings: readonly FigureReading[],
  frameLoad: Load,
  options: FitOptions = {},
): Result<ErrorMapFit, FitError> {
  const place = (map: Affine): Observation[] => readings.map((r) => placed(r, map, frameLoad));
  let fit = fitErrorMap(place(identity()), options);
  for (let round = 1; round < ROUNDS; round++) {
    if (!fit.ok) return fit;
    fit = fitErrorMap(place(fit.value.map), options);
  }
  return fit;
}
