import type { LeastSquaresError } from '../math/qr';
import { matrix } from '../math/qr';
import { ok, type Result } from '../result';
import { believeSlip, foretoldMean, foretoldQuantile, tellSteady, type Foretold, type SlipBelief } from './slip-belief';
import { estimateSlip, type SlipEstimate } from './slip-estimate';
import type { StationSeries } from './slip-filter';

/** One figure of a station: where it stands on the roll, and how far the cut is off the print there. */
export interface StationReading {
  /** Way from the leading edge (or the registered origin) along the roll, mm. */
  readonly atMm: number;
  /** Sideways from the middle of the work, mm. */
  readonly asideMm: number;
  readonly acrossMm: number;
  readonly alongMm: number;
}

/** A part of the drift, with its 95 % interval. */
export interface DriftPart {
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** What its value comes to at the far end of the strip, and at its edge: mm. */
  readonly atFarEndMm: number;
}

/** One direction of the drift: what stays the same, what grows with the way, and what walks at random. */
export interface DirectionDrift {
  readonly shiftMm: DriftPart;
  /** Growth with the way, mm a metre: feed along, sideways drift across. */
  readonly perMetreMm: DriftPart;
  /** How the growth itself changes, mm a metre and metre. */
  readonly bow: DriftPart;
  /** Growth with the way sideways, as a share (or rad): a turn along, the width's scale across. */
  readonly perWidth: DriftPart;
  readonly slip: SlipEstimate;
  readonly belief: SlipBelief;
  /** Standard deviation of one reading, mm. */
  readonly noiseMm: number;
}

export interface RollDrift {
  readonly across: DirectionDrift;
  readonly along: DirectionDrift;
  /**
   * How fast the roll itself wanders sideways, mm a metre: the sideways drift without what the turn makes of it.
   */
  readonly walkMm: DriftPart;
  readonly lengthMm: number;
}

const MM_PER_METRE = 1000;

/** What shift, growth, bow and width each add to a reading at a place: the columns of the design. */
export const driftRow = (atMm: number, asideMm: number): readonly [number, number, number, number] => {
  const metres = atMm / MM_PER_METRE;
  return [1, metres, (metres * metres) / 2, asideMm];
};

function seriesOf(stations: readonly StationReading[], of: 'acrossMm' | 'alongMm'): StationSeries {
  return {
    atMm: Float64Array.from(stations, ({ atMm }) => atMm),
    valuesMm: Float64Array.from(stations, (station) => station[of]),
    weights: new Float64Array(stations.length).fill(1),
    design: matrix(stations.length, 4, (row, column) => driftRow(stations[row]!.atMm, stations[row]!.asideMm)[column]!),
  };
}

const SIDE = 0.025;

const partOf = (told: Foretold, times: number): DriftPart => {
  const value = foretoldMean(told);
  return {
    value,
    low: foretoldQuantile(told, SIDE),
    high: foretoldQuantile(told, 1 - SIDE),
    atFarEndMm: value * times,
  };
};

interface Extent {
  readonly lengthMm: number;
  readonly halfWidthMm: number;
}

function directionOf(series: StationSeries, extent: Extent): Result<DirectionDrift, LeastSquaresError> {
  const belief = believeSlip(series);
  if (!belief.ok) return belief;
  const slip = estimateSlip(series);
  if (!slip.ok) return slip;
  const metres = extent.lengthMm / MM_PER_METRE;
  const part = (column: number, times: number): DriftPart =>
    partOf(
      tellSteady(
        belief.value,
        [0, 1, 2, 3].map((k) => (k === column ? 1 : 0)),
      ),
      times,
    );
  return ok({
    shiftMm: part(0, 1),
    perMetreMm: part(1, metres),
    bow: part(2, (metres * metres) / 2),
    perWidth: part(3, extent.halfWidthMm),
    slip: slip.value,
    belief: belief.value,
    noiseMm: Math.sqrt(slip.value.fit.noiseVariance),
  });
}

/** Mean and variance of what is foretold; degrees above two are wanted. */
function momentsOf({ parts }: Foretold): { readonly mean: number; readonly variance: number } {
  const mean = parts.reduce((sum, p) => sum + p.weight * p.meanMm, 0);
  const variance = parts.reduce(
    (sum, p) => sum + p.weight * ((p.sdMm ** 2 * p.degrees) / (p.degrees - 2) + (p.meanMm - mean) ** 2),
    0,
  );
  return { mean, variance };
}

/** 95 % of a normal distribution, to one side of two. */
const SIDE_95 = 1.96;

/**
 * The walk: a roll that only lies turned drifts sideways by minus its turn, so that the turn (told by left and right of the
 * stations) is added to the sideways drift. Both are told by readings of their own: their variances add.
 */
function walkOf(across: SlipBelief, along: SlipBelief, lengthMm: number): DriftPart {
  const sideways = momentsOf(tellSteady(across, [0, 1, 0, 0]));
  const turn = momentsOf(tellSteady(along, [0, 0, 0, MM_PER_METRE]));
  const value = sideways.mean + turn.mean;
  const reach = SIDE_95 * Math.sqrt(sideways.variance + turn.variance);
  return { value, low: value - reach, high: value + reach, atFarEndMm: (value * lengthMm) / MM_PER_METRE };
}

/** Stations that tell four coefficients each way need so many readings to tell slip and noise as well. */
export const LEAST_STATION_READINGS = 8;

export type RollProblem =
  | LeastSquaresError
  | { readonly kind: 'too-few-readings'; readonly needed: number }
  /** All stations stand at the origin. */
  | { readonly kind: 'no-length' };

/**
 * Steady drift and slip of a roll from what was read at its stations, the cut against the print. It does not know how long
 * the print itself is: feed of printer and cutter are told apart only by a length on the print.
 * @param stations in any order, at two places sideways and four along at least.
 */
export function rollDrift(stations: readonly StationReading[]): Result<RollDrift, RollProblem> {
  if (stations.length < LEAST_STATION_READINGS)
    return { ok: false, error: { kind: 'too-few-readings', needed: LEAST_STATION_READINGS } };
  const ordered = [...stations].sort((a, b) => a.atMm - b.atMm);
  const lengthMm = ordered.at(-1)!.atMm;
  if (!(lengthMm > 0)) return { ok: false, error: { kind: 'no-length' } };
  const extent = { lengthMm, halfWidthMm: Math.max(...ordered.map(({ asideMm }) => Math.abs(asideMm))) };
  const across = directionOf(seriesOf(ordered, 'acrossMm'), extent);
  if (!across.ok) return across;
  const along = directionOf(seriesOf(ordered, 'alongMm'), extent);
  if (!along.ok) return along;
  return ok({
    across: across.value,
    along: along.value,
    walkMm: walkOf(across.value.belief, along.value.belief, lengthMm),
    lengthMm,
  });
}
