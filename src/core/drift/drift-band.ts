import type { DirectionDrift } from './roll-drift';
import { foretellError, foretoldMean, foretoldQuantile, tellErrors, type Foretold } from './slip-belief';

/** What is told of a cut in the middle of a roll at one place, with its 95 % interval. */
export interface BandPlace {
  readonly atMm: number;
  readonly meanMm: number;
  readonly lowMm: number;
  readonly highMm: number;
}

const LOOKS = 40;
const SIDE = 0.025;

const placeOf = (atMm: number, told: Foretold): BandPlace => ({
  atMm,
  meanMm: foretoldMean(told),
  lowMm: foretoldQuantile(told, SIDE),
  highMm: foretoldQuantile(told, 1 - SIDE),
});

/** Readings to be told of, spread over all of them; of those at one place only the last. */
function spread(atMm: Float64Array): readonly number[] {
  const places = Array.from(atMm, (_, i) => i).filter((i) => atMm[i] !== atMm[i + 1]);
  const every = Math.max(1, Math.ceil(places.length / LOOKS));
  return places.filter((_, k) => k % every === 0 || k === places.length - 1);
}

/**
 * Where cuts fall along the middle of a roll, steady drift and slip together: as far as was read told by all readings,
 * beyond that what a cut may be out by.
 */
export function driftBand({ series, belief, rowAt }: DirectionDrift, endMm: number): readonly BandPlace[] {
  const indices = spread(series.atMm);
  const rowOf = (i: number): readonly number[] => rowAt(series.atMm[i]!, 0);
  const read = tellErrors(series, belief, indices, rowOf).map((told, k) => placeOf(series.atMm[indices[k]!]!, told));
  const lastMm = series.atMm.at(-1)!;
  const beyond = Array.from({ length: LOOKS }, (_, i) => lastMm + ((i + 1) * (endMm - lastMm)) / LOOKS);
  return [
    ...read,
    ...(endMm > lastMm ? beyond : []).map((atMm) => placeOf(atMm, foretellError(belief, atMm, rowAt(atMm, 0)))),
  ];
}
