import type { DirectionDrift } from './roll-drift';
import { foretellError, foretoldMean, foretoldQuantile, tellSteady } from './slip-belief';

/** What is told of one place in the middle of a roll, with its 95 % interval. */
export interface BandPlace {
  readonly atMm: number;
  readonly meanMm: number;
  readonly lowMm: number;
  readonly highMm: number;
}

const LOOKS = 60;
const SIDE = 0.025;

/** Along a roll: the steady drift with its doubt as far as was read; beyond that, what a cut may be out by. */
export function driftBand(direction: DirectionDrift, readToMm: number, endMm: number): readonly BandPlace[] {
  return Array.from({ length: LOOKS + 1 }, (_, i): BandPlace => {
    const atMm = (i * endMm) / LOOKS;
    const row = direction.rowAt(atMm, 0);
    const told = atMm <= readToMm ? tellSteady(direction.belief, row) : foretellError(direction.belief, atMm, row);
    return {
      atMm,
      meanMm: foretoldMean(told),
      lowMm: foretoldQuantile(told, SIDE),
      highMm: foretoldQuantile(told, 1 - SIDE),
    };
  });
}
